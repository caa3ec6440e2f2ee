import type { AccessNode, Position, PumpModel } from './types'

/** One position of one pump: `hpSeal@2` is the high-pressure seal of cylinder 2, `oil` the only oil. */
export type PositionKey = string

export function instanceKey(key: string, index: number | null): PositionKey {
  return index === null ? key : `${key}@${index}`
}

/** @example splitInstance('hpSeal@2') // { key: 'hpSeal', index: 2 } */
export function splitInstance(instance: PositionKey): { key: string; index: number | null } {
  const [key = '', index] = instance.split('@')
  return { key, index: index === undefined ? null : Number(index) }
}

/** 1 to n for what repeats, one null for what does not. */
export function indicesOf(model: PumpModel, repeat: string | null): (number | null)[] {
  if (repeat === null) return [null]
  const count = model.repeats.find((each) => each.key === repeat)?.count ?? 1
  return Array.from({ length: count }, (_, index) => index + 1)
}

/** Every instance of a position or node, in order. */
export function instancesOf(
  model: PumpModel,
  item: Pick<Position | AccessNode, 'key' | 'repeat'>,
): PositionKey[] {
  return indicesOf(model, item.repeat).map((index) => instanceKey(item.key, index))
}

/** Every position of the pump, in body order and then by cylinder. */
export function allPositions(model: PumpModel): PositionKey[] {
  return model.positions.flatMap((position) => instancesOf(model, position))
}

/** @example positionName(model, 'hpSeal@2') // 'High-pressure seal, cylinder 2' */
export function positionName(model: PumpModel, instance: PositionKey): string {
  const { key, index } = splitInstance(instance)
  const position = model.positions.find((each) => each.key === key)
  if (!position) return instance
  if (index === null || position.repeat === null) return position.name
  return `${position.name}, ${repeatName(model, position.repeat, index)}`
}

/** @example repeatName(model, 'cylinder', 2) // 'cylinder 2' */
export function repeatName(model: PumpModel, repeat: string, index: number): string {
  const found = model.repeats.find((each) => each.key === repeat)
  return found?.labels?.[index - 1] ?? `${found?.name ?? repeat} ${index}`
}
