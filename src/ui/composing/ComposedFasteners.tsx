import { showDay } from '@/core/calendar'
import type { ComposedSheet, FastenerNeed, ComposePage } from '@/core/composing'
import { patternWords, titleOf, treatmentWords } from '@/core/models'
import { showTorque, wrenchFor } from '@/core/torque'
import { showNumber } from '@/core/units'
import { FastenerMap } from '../models'

type Props = { pump: { number: string }; sheet: ComposedSheet; page: ComposePage; today: string }

/**
 * The torque sheet: each stage in three units with the wrench that fits it, the order drawn, what to mind.
 * The pump and its model stand at each, so that no value is read off for a pump that looks alike.
 */
export function ComposedFasteners({ pump, sheet, page, today }: Props) {
  if (sheet.fasteners.length === 0) return <p className="second">Nothing is tightened to a torque.</p>
  return (
    <ul className="plain-list" aria-label="Torque">
      {sheet.fasteners.map((need) => (
        <li key={need.fastener.key} className="fastener-line">
          <div>
            <p>
              <span className="strong">{need.fastener.name}</span>{' '}
              <span className="second">
                {[
                  `${pump.number} ${titleOf(page.model)}`,
                  need.fastener.count > 1 && `${need.fastener.count} of them`,
                  need.where.join(', '),
                ]
                  .filter(Boolean)
                  .join(' · ')}
              </span>
            </p>
            <Stages need={need} page={page} today={today} />
            <p className="second">
              {[
                treatmentWords(need.fastener.treatment),
                patternWords(need.fastener),
                need.fastener.torque.source,
              ]
                .filter(Boolean)
                .join(' · ')}
            </p>
            {need.fastener.torque.state === 'stated' && !need.fastener.torque.verified && (
              <p className="brass strong">Nobody has verified this value against the manual yet.</p>
            )}
            {need.notes.map((note) => (
              <p key={note} className="caution">
                {settledNote(note, need, page) ?? note}
              </p>
            ))}
          </div>
          <FastenerMap fastener={need.fastener} order={need.order.length > 0 ? need.order : undefined} />
        </li>
      ))}
    </ul>
  )
}

/** A doubt that somebody settled is told with its answer. */
function settledNote(note: string, { fastener }: FastenerNeed, page: ComposePage): string | null {
  if (!fastener.doubt || note !== `In doubt: ${fastener.doubt}`) return null
  const settled = page.settled.findLast(({ words }) => words === `${fastener.name}: ${fastener.doubt}`)
  return settled ? `Was in doubt (${fastener.doubt}). Settled: ${settled.answer}` : null
}

function Stages({ need, page, today }: { need: FastenerNeed; page: ComposePage; today: string }) {
  const { torque, extensionMm } = need.fastener
  if (torque.state !== 'stated') return <p className="strong">{showTorque(torque)}</p>
  const stages = torque.stages.length > 0 ? torque.stages : [torque.value]
  return (
    <>
      {stages.map((value, index) => {
        const advice = wrenchFor({ value, unit: torque.unit }, page.wrenches, today, extensionMm)
        return (
          <div key={value}>
            <span className="strong">
              {stages.length > 1 && `${index + 1}: `}
              {showTorque(torque, torque.stages.length > 0 ? index + 1 : null)}
            </span>{' '}
            {advice.wrench && (
              <span className="second">
                {advice.wrench.number}, set to {showNumber(advice.setting!.value)}&nbsp;{advice.setting!.unit}
              </span>
            )}
            {advice.warnings.map((warning) => (
              <div key={warning} className="brass">
                {inDays(warning, advice.wrench?.calibrationDue ?? null, today)}
              </div>
            ))}
          </div>
        )
      })}
    </>
  )
}

const inDays = (warning: string, due: string | null, today: string) =>
  due === null ? warning : warning.replace(due, showDay(due, today))
