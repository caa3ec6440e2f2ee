import type { ComposedSheet } from '@/core/composing'
import { qualificationNames } from '@/core/models'
import { showMinutes } from '@/core/plan'
import { inSentence } from '@/core/units'

type Props = Pick<ComposedSheet, 'helperMinutes' | 'perhapsMinutes' | 'qualifications'>

/** A second person and for how long, what more may come, and who must be qualified for what. */
export function WhoItTakes({ helperMinutes, perhapsMinutes, qualifications }: Props) {
  return (
    <>
      {perhapsMinutes > 0 && (
        <p>
          Up to <span className="strong">{showMinutes(perhapsMinutes)}</span> more where something is found
          bad.
        </p>
      )}
      {helperMinutes > 0 && (
        <p>
          A second person for <span className="strong">{showMinutes(helperMinutes)}</span> of it.
        </p>
      )}
      {qualifications.map(({ qualification, what }) => (
        <p key={qualification}>
          Somebody {qualificationNames[qualification]}{' '}
          <span className="second">{what.map(inSentence).join(', ')}; by local codes</span>
        </p>
      ))}
    </>
  )
}
