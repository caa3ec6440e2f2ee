import type { SheetStep } from '../composing'
import {
  allPositions,
  indicesFor,
  instanceKey,
  mayRenew,
  positionName,
  repeatName,
  splitInstance,
  type PumpModel,
} from '../models'
import type { SheetAssembly } from './types'

/** Every position of a pump in body order, as a sheet holds it: what sits there, of what sort, and where it is reached. */
export function sheetPositions(model: PumpModel): SheetAssembly['positions'] {
  return allPositions(model).map((key) => {
    const position = model.positions.find((each) => each.key === splitInstance(key).key)!
    return {
      key,
      name: positionName(model, key),
      part: position.part,
      pieces: position.pieces,
      sort: position.sort,
      node: placeReached(model, key),
    }
  })
}

/** The opened place in which a position is reached: where the task that renews it is done; null for none. */
function placeReached(model: PumpModel, instance: string): string | null {
  const { key, index } = splitInstance(instance)
  const task =
    model.tasks.find((each) => mayRenew(each) && each.positions.includes(key)) ??
    model.tasks.find((each) => each.positions.includes(key))
  const node = model.access.find((each) => each.key === task?.at)
  if (!node) return null
  const repeat = model.positions.find((each) => each.key === key)?.repeat ?? null
  const [own] = indicesFor(model, node.repeat, repeat, index)
  return instanceKey(node.key, own ?? null)
}

/** Every place that these steps open or close, with what lies in its bore. */
export function openedPlaces(model: PumpModel, steps: SheetStep[]): NonNullable<SheetAssembly['nodes']> {
  const keys = new Set(
    steps.flatMap(({ key }) => {
      const [, place, side] = key.split('/')
      return place && (side === 'open' || side === 'close') ? [place.split('~')[0]!] : []
    }),
  )
  return [...keys].flatMap((instance) => {
    const { key, index } = splitInstance(instance)
    const node = model.access.find((each) => each.key === key)
    if (!node) return []
    const where = index === null || node.repeat === null ? '' : repeatName(model, node.repeat, index)
    // Models published before the language knew of it do not say what is innermost.
    return [{ key: instance, name: node.name, where, stack: node.stack, innermost: node.innermost ?? null }]
  })
}
