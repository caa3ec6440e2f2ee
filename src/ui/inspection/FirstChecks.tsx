import type { Triage } from '@/core/inspection'
import { Note } from '../feedback/States'

const riskWords = { look: 'look', running: 'machine running', opening: 'opens something' } as const

/** What a sign points at, and what to check first: cheapest and safest first. */
export function FirstChecks({ triage, positionsWords }: { triage: Triage; positionsWords?: boolean }) {
  return (
    <div className="first-checks">
      {triage.stop && <Note tone="oxide">{triage.stop}</Note>}
      {triage.flow && <p>{triage.flow.words}</p>}
      {triage.likely.length > 0 && (
        <>
          <h4>Probably, most likely first</h4>
          <ol className="likely">
            {triage.likely.map((each) => (
              <li key={each.name}>
                <span className="strong">{each.name}</span>{' '}
                <span className="second">
                  {each.why}
                  {positionsWords && each.positions.length > 0 && ` · ${each.positions.length} positions`}
                </span>
              </li>
            ))}
          </ol>
        </>
      )}
      <h4>First checks, cheapest and safest first</h4>
      <ol className="checks">
        {triage.checks.map((check) => (
          <li key={check.key}>
            {check.text}{' '}
            <span className="second nowrap">
              {check.minutes} min, {riskWords[check.risk]}
            </span>
            {check.caution && <span className="caution-line">{check.caution}</span>}
          </li>
        ))}
      </ol>
      <p className="second">
        A ranking from what was seen, never a certainty. The maker’s manual, local rules and qualified people
        come first.
      </p>
    </div>
  )
}
