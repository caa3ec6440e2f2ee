import { visitNumber } from '@/core/plan'
import { showAmount } from '@/core/stores'
import { choiceName, practiceOf } from '@/core/practices'
import {
  boltPlaces,
  looksUpFirst,
  fastenerOf,
  isLook,
  phasesOf,
  type SheetState,
  type SheetLine,
} from '@/core/sheets'
import { showTorque } from '@/core/torque'
import { inSentence } from '@/core/units'
import { doneWords, phaseNames, torqueFor } from '../words'

/** The whole sheet on paper: every step with its box, its caution and its torque; parts; room for a name. */
export function PaperSheet({ sheet, state }: { sheet: SheetLine; state: SheetState }) {
  return (
    <div className="print-only paper-sheet">
      <h1>
        Sheet {visitNumber(sheet.number)}:{' '}
        {sheet.machineNumber ? `${sheet.machineNumber} ${sheet.machineName}` : sheet.pumps.join(', ')}
      </h1>
      <p>{sheet.services.map(({ name, where }) => (where ? `${name}, ${where}` : name)).join(' · ')}</p>
      {state.content.assemblies.map((assembly) => (
        <p key={assembly.id} className="second">
          {assembly.number} {assembly.title}, serial {assembly.serial || 'not known'}. {assembly.notice}
        </p>
      ))}
      {(state.content.practices ?? []).length > 0 && (
        <p className="second">
          {state.content
            .practices!.map(
              ({ key, choice, from, overruled }) =>
                `${practiceOf(key).name}: ${inSentence(choiceName(key, choice))}${
                  from === 'manual' ? ' (the manual says so)' : ''
                }${overruled ? `, not our ${inSentence(choiceName(key, overruled))}` : ''}`,
            )
            .join('; ')}
          .
        </p>
      )}
      <ul>
        {state.content.meters.map((meter) => {
          const read = state.readings.find((entry) => entry.payload.meterId === meter.id)?.payload
          return (
            <li key={meter.id}>
              {meter.name}: {read ? (read.shown ?? read.typed) || read.unreadable : '________________'}
            </li>
          )
        })}
      </ul>
      {phasesOf(state).map(({ phase, steps }, index) => (
        <section key={`${phase} ${index}`}>
          <h2>{phaseNames[phase] ?? phase}</h2>
          <ol>
            {steps.map((each) => {
              const fastener = fastenerOf(state, each)
              const { step, where } = each.step
              return (
                <li key={each.step.key}>
                  <span className="paper-box">
                    {each.state === 'done' ? '✓' : each.state === 'skipped' ? '–' : ''}
                  </span>
                  <span>
                    {step.when && each.state === 'waiting' && (
                      <>Only if {[step.when.is].flat().join(', or ')}: </>
                    )}
                    {step.text} <span className="strong">{where}</span>
                    {fastener && (
                      <span className="strong">
                        {' '}
                        · {torqueFor(state, each)}:{' '}
                        {step.snug ? 'until they touch' : showTorque(fastener.torque, step.stage)}
                        {looksUpFirst(state, each) && ' · look it up in the maker’s manual first'}
                      </span>
                    )}
                    {step.caution && <em> {step.caution}</em>}
                    {boltPlaces(state, each).length > 0 && each.state === 'open' && (
                      <span className="paper-bolts">
                        {boltPlaces(state, each).map(({ place, number, bolt, again }) => (
                          <span key={place}>
                            <span className="paper-box" /> {number}
                            {again ? ' again' : bolt === String(number) ? '' : ` (maker’s ${bolt})`}
                          </span>
                        ))}
                      </span>
                    )}
                    {isLook(each) && each.state === 'open' && <> Seen: ____________________</>}
                    {step.measure && each.state === 'open' && <> Measured: ________ {step.measure.unit}</>}
                    {step.setting && each.state === 'open' && <> Stands at: ____________</>}
                    {each.by && (
                      <span className="second">
                        {' '}
                        {[
                          each.by.byName,
                          each.by.kind === 'done' ? doneWords(each.by.payload) : each.by.payload.reason,
                        ]
                          .filter(Boolean)
                          .join(': ')}
                      </span>
                    )}
                  </span>
                </li>
              )
            })}
          </ol>
          {phase === 'makeSafe' && (
            <p>Made safe, confirmed by: {state.madeSafe?.payload.name ?? '________________________'}</p>
          )}
        </section>
      ))}
      <section>
        <h2>Parts</h2>
        <ol>
          {state.content.parts.map((need) => (
            <li key={`${need.assemblyId} ${need.part}`}>
              <span className="paper-box" />
              <span>
                {need.name}, {showAmount(need.quantity, need.unit)}, lot ____________
              </span>
            </li>
          ))}
        </ol>
      </section>
      <p className="signature">Signature</p>
    </div>
  )
}
