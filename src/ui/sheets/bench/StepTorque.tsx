import { patternWords } from '@/core/models'
import {
  boltPlaces,
  fastenerNotes,
  fastenerOf,
  looksUpFirst,
  needAt,
  nextBolt,
  statedTorque,
  wrenchAdvice,
  type StepState,
} from '@/core/sheets'
import { showTorque, torqueIn } from '@/core/torque'
import { showNumber } from '@/core/units'
import { BoltMap } from '../../graphics/BoltMap'
import { torqueFor } from '../words'
import { LookAgain } from './LookAgain'
import type { SheetHandle } from './useSheet'

type Props = { bench: SheetHandle; step: StepState }

/** The torque large, in three units, its stages, the wrench, and the bolts with the one to pull lit. */
export function StepTorque({ bench, step }: Props) {
  const fastener = fastenerOf(bench.state, step)
  if (!fastener) return null
  if (step.step.step.snug) return <SnugBolts bench={bench} step={step} />
  const stated = statedTorque(bench.state, step)
  const { torque } = fastener
  if (!stated || torque.state !== 'stated')
    return (
      <>
        <TorqueFor bench={bench} step={step} />
        <p className="torque-line">
          <span className="strong brass torque-words">{showTorque(torque)}</span>
          <span className="second">{torque.source}</span>
        </p>
      </>
    )
  const stage = step.step.step.stage
  const more = torque.stages.length > 1 && stage !== null && stage < torque.stages.length
  const need = needAt(bench.state, step)
  // Until it is verified no wrench is set to it; its doubt stands where it is looked up.
  const unsettled = looksUpFirst(bench.state, step) && step.state !== 'done'
  const notes = unsettled ? [] : fastenerNotes(bench.state, step)
  const wrench = unsettled ? '' : wrenchAdvice(bench.state, step)
  const places = boltPlaces(bench.state, step)
  const settled = step.state === 'done'
  const done = settled ? places.map(({ place }) => place) : step.bolts.map(({ payload }) => payload.place)
  const stages = Math.max(torque.stages.length, 1)
  return (
    <>
      <TorqueFor bench={bench} step={step} />
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
        <dl className="step-facts">
          <div>
            <dt>Wrench</dt>
            <dd>{wrench}</dd>
          </div>
        </dl>
      )}
      {notes.length > 0 && (stage ?? 1) === 1 && <p className="caution">{notes.join(' ')}</p>}
    </>
  )
}

/** Bolts that are only run in, each lit in its turn; no torque is pulled yet. */
function SnugBolts({ bench, step }: Props) {
  const need = needAt(bench.state, step)
  const places = boltPlaces(bench.state, step)
  const settled = step.state === 'done'
  const inBefore = need?.order.map((_, index) => index + 1) ?? []
  const own = places.map(({ place }) => place)
  const pinned = step.step.step.places === 'pinned'
  const done = [
    // Those that hold already while the pins’ places are filled.
    ...(pinned ? inBefore.filter((place) => !own.includes(place)) : []),
    ...(settled ? own : step.bolts.map(({ payload }) => payload.place)),
  ]
  return (
    <>
      <TorqueFor bench={bench} step={step} />
      <p className="torque-line">
        <span className="strong brass torque-words">until they touch</span>
        <span className="second">no torque is pulled yet</span>
      </p>
      {need && places.length > 0 && (
        <div className="bench-bolts">
          <BoltMap
            layout={need.fastener.layout}
            order={need.order}
            stages={1}
            pinned={need.fastener.pinned}
            name={need.fastener.name}
            work={{ stage: 1, done, now: settled ? null : (nextBolt(bench.state, step)?.place ?? null) }}
          />
          {need.fastener.pinned.length > 0 && (
            <p className="second">
              {pinned
                ? 'the places that the pins have left'
                : 'the pins stand in the dashed places: their bolts go in last'}
            </p>
          )}
        </div>
      )}
    </>
  )
}

/** Which pump, which model, which fastener: two look-alikes on one bench are never taken for each other. */
function TorqueFor({ bench, step }: Props) {
  return <p className="torque-for">{torqueFor(bench.state, step)}</p>
}
