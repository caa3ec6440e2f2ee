import {
  matesOf,
  probableCauses,
  usualDisposition,
  type FindingSort,
  type ProbableCause,
  type SeenDamage,
} from '../../inspection'
import { splitInstance } from '../../models'
import { findingOf } from '../places'
import { alwaysRenewed } from './rules'
import { partName } from '../signing/sign'
import type { SheetState, StepState } from '../state'
import type { Finding } from '../types'

/** A step that looks at one old part and is confirmed with what was seen on it. */
export function isLook({ step }: StepState): boolean {
  const { measure, asks, timer } = step.step
  return step.phase === 'inspect' && step.position !== null && !measure && !asks && !timer
}

/** What sort of part sits at a position; `other` on sheets opened before sorts were composed. */
export function sortAt(state: SheetState, assemblyId: string, position: string): FindingSort {
  return (
    state.content.assemblies
      .find((each) => each.id === assemblyId)
      ?.positions.find((each) => each.key === position)?.sort ?? 'other'
  )
}

/** The finding that says nothing was seen on a part, with what is then usually decided. */
export function soundFinding(state: SheetState, assemblyId: string, position: string): Finding {
  const sort = sortAt(state, assemblyId, position)
  return {
    assemblyId,
    position,
    what: '',
    sort,
    damages: [],
    extent: '',
    disposition: usualDisposition(sort, [], alwaysRenewed(state, { assemblyId, position })),
    words: '',
  }
}

/**
 * Whether something of a task's ways was done already, on some positions: another way can then no longer
 * be chosen for them.
 *
 * @param except the way that is wanted; what was done of it is no hindrance
 */
export function wayBegun(
  state: SheetState,
  { assemblyId, task, positions }: { assemblyId: string; task: string; positions: string[] },
  except: string | null = null,
): boolean {
  const ways =
    state.content.assemblies.find((each) => each.id === assemblyId)?.tasks.find((each) => each.task === task)
      ?.ways ?? []
  return state.steps.some(
    ({ step, state: is }) =>
      step.assemblyId === assemblyId &&
      step.task === task &&
      step.position !== null &&
      positions.includes(step.position) &&
      (is === 'done' || is === 'skipped') &&
      ways.some((way) => way.key !== except && step.key.split('/').includes(way.key)),
  )
}

/** What was seen on one pump so far, as the causes are reckoned from it. */
export function seenOn(state: SheetState, assemblyId: string): SeenDamage[] {
  return state.findings
    .filter(({ payload }) => payload.assemblyId === assemblyId)
    .map(({ payload }) => ({
      sort: payload.sort,
      name: partName(state, payload),
      index: payload.position === null ? null : splitInstance(payload.position).index,
      damages: payload.damages,
      extent: payload.extent,
    }))
}

/** What probably caused it, for each pump of the sheet on which something was seen. */
export function causesOn(
  state: SheetState,
): { assemblyId: string; number: string; causes: ProbableCause[] }[] {
  return state.content.assemblies
    .map(({ id, number, duties }) => ({
      assemblyId: id,
      number,
      causes: probableCauses(seenOn(state, id), duties ?? []),
    }))
    .filter(({ causes }) => causes.length > 0)
}

/** A part that runs against one that was found worn, and that nobody has looked at yet. */
export type MateToLookAt = {
  assemblyId: string
  position: string
  name: string
  sort: FindingSort
  /** The part it runs against, in words. */
  because: string
}

export function matesToLookAt(state: SheetState): MateToLookAt[] {
  const found = new Map<string, MateToLookAt>()
  for (const { payload } of state.findings) {
    if (payload.disposition !== 'renewMate' || payload.position === null) continue
    const assembly = state.content.assemblies.find((each) => each.id === payload.assemblyId)
    const { index } = splitInstance(payload.position)
    for (const mate of assembly?.positions ?? []) {
      if (!mate.sort || !matesOf(payload.sort).includes(mate.sort)) continue
      if (splitInstance(mate.key).index !== index) continue
      if (findingOf(state, payload.assemblyId, mate.key)) continue
      found.set(`${payload.assemblyId} ${mate.key}`, {
        assemblyId: payload.assemblyId,
        position: mate.key,
        name: mate.name,
        sort: mate.sort,
        because: partName(state, payload),
      })
    }
  }
  return [...found.values()]
}
