import { noPractices, type CompanyPractices } from '../practices'
import { composeSheet, partsToCompose } from './compose'
import type { Chosen } from './chosen'
import { partsOf, toolsOf } from './needs'
import type { ComposedSheet, ComposeInput, PartNeed, SheetStep } from './types'
import { nodesFor } from './walk'

export type Recomposed = Omit<ComposedSheet, 'minutesOneByOne'> & {
  /** Node instances that had been closed, or were being closed, and must be opened once more. */
  reopened: string[]
  /** What opening them once more destroys again, on top of `parts`. */
  again: PartNeed[]
}

/**
 * Composes a half-done sheet anew for other tasks, keeping what is done.
 *
 * Steps that are done stay as they were, in their order and under their keys. What is left is composed
 * for all the tasks: an opening that is still open is used; one that has been closed, even in part, and
 * is needed again is opened once more, under keys of a further round (`manifold~2/open/…`), and what
 * opening destroys is needed again.
 *
 * @param previous the steps of the sheet as it stands
 * @param isDone whether a step of it is done, skipped, or found not to be needed
 * @param input all that is to be done: what was chosen before and what is added
 */
export function recomposeSheet(
  previous: SheetStep[],
  isDone: (key: string) => boolean,
  input: ComposeInput,
  chosen: CompanyPractices = noPractices,
): Recomposed {
  const fresh = composeSheet(input, chosen)
  const parts = partsToCompose(input, chosen)
  const done = previous.filter(({ key }) => isDone(key))
  const doneKeys = new Set(done.map(({ key }) => key))
  const rounds = new Map<string, number>()
  const closing = new Set<string>()
  for (const { key } of previous) {
    const place = nodePlace(key)
    if (!place) continue
    const known = rounds.get(place.node) ?? 1
    rounds.set(place.node, Math.max(known, place.round))
  }
  for (const { key } of done) {
    const place = nodePlace(key)
    if (place?.side === 'close' && place.round === rounds.get(place.node)) closing.add(place.node)
  }

  const left = new Set(
    parts.flatMap(({ id, practised, walk }) => {
      const unfinished = walk.tasks.map((each): Chosen => ({
        ...each,
        positions: each.positions.filter((position) =>
          fresh.steps.some(
            (step) =>
              step.assemblyId === id &&
              step.task === each.task.key &&
              step.position === position &&
              !doneKeys.has(step.key),
          ),
        ),
      }))
      return [...nodesFor(practised, unfinished).keys()].map((key) => `${id}/${key}`)
    }),
  )
  const reopened = parts
    .flatMap(({ id, walk }) => walk.opened.map(({ key }) => `${id}/${key}`))
    .filter((node) => left.has(node) && closing.has(node))
  const inRound = (step: SheetStep): SheetStep | null => {
    const place = nodePlace(step.key)
    if (!place) return doneKeys.has(step.key) ? null : step
    const again = reopened.includes(place.node)
    const round = (rounds.get(place.node) ?? 1) + (again ? 1 : 0)
    const key = round === 1 ? step.key : step.key.replace(`${place.node}/`, () => `${place.node}~${round}/`)
    return doneKeys.has(key) ? null : { ...step, key }
  }
  const steps = [...done, ...fresh.steps.flatMap((step) => inRound(step) ?? [])]
  const again = parts.flatMap(
    (part) =>
      partsOf({
        ...part,
        walk: {
          ...part.walk,
          tasks: [],
          opened: part.walk.opened.filter(({ key }) => reopened.includes(`${part.id}/${key}`)),
        },
      }).parts,
  )
  const openedAgain = parts.flatMap(({ id, walk }) =>
    walk.opened.filter(({ key }) => reopened.includes(`${id}/${key}`)),
  )
  return {
    ...fresh,
    steps,
    tools: toolsOf(parts, steps),
    reopened,
    again,
    minutes: openedAgain.reduce((sum, { node }) => sum + node.openMinutes + node.closeMinutes, fresh.minutes),
  }
}

/** Of a node's step: the node instance with its assembly, which side, and which round it is. */
function nodePlace(key: string): { node: string; side: 'open' | 'close'; round: number } | null {
  const [assembly, instance, side] = key.split('/')
  if (assembly === 'visit' || !instance || (side !== 'open' && side !== 'close')) return null
  const [node, round] = instance.split('~')
  return { node: `${assembly}/${node}`, side, round: Number(round ?? 1) }
}
