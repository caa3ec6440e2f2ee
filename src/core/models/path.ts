import { indicesOf, instanceKey } from './instances'
import type { AccessNode, PumpModel } from './types'

/** One node of one pump: `sealStack@2` is the seal stack of cylinder 2. */
export type NodeInstance = { node: AccessNode; index: number | null; key: string }

/**
 * The node instances that must be open before one can be: its parent and what else it needs. A node of
 * one cylinder opens through the same cylinder of its parent, a valve bore through the head it lies in,
 * and everything else through all of it. A node that a practice leaves out is passed by.
 *
 * @param skipped nodes that the chosen practices leave out
 */
export function outerOf(
  model: PumpModel,
  { node, index }: Pick<NodeInstance, 'node' | 'index'>,
  skipped: ReadonlySet<string> = new Set(),
): NodeInstance[] {
  return [node.parent, ...node.needs].flatMap((key) => {
    const outer = model.access.find((each) => each.key === key)
    if (!outer) return []
    const instances = indicesFor(model, outer.repeat, node.repeat, index).map((each) => ({
      node: outer,
      index: each,
      key: instanceKey(outer.key, each),
    }))
    return skipped.has(outer.key)
      ? instances.flatMap((instance) => outerOf(model, instance, skipped))
      : instances
  })
}

/**
 * Which instances of something that repeats by `wanted` belong to one that repeats by `own`: the same
 * one, the one it lies in, or all of them.
 */
export function indicesFor(
  model: PumpModel,
  wanted: string | null,
  own: string | null,
  index: number | null,
): (number | null)[] {
  if (wanted === null) return [null]
  if (index !== null && own === wanted) return [index]
  const inside = model.repeats.find((repeat) => repeat.key === own)?.inside
  if (index !== null && inside?.repeat === wanted) return [inside.at[index - 1] ?? 1]
  return indicesOf(model, wanted)
}

/**
 * The way in to a node: keys from the outermost that must be opened to the node itself, every one after
 * all that it needs.
 *
 * @param key of a node, such as `plungerOut`
 * @returns an empty list for null: nothing needs opening
 * @throws when there is no such node
 * @example accessPath(model, 'plungerOut') // ['manifold', 'sealStack', 'plungerOut']
 */
export function accessPath(model: PumpModel, key: string | null): string[] {
  if (key === null) return []
  const node = model.access.find((each) => each.key === key)
  if (!node) throw new Error(`There is no node “${key}”.`)
  const way = [node.parent, ...node.needs].flatMap((outer) => accessPath(model, outer))
  return [...new Set([...way, key])]
}
