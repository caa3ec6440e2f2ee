import type { ZoneState } from '@/core/winter'
import { Note } from '../feedback/States'
import { Link } from '../frame/Link'

/** What stands on everything of a machine that must not be started. */
export function LaidUpNote({ state, number }: { state: ZoneState; number: string }) {
  const winter = <Link href={`/winter/${encodeURIComponent(number)}`}>Its winter</Link>
  if (state === 'exposed')
    return (
      <Note tone="oxide" title="Do not start it.">
        Frost met it unprotected: thaw it in a heated place, look at manifold, unloader, coil and gun, leak
        look at low pressure, then pressure. The maker’s manual comes first. {winter}
      </Note>
    )
  if (state === 'protected' || state === 'unproved')
    return (
      <Note title="Laid up, do not start.">It is made safe for winter; running it voids that. {winter}</Note>
    )
  return null
}
