import { patternWords } from '@/core/pump'
import { fastenerOf, statedTorque, type StepState } from '@/core/sheet'
import { showTorque, torqueIn } from '@/core/torque'
import { showNumber } from '@/core/units'
import { BoltMap } from '../graphics/BoltMap'
import type { SheetHandle } from './useSheet'

/** The torque large, in three units, its stages, and the order of the bolts as it is drawn for this sheet. */
export function StepTorque({ bench, step }: { bench: SheetHandle; step: StepState }) {
  const fastener = fastenerOf(bench.state, step)
  if (!fastener) return null
  const stated = statedTorque(bench.state, step)
  const { torque } = fastener
  if (!stated || torque.state !== 'stated')
    return (
      <p className="torque-line">
        <span className="strong brass">{showTorque(torque)}</span>
      </p>
    )
  const stage = step.step.step.stage
  const more = torque.stages.length > 1 && stage !== null && stage < torque.stages.length
  const need = bench.state.content.torques?.find(
    (each) => each.assemblyId === step.step.assemblyId && each.fastener.key === fastener.key,
  )
  return (
    <>
      <p className="torque-line">
        <span className="torque">
          {showNumber(stated.value)} <small>{stated.unit}</small>
        </span>
        {torqueIn(stated)
          .filter(({ unit }) => unit !== stated.unit)
          .map(({ value, unit }) => (
            <span key={unit}>
              <span className="strong">{showNumber(value)}</span> {unit}
            </span>
          ))}
        <span className="second">
          {more &&
            `then ${torque.stages
              .slice(stage)
              .map((value) => showNumber(value))
              .join(', ')}\u00a0${torque.unit} · `}
          {torque.source}
          {!torque.verified && (
            <span className="brass strong"> · not verified yet: check the maker’s manual</span>
          )}
        </span>
      </p>
      {need && need.order.length > 0 && (
        <div className="bench-bolts">
          <BoltMap
            layout={need.fastener.layout}
            order={need.order}
            stages={Math.max(torque.stages.length, 1)}
            pinned={need.fastener.pinned}
            name={fastener.name}
          />
          <p className="second">{patternWords(fastener)}</p>
        </div>
      )}
      {need?.wrenches?.[(stage ?? 1) - 1] && (
        <p>
          <span className="second">Wrench</span> {need.wrenches[(stage ?? 1) - 1]}
        </p>
      )}
      {need && need.notes.length > 0 && (stage ?? 1) === 1 && (
        <p className="caution">{need.notes.join(' ')}</p>
      )}
    </>
  )
}
