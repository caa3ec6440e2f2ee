import { inUnit, quantity } from '../units'
import type { Torque } from '../torque'
import type { PumpModel } from './types'

/** A torque as it was found in the maker's manual, with where. */
export type FoundTorque = { value: number; unit: string; source: string }

/**
 * A torque with the value that was found for it in its place: verified, with its source. Where it is
 * pulled in stages, those below the value stay, told in its unit to three figures, so that the first pass
 * is never the whole value; the last is the value.
 */
export function foundTorque(torque: Torque, { value, unit, source }: FoundTorque): Torque {
  const known = torque.state === 'stated' ? torque : { unit, stages: [] }
  const below = known.stages
    .slice(0, -1)
    .map((stage) => inOwn(stage, known.unit, unit))
    .filter((stage) => stage < value)
  return {
    state: 'stated',
    value,
    unit,
    stages: known.stages.length > 0 ? [...below, value] : [],
    source,
    verified: true,
  }
}

const inOwn = (stage: number, from: string, to: string): number =>
  from === to ? stage : Number(inUnit('torque', quantity('torque', stage, from).si, to).toPrecision(3))

/**
 * A model's data with a torque that was found for one of its fasteners. In a family only the size it was
 * found for gets it: another size may have another value.
 *
 * @param size the size's key; null where the model is one size
 * @throws when there is no such fastener or size
 */
export function withTorque(
  model: PumpModel,
  size: string | null,
  fastener: string,
  found: FoundTorque,
): PumpModel {
  const copy = structuredClone(model)
  const own = copy.fasteners.find((each) => each.key === fastener)
  if (!own) throw new Error(`${model.maker} ${model.name} has no fastener “${fastener}”.`)
  if (copy.sizes.length === 0) {
    own.torque = foundTorque(own.torque, found)
    return copy
  }
  const about = copy.sizes.find((each) => each.key === size)
  if (!about) throw new Error(`${model.maker} ${model.name} has no size “${size}”.`)
  const path = `fasteners.${fastener}.torque`
  const before = (about.differs[path] as Torque | undefined) ?? own.torque
  // What differed inside the torque is in the value now.
  const rest = Object.entries(about.differs).filter(([key]) => key !== path && !key.startsWith(`${path}.`))
  about.differs = Object.fromEntries([...rest, [path, foundTorque(before, found)]])
  return copy
}
