import type { ZoneState } from '@/core/winter'
import { Link } from '../frame/Link'
import './winter.css'

/** What stands on everything of a machine that must not be started. */
export function LaidUpNote({ state, machineId }: { state: ZoneState; machineId: string }) {
  if (state === 'exposed')
    return (
      <p className="note note-oxide" role="alert">
        <strong>Do not start it.</strong> Frost met it unprotected: thaw it in a heated place, look at
        manifold, unloader, coil and gun, leak look at low pressure, then pressure.{' '}
        <Link href={`/winter/${machineId}`}>Its winter</Link>
      </p>
    )
  if (state === 'protected' || state === 'unproved')
    return (
      <p className="note laid-up">
        <strong>Laid up, do not start.</strong> It is made safe for winter; running it voids that.{' '}
        <Link href={`/winter/${machineId}`}>Its winter</Link>
      </p>
    )
  return null
}
