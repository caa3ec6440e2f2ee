import type { Payloads, SheetState, StepState } from '@/core/sheet'
import { fastenerOf } from '@/core/sheet'

export const phaseNames: Record<string, string> = {
  makeSafe: 'Make safe',
  stripDown: 'Strip down',
  inspect: 'Inspect',
  renew: 'Renew',
  rebuild: 'Rebuild',
  prove: 'Prove',
}

const faces: Record<string, string> = {
  lip: 'lip',
  spring: 'spring side',
  groove: 'groove',
  taper: 'taper',
  concave: 'concave side',
  tab: 'tab',
  label: 'label',
  letter: 'letter',
  ball: 'ball',
  flat: 'flat side',
}
const directions: Record<string, string> = {
  pressure: 'towards pressure',
  crankcase: 'towards the crankcase',
  motor: 'towards the motor',
  cap: 'towards the cap',
  pump: 'towards the pump',
  slot: 'in the slot',
  eitherWay: 'either way round',
  asItCameOut: 'the same as it came out',
}
const treatments: Record<string, string> = {
  none: '',
  threadLubricant: 'thread lubricant',
  threadlocker: 'threadlocker',
  sealant: 'sealant',
  assemblyLubricant: 'assembly lubricant',
  grease: 'grease',
}
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
    [
      'Which way',
      step.orientation
        ? `${faces[step.orientation.face] ?? step.orientation.face} ${directions[step.orientation.towards] ?? ''}`
        : '',
    ],
    [
      'With',
      treatment && treatment.kind !== 'none'
        ? [treatment.product, treatments[treatment.kind], treatment.amount && `(${treatment.amount})`]
            .filter(Boolean)
            .join(' ')
        : '',
    ],
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
    ['Comes out again', step.temporary?.goes === 'in' ? 'count it back before closing' : ''],
    ['If not', step.undo],
    ['In doubt', step.doubt],
  ]
  return facts.filter(([, words]) => words !== '')
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
