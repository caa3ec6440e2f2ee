import { patternWords } from '@/core/models'
import {
  boltPlaces,
  fastenerNotes,
  fastenerOf,
  needAt,
  nextBolt,
  statedTorque,
  wantsLookingUp,
  wrenchAdvice,
  type StepState,
} from '@/core/sheets'
import { showTorque, torqueIn } from '@/core/torque'
import { showNumber } from '@/core/units'
import { BoltMap } from '../../graphics/BoltMap'
import { LookAgain } from './LookAgain'
import type { SheetHandle } from './useSheet'

type Props = { bench: SheetHandle; step: StepState }

/** The torque large, in three units, its stages, the wrench, and the bolts with the one to pull lit. */
export function StepTorque({ bench, step }: Props) {
  const fastener = fastenerOf(bench.state, step)
  if (!fastener) return null
  const stated = statedTorque(bench.state, step)
  const { torque } = fastener
  if (!stated || torque.state !== 'stated')
    return (
      <p className="torque-line">
        <span className="strong brass torque-words">{showTorque(torque)}</span>
        <span className="second">{torque.source}</span>
      </p>
    )
  const stage = step.step.step.stage
  const more = torque.stages.length > 1 && stage !== null && stage < torque.stages.length
  const need = needAt(bench.state, step)
  // Until it is verified no wrench is set to it; its doubt stands where it is looked up.
  const unsettled = wantsLookingUp(fastener) && step.state !== 'done'
  const notes = unsettled ? [] : fastenerNotes(bench.state, step)
  const wrench = unsettled ? '' : wrenchAdvice(bench.state, step)
  const places = boltPlaces(bench.state, step)
  const settled = step.state === 'done'
  const done = settled ? places.map(({ place }) => place) : step.bolts.map(({ payload }) => payload.place)
  const stages = Math.max(torque.stages.length, 1)
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
        <LookAgain bench={bench} step={step} />
      </p>
      {need && places.length > 0 && !unsettled && (
        <div className="bench-bolts">
          <BoltMap
            layout={need.fastener.layout}
            order={need.order}
            stages={stages}
            pinned={need.fastener.pinned}
            name={fastener.name}
            work={{
              stage: stage ?? 1,
              done,
              now: settled ? null : (nextBolt(bench.state, step)?.place ?? null),
            }}
          />
          <p className="second">
            {[patternWords(fastener), stages === 2 ? 'left half first pass, right half second' : '']
              .filter(Boolean)
              .join(' · ')}
          </p>
        </div>
      )}
      {wrench && (
        <p>
          <span className="second">Wrench</span> {wrench}
        </p>
      )}
      {notes.length > 0 && (stage ?? 1) === 1 && <p className="caution">{notes.join(' ')}</p>}
    </>
  )
}
