import { newestRound, type SheetStep } from '../composing'
import { hasOwnClock, mayRenew, type PositionKey } from '../models'
import { workedMinutes } from './time'
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
  /** Bolts pulled one by one on this step, in the order of tightening. */
  bolts: SheetEntry<'bolt'>[]
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
  /** The confirmation that the machine is safe to open; null until the newest making safe has one. */
  madeSafe: SheetEntry<'madeSafe'> | null
  /**
   * Every lock came off to prove it after it was last confirmed to be safe, whether or not that was taken
   * back since: nothing may be opened before somebody confirms it anew.
   */
  energised: boolean
  /** Every such confirmation, of earlier makings safe too. */
  confirmedSafe: SheetEntry<'madeSafe'>[]
  /** Which making safe is the newest: another one follows where it was energised and more work is added. */
  safeRound: number
  positions: PositionState[]
  uses: SheetEntry<'part'>[]
  notUsed: SheetEntry<'notUsed'>[]
  /** The one that stands about each part that was looked at. */
  findings: SheetEntry<'finding'>[]
  measures: SheetEntry<'measured'>[]
  photos: SheetEntry<'photo'>[]
  timers: SheetEntry<'timer'>[]
  timerEnds: SheetEntry<'timerEnd'>[]
  /** The value that stands for each torque that had to be looked up. */
  torqueSets: SheetEntry<'torqueSet'>[]
  /** Locks put on and taken off, in order. */
  locks: SheetEntry<'lock'>[]
  /** Somebody left it and nobody has taken it up since. */
  left: SheetEntry<'left'> | null
  handOvers: (SheetEntry<'left'> | SheetEntry<'joined'>)[]
  remarks: SheetEntry<'remark'>[]
  substitutes: SheetEntry<'substitute'>[]
  corrections: SheetEntry<'correction'>[]
  signed: SheetEntry<'signed'> | null
  late: SheetEntry[]
  /** Minutes of work so far, without the time that nobody was at it. */
  workedMinutes: number
}

/**
 * What a sheet's entries amount to.
 *
 * Order comes from what each device had seen, never from clocks: an entry replaces another about the
 * same step when its device had seen that one, or wrote it itself. Two that knew nothing of each other
 * and agree count as one; where they disagree both are shown until somebody settles it. What was taken
 * back does not count, wherever it arrives. The state is a pure function of the entries: their order in
 * the list does not matter, nor whether one is in it twice.
 *
 * @param entries all entries of one sheet in any order, among them at least one `composed`
 * @returns the state of every step, position, part and reading; null without a `composed` entry
 */
export function sheetState(entries: SheetEntry[]): SheetState | null {
  const inOrder = [...new Map(entries.map((entry) => [entry.id, entry])).values()].sort(
    (a, b) => a.sequence - b.sequence,
  )
  const counted = inOrder.filter((entry) => !entry.late)
  const composed = counted.findLast((entry): entry is SheetEntry<'composed'> => entry.kind === 'composed')
  if (!composed) return null
  const content = composed.payload
  const { asked, unlocking, safeRound } = fixedBy(content)
  const back = new Set(ofKind(counted, 'takeBack').map((entry) => entry.payload.of))
  const standing = counted.filter((entry) => !back.has(entry.id))
  const kinds = groupedBy(standing, ({ kind }) => kind)
  const of = <Kind extends EntryKind>(kind: Kind) => (kinds.get(kind) ?? []) as SheetEntry<Kind>[]

  const ticks = groupedBy(
    standing.filter(
      (entry): entry is SheetEntry<'done' | 'skipped'> => entry.kind === 'done' || entry.kind === 'skipped',
    ),
    ({ stepKey }) => stepKey,
  )
  const said = new Map([...ticks].map(([key, list]) => [key, newest(list)]))
  const pulled = groupedBy(
    lastOfEach(of('bolt'), (entry) => `${entry.stepKey} ${entry.payload.place}`),
    (entry) => entry.stepKey,
  )
  const answerTo = (key: string) => {
    const answer = said.get(key)?.by
    return answer?.kind === 'done' ? answer.payload.answer : null
  }
  const judged = new Map<string, boolean | null>()
  const neededOf = (step: SheetStep): boolean | null => {
    const before = judged.get(step.key)
    if (before !== undefined) return before
    // Should a question ever hang on itself, it is asked.
    judged.set(step.key, true)
    const needed = isNeeded(step, asked.get(step.key), answerTo, neededOf)
    judged.set(step.key, needed)
    return needed
  }
  const steps = content.steps.map((step): StepState => {
    const { by, rival } = said.get(step.key) ?? { by: null, rival: null }
    const needed = neededOf(step)
    const bolts = (pulled.get(step.key) ?? []).sort((a, b) => a.payload.place - b.payload.place)
    if (needed !== true)
      return { step, state: needed === null ? 'waiting' : 'notNeeded', by: null, rival, bolts }
    return { step, state: by?.kind ?? 'open', by, rival, bolts }
  })

  const madeSafe = of('madeSafe').findLast(({ payload }) => (payload.round ?? 1) === safeRound) ?? null
  const readings = content.meters.flatMap(
    (meter) => of('reading').findLast((entry) => entry.payload.meterId === meter.id) ?? [],
  )
  return {
    content,
    upTo: inOrder.at(-1)?.sequence ?? 0,
    steps,
    readings,
    unread: content.meters.filter((meter) => !readings.some((entry) => entry.payload.meterId === meter.id)),
    madeSafe,
    energised: ofKind(counted, 'done').some(
      ({ stepKey, sequence }) =>
        stepKey !== null && unlocking.has(stepKey) && sequence > (madeSafe?.sequence ?? 0),
    ),
    confirmedSafe: of('madeSafe'),
    safeRound,
    positions: positionStates(content, steps, standing),
    uses: of('part'),
    notUsed: lastOfEach(of('notUsed'), ({ payload }) => `${payload.assemblyId} ${payload.part}`),
    findings: lastOfEach(
      of('finding'),
      ({ payload }) => `${payload.assemblyId} ${payload.position ?? payload.what}`,
    ),
    measures: of('measured'),
    photos: of('photo'),
    timers: of('timer'),
    timerEnds: of('timerEnd'),
    torqueSets: lastOfEach(of('torqueSet'), ({ payload }) => `${payload.assemblyId} ${payload.fastener}`),
    locks: of('lock'),
    left: leftOpen(standing),
    handOvers: standing.filter(
      (entry): entry is SheetEntry<'left'> | SheetEntry<'joined'> =>
        entry.kind === 'left' || entry.kind === 'joined',
    ),
    remarks: of('remark'),
    substitutes: of('substitute'),
    corrections: of('correction'),
    signed: of('signed')[0] ?? null,
    late: inOrder.filter((entry) => entry.late),
    workedMinutes: workedMinutes(standing),
  }
}

/** What follows from the content alone: a sheet is folded with every entry, and its content stays. */
type Fixed = {
  /** By the key of each step that hangs on an answer: which step asks for it; missing where none does. */
  asked: Map<string, SheetStep>
  /** The keys of the steps that take every lock off. */
  unlocking: Set<string>
  safeRound: number
}

const fixed = new WeakMap<SheetContent, Fixed>()

function fixedBy(content: SheetContent): Fixed {
  const before = fixed.get(content)
  if (before) return before
  const asking = groupedBy(
    content.steps.filter(({ step }) => step.asks),
    ({ step }) => step.asks?.question,
  )
  const asked = new Map<string, SheetStep>()
  for (const { key, step } of content.steps) {
    const found = step.when && nearest(key, asking.get(step.when.question) ?? [])
    if (found) asked.set(key, found)
  }
  const unlocking = new Set(content.steps.filter(({ step }) => step.locks === 'off').map(({ key }) => key))
  const made = { asked, unlocking, safeRound: newestRound(content.steps, 'makeSafe') }
  fixed.set(content, made)
  return made
}

/** The leaving that nobody has taken up yet: any later entry takes it up. */
function leftOpen(standing: SheetEntry[]): SheetEntry<'left'> | null {
  const last = standing.at(-1)
  return last?.kind === 'left' ? last : null
}

/** Of entries about the same thing the one that stands, in the order in which those came in. */
function lastOfEach<Entry extends SheetEntry>(entries: Entry[], about: (entry: Entry) => string): Entry[] {
  return [...groupedBy(entries, about).values()]
    .map((list) => heads(list).at(-1)!)
    .sort((a, b) => a.sequence - b.sequence)
}

function groupedBy<Each, Key>(list: Each[], keyOf: (each: Each) => Key): Map<Key, Each[]> {
  const groups = new Map<Key, Each[]>()
  for (const each of list) {
    const key = keyOf(each)
    const group = groups.get(key)
    if (group) group.push(each)
    else groups.set(key, [each])
  }
  return groups
}

export function ofKind<Kind extends EntryKind>(entries: SheetEntry[], kind: Kind): SheetEntry<Kind>[] {
  return entries.filter((entry) => entry.kind === kind) as SheetEntry<Kind>[]
}

/** Whether the device of `later` knew of `earlier` when it wrote. */
function knew(later: SheetEntry, earlier: SheetEntry): boolean {
  if (later.deviceId === earlier.deviceId) return later.deviceSeq > earlier.deviceSeq
  return later.seenUpTo >= earlier.sequence
}

/** Those of some entries about one thing that no other knew of when it was written. */
function heads<Entry extends SheetEntry>(list: Entry[]): Entry[] {
  return list.filter((entry) => !list.some((other) => other !== entry && knew(other, entry)))
}

/** The entry that stands among several about one step, and another that contradicts it unknowingly. */
function newest(list: SheetEntry<'done' | 'skipped'>[]) {
  const standing = heads(list)
  const by = standing.at(-1) ?? null
  const differs = (other: SheetEntry<'done' | 'skipped'>) =>
    other.kind !== by?.kind || JSON.stringify(other.payload) !== JSON.stringify(by.payload)
  return { by, rival: standing.find((entry) => entry !== by && differs(entry)) ?? null }
}

/**
 * The entries that the device of one had seen when it was written: its own before it, and of the others
 * those up to `seenUpTo`. What was right by what it knew is not refused for what it could not know.
 */
export function seenBy(
  entries: SheetEntry[],
  sent: { deviceId: string; deviceSeq: number; seenUpTo: number },
): SheetEntry[] {
  return entries.filter((entry) =>
    entry.deviceId === sent.deviceId
      ? entry.deviceSeq < sent.deviceSeq
      : entry.sequence <= sent.seenUpTo || entry.kind === 'composed',
  )
}

/**
 * Whether a step is to be done: true, false, or null while the question it hangs on is unanswered. A
 * question asked at the same cylinder counts before one asked elsewhere on the sheet.
 */
function isNeeded(
  { step }: SheetStep,
  asked: SheetStep | undefined,
  answerTo: (key: string) => string | null,
  isAsked: (asked: SheetStep) => boolean | null,
): boolean | null {
  if (!step.when) return true
  const { is } = step.when
  // Nothing on this sheet asks it: then it is done as if the answer had been yes.
  if (!asked) return true
  // What is not asked, because nothing was found that leads there, is not done either.
  if (isAsked(asked) === false) return false
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
  const at = groupedBy(steps, ({ step }) => `${step.assemblyId} ${step.position}`)
  const words = groupedBy(said, ({ payload }) => `${payload.assemblyId} ${payload.position}`)
  return content.assemblies.flatMap((assembly) => {
    const renewing = assembly.tasks.filter(mayRenew)
    return assembly.positions.map(({ key: position }): PositionState => {
      const planned = renewing.some((task) => task.positions.includes(position))
      const place = `${assembly.id} ${position}`
      const last = words.get(place)?.at(-1)
      const state = last ? last.kind : planned ? stateByTicks(at.get(place) ?? []) : 'open'
      return { assemblyId: assembly.id, position, planned, state, reason: last?.payload.reason ?? '' }
    })
  })
}

/** @param all the steps at one position */
function stateByTicks(all: StepState[]): PositionState['state'] {
  // Inspected and found good: what would have been fitted was not needed, and its life goes on.
  const toFit = all.filter(({ step }) => step.step.phase === 'renew')
  if (toFit.length > 0 && toFit.every(({ state }) => state === 'notNeeded')) return 'kept'
  const own = all.filter(({ state }) => state !== 'notNeeded')
  const fitting = own.filter(({ step }) => step.step.phase === 'renew')
  const deciding = fitting.length > 0 ? fitting : own
  if (deciding.some(({ state }) => state === 'skipped')) return 'kept'
  return deciding.length > 0 && deciding.every(({ state }) => state === 'done') ? 'renewed' : 'open'
}

/**
 * Positions that a looking task saw: all steps of the task there are done. They restart its clock. What was
 * to be renewed for certain on the same sheet says nothing of how often looking finds it bad.
 */
export function inspected(state: SheetState): { assemblyId: string; task: string; position: PositionKey }[] {
  return state.content.assemblies.flatMap((assembly) =>
    assembly.tasks.filter(hasOwnClock).flatMap(({ task, kind, positions }) =>
      positions
        .filter((position) => kind !== 'condition' || !renewedAnyway(assembly, position))
        .filter((position) =>
          state.steps
            .filter(
              ({ step }) =>
                step.assemblyId === assembly.id && step.task === task && step.position === position,
            )
            .every((each) => each.state === 'done' || each.state === 'notNeeded'),
        )
        .map((position) => ({ assemblyId: assembly.id, task, position })),
    ),
  )
}

const renewedAnyway = ({ tasks }: SheetContent['assemblies'][number], position: PositionKey) =>
  tasks.some(({ kind, positions }) => kind === 'renew' && positions.includes(position))

/** Steps that are neither done, skipped, nor found not to be needed. */
export function unfinished(state: SheetState): StepState[] {
  return state.steps.filter((each) => each.state === 'open' || each.state === 'waiting')
}

/** The first step still to be done, or null when all are. */
export function currentStep(state: SheetState): StepState | null {
  return state.steps.find((each) => each.state === 'open') ?? null
}

/**
 * Phases in order, each with the steps that may be needed; a phase that comes again after another is
 * listed again. Steps in a row that wait for an answer stand together, whatever comes of it.
 */
export function phasesOf(state: SheetState): { phase: SheetStep['phase']; steps: StepState[] }[] {
  const phases: { phase: SheetStep['phase']; steps: StepState[] }[] = []
  for (const each of state.steps) {
    if (each.state === 'notNeeded') continue
    const last = phases.at(-1)
    const bothWait = each.state === 'waiting' && last?.steps[0]?.state === 'waiting'
    if (last && (last.phase === each.step.phase || bothWait)) last.steps.push(each)
    else phases.push({ phase: each.step.phase, steps: [each] })
  }
  return phases
}
