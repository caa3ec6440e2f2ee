import { openStretches } from '../composing'
import type { PositionState, SheetState, StepState } from './state'
import type { PositionKey } from '../models'

const settled = ({ state }: StepState) => state === 'done' || state === 'skipped' || state === 'notNeeded'

export type NodeState = 'shut' | 'open' | 'shutAgain'

/** Whether a place in a pump is shut, opened, or shut again after it was opened. */
export function nodeState(state: SheetState, assemblyId: string, node: string): NodeState {
  return nodeStates(state).get(`${assemblyId}/${node}`) ?? 'shut'
}

/** Every position of a sheet asks for its node: what the steps say of nodes is read once for a state. */
const known = new WeakMap<SheetState, Map<string, NodeState>>()

function nodeStates(state: SheetState): Map<string, NodeState> {
  const before = known.get(state)
  if (before) return before
  const steps = new Map<string, { side: string; round: number; step: StepState }[]>()
  for (const step of state.steps) {
    const [assemblyId, place = '', side = ''] = step.step.key.split('/')
    const [node, round = '1'] = place.split('~')
    const key = `${assemblyId}/${node}`
    steps.set(key, [...(steps.get(key) ?? []), { side, round: Number(round), step }])
  }
  const states = new Map([...steps].map(([key, own]) => [key, standsAt(own)]))
  known.set(state, states)
  return states
}

function standsAt(own: { side: string; round: number; step: StepState }[]): NodeState {
  const last = Math.max(...own.map(({ round }) => round))
  const of = (name: string) =>
    own.filter(({ side, round }) => side === name && round === last).map(({ step }) => step)
  const opening = of('open')
  const closing = of('close')
  // What only a bad finding would have opened was never opened.
  const never = (steps: StepState[]) => steps.length > 0 && steps.every(({ state: is }) => is === 'notNeeded')
  if (never(opening) || (opening.length === 0 && never(closing))) return 'shut'
  if (closing.length > 0 && closing.every(settled)) return 'shutAgain'
  // A node without opening steps is open once what is inside it is worked.
  return opening.length > 0 && opening.every(settled) ? 'open' : 'shut'
}

export type PositionPlace = 'shut' | 'open' | 'out' | 'renewed' | 'reused' | 'kept' | 'locked'

export const placeWords: Record<PositionPlace, string> = {
  shut: 'not opened',
  open: 'in sight',
  out: 'taken out',
  renewed: 'renewed',
  reused: 'goes back',
  kept: 'kept',
  locked: 'locked: another one is open',
}

/**
 * How a position stands on this sheet: not opened, in sight, taken out, renewed, going back, kept; or
 * locked, while another head or cylinder that is worked on its own stands open.
 */
export function positionPlace(state: SheetState, position: PositionState): PositionPlace {
  if (position.state === 'renewed') return 'renewed'
  const stayed = () => {
    const { node } = aboutOf(state, position) ?? {}
    return !node || nodeState(state, position.assemblyId, node) === 'shut'
  }
  if (position.state === 'kept') return wentBackGood(state, position) && !stayed() ? 'reused' : 'kept'
  const assembly = state.content.assemblies.find((each) => each.id === position.assemblyId)
  const about = aboutOf(state, position)
  const finding = findingOf(state, position.assemblyId, position.position)
  if (finding && (finding.payload.disposition === 'reuse' || finding.payload.disposition === 'clean'))
    return 'reused'
  const own = state.steps.find(
    ({ step }) => step.assemblyId === position.assemblyId && step.position === position.position,
  )
  const busy = openStretch(state, position.assemblyId)
  if (busy !== null && own?.step.stretch && own.step.stretch !== busy) return 'locked'
  if (!about?.node) return 'shut'
  const node = nodeState(state, position.assemblyId, about.node)
  if (node !== 'open') return 'shut'
  const stack = assembly?.nodes?.find((each) => each.key === about.node)?.stack ?? []
  return stack.some((item) => item.part === about.part) ? 'out' : 'open'
}

const aboutOf = (state: SheetState, { assemblyId, position }: PositionState) =>
  state.content.assemblies
    .find((each) => each.id === assemblyId)
    ?.positions.find((each) => each.key === position)

/** Found good on this sheet and put back, rather than left as it was for a reason. */
const wentBackGood = (state: SheetState, { assemblyId, position, reason }: PositionState) =>
  reason === '' &&
  !state.steps.some(
    ({ step, state: is }) => step.assemblyId === assemblyId && step.position === position && is === 'skipped',
  )

export function findingOf(state: SheetState, assemblyId: string, position: PositionKey) {
  return state.findings.find(
    ({ payload }) => payload.assemblyId === assemblyId && payload.position === position,
  )
}

/** The head or cylinder that stands open, of those that are worked one at a time; null for none. */
export function openStretch(state: SheetState, assemblyId: string): string | null {
  const own = state.steps.filter(({ step }) => step.assemblyId === assemblyId)
  const settledKeys = new Set(own.filter(settled).map(({ step }) => step.key))
  const [open] = openStretches(
    own.map(({ step }) => step),
    ({ key }) => settledKeys.has(key),
  )
  return open ?? null
}

/** Where a stretch is, in words: "head 1". */
export function stretchName(state: SheetState, stretch: string): string {
  const key = stretch.slice(stretch.indexOf('/') + 1)
  for (const assembly of state.content.assemblies) {
    const node = assembly.nodes?.find((each) => each.key === key)
    if (node) return node.where || node.name
  }
  return key
}
