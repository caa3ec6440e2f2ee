import type { SheetStep } from '../procedure'
import type { PositionKey } from '../pump'
import type { EntryKind, SheetContent, SheetEntry } from './types'

export type StepState = {
  step: SheetStep
  /**
   * `waiting`: whether it is to be done depends on an answer that is not given yet.
   * `notNeeded`: the answer says that it is not.
   */
  state: 'open' | 'done' | 'skipped' | 'waiting' | 'notNeeded'
  /** The entry that says so. */
  by: SheetEntry<'done' | 'skipped'> | null
  /** Another device said something else without knowing of it: somebody must settle it. */
  rival: SheetEntry<'done' | 'skipped'> | null
}

export type PositionState = {
  assemblyId: string
  position: PositionKey
  /** Whether the tasks of the sheet renew it. */
  planned: boolean
  state: 'open' | 'renewed' | 'kept'
  /** Why, where somebody said so; blank where the ticks say it. */
  reason: string
}

export type SheetState = {
  content: SheetContent
  /** The newest sequence it was made from. */
  upTo: number
  steps: StepState[]
  readings: SheetEntry<'reading'>[]
  /** Meters nobody has read yet. */
  unread: SheetContent['meters']
  madeSafe: SheetEntry<'madeSafe'> | null
  positions: PositionState[]
  uses: SheetEntry<'part'>[]
  remarks: SheetEntry<'remark'>[]
  substitutes: SheetEntry<'substitute'>[]
  corrections: SheetEntry<'correction'>[]
  signed: SheetEntry<'signed'> | null
  late: SheetEntry[]
}

/**
 * What a sheet's entries amount to.
 *
 * Order comes from what each device had seen, never from clocks: an entry replaces another about the
 * same step when its device had seen that one, or wrote it itself. Two that knew nothing of each other
 * and agree count as one; where they disagree both are shown until somebody settles it. What was taken
 * back does not count, wherever it arrives.
 *
 * @param entries all entries of one sheet in any order, among them at least one `composed`
 * @returns the state of every step, position, part and reading; null without a `composed` entry
 */
export function foldSheet(entries: SheetEntry[]): SheetState | null {
  const inOrder = [...entries].sort((a, b) => a.sequence - b.sequence)
  const counted = inOrder.filter((entry) => !entry.late)
  const composed = ofKind(counted, 'composed').at(-1)
  if (!composed) return null
  const content = composed.payload
  const back = new Set(ofKind(counted, 'takeBack').map((entry) => entry.payload.of))
  const standing = counted.filter((entry) => !back.has(entry.id))

  const ticks = new Map<string, SheetEntry<'done' | 'skipped'>[]>()
  for (const entry of standing) {
    if ((entry.kind !== 'done' && entry.kind !== 'skipped') || entry.stepKey === null) continue
    ticks.set(entry.stepKey, [...(ticks.get(entry.stepKey) ?? []), entry])
  }
  const said = new Map([...ticks].map(([key, list]) => [key, newest(list)]))
  const steps = content.steps.map((step): StepState => {
    const { by, rival } = said.get(step.key) ?? { by: null, rival: null }
    const needed = isNeeded(content.steps, step, (key) => {
      const answer = said.get(key)?.by
      return answer?.kind === 'done' ? answer.payload.answer : null
    })
    if (needed !== true) return { step, state: needed === null ? 'waiting' : 'notNeeded', by: null, rival }
    return { step, state: by?.kind ?? 'open', by, rival }
  })

  const readings = content.meters.flatMap(
    (meter) => ofKind(standing, 'reading').findLast((entry) => entry.payload.meterId === meter.id) ?? [],
  )
  return {
    content,
    upTo: inOrder.at(-1)?.sequence ?? 0,
    steps,
    readings,
    unread: content.meters.filter((meter) => !readings.some((entry) => entry.payload.meterId === meter.id)),
    madeSafe: ofKind(standing, 'madeSafe').at(-1) ?? null,
    positions: positionStates(content, steps, standing),
    uses: ofKind(standing, 'part'),
    remarks: ofKind(standing, 'remark'),
    substitutes: ofKind(standing, 'substitute'),
    corrections: ofKind(standing, 'correction'),
    signed: ofKind(standing, 'signed')[0] ?? null,
    late: inOrder.filter((entry) => entry.late),
  }
}

export function ofKind<Kind extends EntryKind>(entries: SheetEntry[], kind: Kind): SheetEntry<Kind>[] {
  return entries.filter((entry) => entry.kind === kind) as SheetEntry<Kind>[]
}

/** Whether the device of `later` knew of `earlier` when it wrote. */
function knew(later: SheetEntry, earlier: SheetEntry): boolean {
  if (later.deviceId === earlier.deviceId) return later.deviceSeq > earlier.deviceSeq
  return later.seenUpTo >= earlier.sequence
}

/** The entry that stands among several about one step, and another that contradicts it unknowingly. */
function newest(list: SheetEntry<'done' | 'skipped'>[]) {
  const heads = list.filter((entry) => !list.some((other) => other !== entry && knew(other, entry)))
  const by = heads.at(-1) ?? null
  const differs = (other: SheetEntry<'done' | 'skipped'>) =>
    other.kind !== by?.kind || JSON.stringify(other.payload) !== JSON.stringify(by.payload)
  return { by, rival: heads.find((entry) => entry !== by && differs(entry)) ?? null }
}

/**
 * Whether a step is to be done: true, false, or null while the question it hangs on is unanswered. A
 * question asked at the same cylinder counts before one asked elsewhere on the sheet.
 */
function isNeeded(
  steps: SheetStep[],
  { key, step }: SheetStep,
  answerTo: (key: string) => string | null,
): boolean | null {
  if (!step.when) return true
  const { question, is } = step.when
  const asking = steps.filter((each) => each.step.asks?.question === question)
  const asked = nearest(key, asking)
  // Nothing on this sheet asks it: then it is done as if the answer had been yes.
  if (!asked) return true
  const answer = answerTo(asked.key)
  return answer === null ? null : [is].flat().includes(answer)
}

/**
 * The asking step that is nearest: in the same place, else at the same cylinder of the same pump, else the
 * first. Three cylinders ask the same question, and each has its own answer.
 */
function nearest(key: string, asking: SheetStep[]): SheetStep | undefined {
  const place = key.slice(0, key.lastIndexOf('/') + 1)
  const own = (each: SheetStep) => each.key.split('/')[0] === key.split('/')[0]
  const index = indexIn(key)
  return (
    asking.find((each) => each.key.startsWith(place)) ??
    asking.find((each) => own(each) && index !== null && indexIn(each.key) === index) ??
    asking.find(own) ??
    asking[0]
  )
}

const indexIn = (key: string) => /@(\d+)/.exec(key)?.[1] ?? null

/**
 * Which positions were renewed. What the ticks say holds unless somebody said otherwise: a position of
 * a renewing task is renewed once all its fitting steps are done, and kept once one of them was skipped.
 */
function positionStates(content: SheetContent, steps: StepState[], standing: SheetEntry[]): PositionState[] {
  const said = standing.filter(
    (entry): entry is SheetEntry<'renewed' | 'kept'> => entry.kind === 'renewed' || entry.kind === 'kept',
  )
  return content.assemblies.flatMap((assembly) => {
    const renewing = assembly.tasks.filter((task) => task.kind === 'renew' || task.kind === 'change')
    return assembly.positions.map(({ key: position }): PositionState => {
      const planned = renewing.some((task) => task.positions.includes(position))
      const words = said.findLast(
        ({ payload }) => payload.assemblyId === assembly.id && payload.position === position,
      )
      const state = words ? words.kind : planned ? stateByTicks(steps, assembly.id, position) : 'open'
      return { assemblyId: assembly.id, position, planned, state, reason: words?.payload.reason ?? '' }
    })
  })
}

function stateByTicks(steps: StepState[], assemblyId: string, position: PositionKey): PositionState['state'] {
  const all = steps.filter(({ step }) => step.assemblyId === assemblyId && step.position === position)
  // Inspected and found good: what would have been fitted was not needed, and its life goes on.
  const toFit = all.filter(({ step }) => step.phase === 'renew')
  if (toFit.length > 0 && toFit.every(({ state }) => state === 'notNeeded')) return 'kept'
  const own = all.filter(({ state }) => state !== 'notNeeded')
  const fitting = own.filter(({ step }) => step.phase === 'renew')
  const deciding = fitting.length > 0 ? fitting : own
  if (deciding.some(({ state }) => state === 'skipped')) return 'kept'
  return deciding.length > 0 && deciding.every(({ state }) => state === 'done') ? 'renewed' : 'open'
}

/** Positions that a looking task saw: all steps of the task there are done. They restart its clock. */
export function inspected(state: SheetState): { assemblyId: string; task: string; position: PositionKey }[] {
  return state.content.assemblies.flatMap((assembly) =>
    assembly.tasks
      .filter((task) => task.kind === 'inspect' || task.kind === 'adjust')
      .flatMap(({ task, positions }) =>
        positions
          .filter((position) => {
            const own = state.steps.filter(
              ({ step }) =>
                step.assemblyId === assembly.id && step.task === task && step.position === position,
            )
            return own.every((each) => each.state === 'done' || each.state === 'notNeeded')
          })
          .map((position) => ({ assemblyId: assembly.id, task, position })),
      ),
  )
}

/** Steps that are neither done, skipped, nor found not to be needed. */
export function unfinished(state: SheetState): StepState[] {
  return state.steps.filter((each) => each.state === 'open' || each.state === 'waiting')
}

/** The first step still to be done, or null when all are. */
export function currentStep(state: SheetState): StepState | null {
  return state.steps.find((each) => each.state === 'open') ?? null
}

/** Phases in order, each with its steps; a phase that comes again after another is listed again. */
export function phasesOf(state: SheetState): { phase: SheetStep['phase']; steps: StepState[] }[] {
  const phases: { phase: SheetStep['phase']; steps: StepState[] }[] = []
  for (const each of state.steps) {
    const last = phases.at(-1)
    if (last?.phase === each.step.phase) last.steps.push(each)
    else phases.push({ phase: each.step.phase, steps: [each] })
  }
  return phases
}
