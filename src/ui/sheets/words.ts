import { orientationWords, phaseNames, treatmentWords } from '@/core/pump'
import type { Payloads, SheetState, StepState } from '@/core/sheet'
import { fastenerOf } from '@/core/sheet'

export { phaseNames }

const timers = { soak: 'soak', sets: 'sets in', cured: 'cured after' } as const

/** What goes with a step, as name and words: tools, part, which way round, treatment, cues. */
export function stepFacts(state: SheetState, each: StepState): [string, string][] {
  const { step } = each.step
  const assembly = state.content.assemblies.find((candidate) => candidate.id === each.step.assemblyId)
  const tools = step.tools.map((key) => state.content.tools.find((tool) => tool.key === key)?.name ?? key)
  const fastener = fastenerOf(state, each)
  const treatment = step.treatment ?? fastener?.treatment
  const facts: [string, string][] = [
    ['Tool', tools.join(', ')],
    ['Part', assembly?.parts.find((part) => part.key === step.part)?.name ?? ''],
    ['Which way', step.orientation ? orientationWords(step.orientation) : ''],
    ['With', treatment && treatment.kind !== 'none' ? treatmentWords(treatment) : ''],
    [
      'Fastener',
      fastener ? `${fastener.name}${fastener.count > 1 ? `, ${fastener.count} of them` : ''}` : '',
    ],
    ['Crank', step.crank],
    [
      'Count',
      step.count
        ? `${step.count.min === step.count.max ? step.count.min : `${step.count.min} to ${step.count.max}`} ${step.count.what}`
        : '',
    ],
    ['Right when', step.cue],
    ['Time', step.timer ? `${timers[step.timer.kind]} ${step.timer.minutes}\u00a0min` : ''],
    ['People', step.people > 1 ? `${step.people} people` : ''],
    ['Lift', step.lift],
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
export function doneWords({ measure, torque, answer, reason }: Payloads['done']): string {
  return [
    torque && `${torque.value}\u00a0${torque.unit}`,
    measure && `${measure.value}\u00a0${measure.unit}`,
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
