import { noPractices, type CompanyPractices } from '../practices'
import { composeSheet, partsToCompose } from './compose'
import type { Chosen } from './chosen'
import { partsOf, toolsOf } from './needs'
import { plainClosing } from './steps'
import type { ComposedSheet, ComposeInput, PartNeed, SheetStep } from './types'
import { nodesFor } from './walk'

export type Recomposed = Omit<ComposedSheet, 'minutesOneByOne'> & {
  /** Node instances that had been closed, or were being closed, and must be opened once more. */
  reopened: string[]
  /** What opening them once more destroys again, on top of `parts`. */
  again: PartNeed[]
  /** It had been energised again: making safe is asked for once more before anything is opened. */
  safeAgain: boolean
}

/**
 * Composes a half-done sheet anew for other tasks, keeping what is done.
 *
 * Steps that are done stay as they were, in their order and under their keys. What is left is composed
 * for all the tasks: an opening that is still open is used; one that has been closed, even in part, and
 * is needed again is opened once more, under keys of a further round (`manifold~2/open/…`), and what
 * opening destroys is needed again. Where proving had begun it is done once more, as a whole; where the
 * locks were off again, so is making safe (`visit/makeSafe~2/…`).
 *
 * @param previous the steps of the sheet as it stands
 * @param isDone whether a step of it is done or skipped
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

  const freshKeys = fresh.steps.map(({ key }) => key)
  // What is fitted while its place is closed needs it opened again only once closing has gone past it.
  const passed = (step: SheetStep): boolean => {
    if (step.laidIn === undefined) return true
    const { node } = nodePlace(step.laidIn)!
    const round = rounds.get(node) ?? 1
    const inRound = (key: string) => (round === 1 ? key : key.replace(`${node}/`, () => `${node}~${round}/`))
    const after = freshKeys.slice(freshKeys.indexOf(step.key) + 1)
    return (
      doneKeys.has(inRound(step.laidIn)) ||
      after.some((key) => {
        const place = nodePlace(key)
        return place?.node === node && place.side === 'close' && doneKeys.has(inRound(key))
      })
    )
  }
  const needed = new Set(
    parts.flatMap(({ id, practised, walk }) => {
      const unfinished = walk.tasks.map((each): Chosen => ({
        ...each,
        positions: each.positions.filter((position) =>
          fresh.steps.some(
            (step) =>
              step.assemblyId === id &&
              step.task === each.task.key &&
              step.position === position &&
              !doneKeys.has(step.key) &&
              passed(step),
          ),
        ),
      }))
      return [...nodesFor(practised, unfinished).keys()].map((key) => `${id}/${key}`)
    }),
  )
  const reopened = parts
    .flatMap(({ id, walk }) => walk.opened.map(({ key }) => `${id}/${key}`))
    .filter((node) => needed.has(node) && closing.has(node))
  const left = fresh.steps.filter((step) => !visitSides.some((side) => visitRound(step.key, side) !== null))
  const plain = new Map(parts.flatMap((part) => [...plainClosing(part)]))
  const again = (step: SheetStep): SheetStep[] => {
    const place = nodePlace(step.key)
    const round = place ? (rounds.get(place.node) ?? 1) + (reopened.includes(place.node) ? 1 : 0) : 1
    const key = round === 1 ? step.key : step.key.replace(`${place!.node}/`, () => `${place!.node}~${round}/`)
    return doneKeys.has(key) ? [] : [{ ...step, key }]
  }
  const laidBack = new Set<string>()
  const work = left.flatMap((step): SheetStep[] => {
    const { laidIn } = step
    const renewed = laidIn !== undefined && doneKeys.has(step.key)
    if (!renewed || !reopened.includes(nodePlace(laidIn)!.node)) return again(step)
    // The new piece came out with the place that is opened once more, and goes back in its turn.
    const back = plain.get(laidIn)
    if (!back || laidBack.has(laidIn)) return []
    laidBack.add(laidIn)
    return again({ ...back, ...(step.stretch !== undefined && { stretch: step.stretch }) })
  })
  const latest = (side: VisitSide) => newestRound(previous, side)
  const onceMore = (side: VisitSide, what: (step: SheetStep) => boolean) =>
    work.length > 0 && done.some((step) => visitRound(step.key, side) === latest(side) && what(step))
  const proveAgain = onceMore('prove', () => true)
  const safeAgain = onceMore('prove', ({ step }) => step.locks === 'off')
  const ofVisit = (side: VisitSide, again: boolean) =>
    fresh.steps.flatMap((step): SheetStep[] => {
      if (visitRound(step.key, side) === null) return []
      const round = latest(side) + (again ? 1 : 0)
      const key = round === 1 ? step.key : step.key.replace(`visit/${side}`, `visit/${side}~${round}`)
      return doneKeys.has(key) ? [] : [{ ...step, key }]
    })
  const ordered = openFirst(
    work,
    openStretches(previous, ({ key }) => doneKeys.has(key)),
  )
  const asks = ordered.filter(({ key }) => key.split('/')[1] === 'facts')
  const steps = [
    ...done,
    ...asks,
    ...ofVisit('makeSafe', safeAgain),
    ...ordered.filter((step) => !asks.includes(step)),
    ...ofVisit('prove', proveAgain),
  ]
  const used = parts.flatMap(
    (part) =>
      partsOf(
        {
          ...part,
          walk: {
            ...part.walk,
            tasks: [],
            apart: [],
            perhaps: new Map(),
            whole: {
              nodes: part.walk.opened.filter(({ key }) => reopened.includes(`${part.id}/${key}`)),
              work: [],
            },
          },
        },
        work.filter((step) => reopened.includes(nodePlace(step.key)?.node ?? '')),
      ).parts,
  )
  const models = parts.map(({ practised }) => practised.model)
  const openedAgain = parts.flatMap(({ id, walk }) =>
    walk.opened.filter(({ key }) => reopened.includes(`${id}/${key}`)),
  )
  return {
    ...fresh,
    steps,
    tools: toolsOf(parts, steps),
    reopened,
    again: used,
    safeAgain,
    minutes:
      openedAgain.reduce((sum, { node }) => sum + node.openMinutes + node.closeMinutes, fresh.minutes) +
      (safeAgain ? most(models.map((model) => model.makeSafeMinutes)) : 0) +
      (proveAgain ? most(models.map((model) => model.proveMinutes)) : 0),
  }
}

/**
 * What stands open of the heads or cylinders that are worked one at a time comes before the next of its
 * pump: that one is not begun before it is closed. By then at least what it needs is open.
 */
function openFirst(work: SheetStep[], open: string[]): SheetStep[] {
  return open.reduce((steps, name) => {
    const own = steps.filter(({ stretch }) => stretch === name)
    const others = steps.filter(({ stretch }) => stretch !== name)
    const at = steps.findIndex(({ stretch, assemblyId }) => stretch && assemblyId === own[0]?.assemblyId)
    return at < 0 ? steps : [...others.slice(0, at), ...own, ...others.slice(at)]
  }, work)
}

/**
 * The heads or cylinders, of those worked one at a time, that stand open: something of theirs was opened,
 * in the newest round, and not all of it is closed again.
 *
 * @param isSettled whether a step is done, skipped or not needed
 */
export function openStretches(steps: SheetStep[], isSettled: (step: SheetStep) => boolean): string[] {
  const names = [...new Set(steps.flatMap(({ stretch }) => stretch ?? []))]
  return names.filter((name) => {
    const own = steps.flatMap((step) => {
      const place = step.stretch === name ? nodePlace(step.key) : null
      return place ? [{ step, ...place }] : []
    })
    return [...new Set(own.map(({ node }) => node))].some((node) => {
      const here = own.filter((each) => each.node === node)
      const round = Math.max(...here.map((each) => each.round))
      const side = (wanted: 'open' | 'close') =>
        here.filter((each) => each.side === wanted && each.round === round).map(({ step }) => step)
      const begun = side('open').some(isSettled)
      // What hangs on an answer may not be needed: it keeps nothing open.
      const shut = side('close')
        .filter(({ step }) => step.when === null)
        .every(isSettled)
      return begun && !shut
    })
  })
}

const most = (minutes: number[]) => Math.max(0, ...minutes)

const visitSides = ['makeSafe', 'prove'] as const
type VisitSide = (typeof visitSides)[number]

/** Which round of making safe or of proving a step belongs to, from 1; null for any other step. */
export function visitRound(key: string, side: VisitSide): number | null {
  if (!key.startsWith('visit/')) return null
  const [name, round] = key.split('/')[1]!.split('~')
  return name === side ? Number(round ?? 1) : null
}

/** The newest round of making safe or of proving among some steps: 1 where there was no other. */
export const newestRound = (steps: SheetStep[], side: VisitSide): number =>
  Math.max(1, ...steps.map(({ key }) => visitRound(key, side) ?? 1))

/** Of a node's step: the node instance with its assembly, which side, and which round it is. */
function nodePlace(key: string): { node: string; side: 'open' | 'close'; round: number } | null {
  const [assembly, instance, side] = key.split('/')
  if (assembly === 'visit' || !instance || (side !== 'open' && side !== 'close')) return null
  const [node, round] = instance.split('~')
  return { node: `${assembly}/${node}`, side, round: Number(round ?? 1) }
}
