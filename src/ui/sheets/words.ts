import {
  hoursOrMinutes,
  orientationWords,
  phaseNames,
  qualificationNames,
  treatmentWords,
} from '@/core/models'
import type { FindingSort } from '@/core/inspection'
import {
  type Done,
  type EntryKind,
  type SheetState,
  type StepState,
  boltPlaces,
  fastenerOf,
  sortAt,
} from '@/core/sheets'

export { phaseNames }

const timers = { soak: 'soak', sets: 'sets in', cured: 'cured after' } as const

/** What goes with a step, as name and words: tools, part, which way round, treatment, cues. */
export function stepFacts(state: SheetState, each: StepState): [string, string][] {
  const { step } = each.step
  const assembly = state.content.assemblies.find((candidate) => candidate.id === each.step.assemblyId)
  const tools = step.tools.map((key) => state.content.tools.find((tool) => tool.key === key)?.name ?? key)
  const fastener = fastenerOf(state, each)
  const treatment = step.treatment ?? (step.snug ? null : fastener?.treatment)
  const facts: [string, string][] = [
    ['Tool', tools.join(', ')],
    ['Part', assembly?.parts.find((part) => part.key === step.part)?.name ?? ''],
    ['Which way', step.orientation ? orientationWords(step.orientation) : ''],
    ['Its own bore', ownBore(state, each)],
    ['With', treatment && treatment.kind !== 'none' ? treatmentWords(treatment) : ''],
    [
      'Fastener',
      fastener && boltPlaces(state, each).length === 0
        ? `${fastener.name}${fastener.count > 1 ? `, ${fastener.count} of them` : ''}`
        : '',
    ],
    ['Crank', step.crank],
    [
      'Count',
      step.count
        ? `${step.count.min === step.count.max ? step.count.min : `${step.count.min} to ${step.count.max}`} ${step.count.what}`
        : '',
    ],
    ['Right when', step.cue],
    [
      'Time',
      step.timer && !treatment?.setsMinutes
        ? `${timers[step.timer.kind]} ${hoursOrMinutes(step.timer.minutes)}`
        : '',
    ],
    ['Comes out again', step.temporary?.goes === 'in' ? 'count it back before closing' : ''],
    ['Comes out', step.temporary?.goes === 'out' ? 'count it back now' : ''],
    ['Note', step.setting?.goes === 'noted' ? `${step.setting.what}, as it stands` : ''],
    ['Put back', step.setting?.goes === 'putBack' ? step.setting.what : ''],
    ['Together', step.withNext ? 'while doing the next step' : ''],
    ['See', step.media],
    ['If not', step.undo],
    ['In doubt', step.doubt],
  ]
  // A sheet opened before the language knew of something has nothing there.
  return facts.filter(([, words]) => Boolean(words))
}

/** What a done step says: its torque, its measure, what was found, the reason given. */
export function doneWords({ measure, torque, answer, reason, setting }: Done): string {
  return [
    torque && `${torque.value}\u00a0${torque.unit}`,
    measure && `${measure.value}\u00a0${measure.unit}${measure.how ? ` (${measure.how})` : ''}`,
    setting,
    answer,
    reason,
  ]
    .filter(Boolean)
    .join(', ')
}

/** The clock time of an instant, in the company's time zone. */
export function clockTime(at: string, timeZone: string): string {
  return new Intl.DateTimeFormat('en-GB', { timeZone, hour: '2-digit', minute: '2-digit' }).format(
    Date.parse(at),
  )
}

/** What must be known before a step is begun: a second person, something heavy. */
export function flagWords({ step: { step } }: StepState): string[] {
  return [
    step.people > 1
      ? `${step.people} people${step.helperMinutes ? `, the second for ${step.helperMinutes}\u00a0min` : ''}`
      : '',
    step.lift ? `Heavy: ${step.lift}` : '',
    step.qualification ? `For somebody ${qualificationNames[step.qualification]}` : '',
  ].filter(Boolean)
}

/**
 * What a torque is for, so that it is never taken for that of a look-alike: the pump, its model, the
 * fastener, and where.
 */
export function torqueFor(state: SheetState, each: StepState): string {
  const fastener = fastenerOf(state, each)
  const assembly = state.content.assemblies.find(({ id }) => id === each.step.assemblyId)
  if (!fastener || !assembly) return ''
  return [`${assembly.number} ${assembly.title}`, fastener.name, each.step.where].filter(Boolean).join(' · ')
}

/** The opened place whose work a step is: its own node, or the one its position is reached in. */
export function nodeOf(state: SheetState, { step }: StepState) {
  const assembly = state.content.assemblies.find((each) => each.id === step.assemblyId)
  const place = step.key.split('/')[1]?.split('~')[0]
  const reached = assembly?.positions.find((each) => each.key === step.position)?.node
  return assembly?.nodes?.find((each) => each.key === (step.position ? reached : place)) ?? null
}

/** What the confirmation of a look says where nothing was seen. */
export function soundWords(sort: FindingSort): string {
  if (sort === 'oil') return 'Clear, nothing in it'
  return sort === 'seal' || sort === 'oilSeal' ? 'Worn evenly, nothing else' : 'Sound, nothing seen'
}

/** A valve that goes back goes to the bore it came from. */
function ownBore(state: SheetState, { step }: StepState): string {
  if (step.position === null || step.phase === 'inspect') return ''
  if (sortAt(state, step.assemblyId, step.position) !== 'valve') return ''
  const finding = state.findings.find(
    ({ payload }) => payload.assemblyId === step.assemblyId && payload.position === step.position,
  )
  const back = finding?.payload.disposition === 'reuse' || finding?.payload.disposition === 'clean'
  return back ? `${step.where}: the valve that came out of it, no other` : ''
}

const kindCounts: Partial<Record<EntryKind, [string, string]>> = {
  reading: ['meter reading', 'meter readings'],
  madeSafe: ['confirmation of making safe', 'confirmations of making safe'],
  done: ['step done', 'steps done'],
  skipped: ['step skipped', 'steps skipped'],
  bolt: ['bolt', 'bolts'],
  lock: ['lock', 'locks'],
  finding: ['finding', 'findings'],
  part: ['part', 'parts'],
  photo: ['photo', 'photos'],
  measured: ['measure', 'measures'],
  torqueSet: ['torque looked up', 'torques looked up'],
  remark: ['remark', 'remarks'],
}

/** @example entryCounts(waiting) // '4 entries (2 steps done, 1 lock, 1 other)' */
export function entryCounts(entries: { kind: EntryKind }[]): string {
  const counts = new Map<string, number>()
  for (const { kind } of entries) {
    const key = kindCounts[kind] ? kind : 'other'
    counts.set(key, (counts.get(key) ?? 0) + 1)
  }
  const parts = [...counts].map(([kind, count]) => {
    const [one, several] = kindCounts[kind as EntryKind] ?? ['other', 'others']
    return `${count} ${count === 1 ? one : several}`
  })
  return `${entries.length === 1 ? '1 entry' : `${entries.length} entries`} (${parts.join(', ')})`
}
