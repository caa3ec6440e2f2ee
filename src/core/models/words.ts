import type { Fastener, Orientation, Phase, Qualification, Step, TaskKind, Treatment } from './types'

/** Who may do it, by local codes: Atelier tells it and authorises nobody. */
export const qualificationNames: Record<Qualification, string> = {
  electrical: 'qualified for electrical isolation',
  lifting: 'qualified for lifting and slinging',
  ultraHighPressure: 'qualified for ultra-high pressure',
  fuel: 'qualified for fuel and burners',
}

export const phaseNames: Record<Phase, string> = {
  makeSafe: 'Make safe',
  stripDown: 'Strip down',
  inspect: 'Inspect',
  renew: 'Renew',
  rebuild: 'Rebuild',
  prove: 'Prove',
  run: 'Run',
  secure: 'Make safe again',
  drain: 'Drain',
  protect: 'Protect',
  finish: 'Close',
}

export const taskKindNames: Record<TaskKind, string> = {
  renew: 'renews',
  inspect: 'looks',
  change: 'changes',
  adjust: 'sets',
  condition: 'looks, and renews what is bad',
}

/** In words, as the bench says them. */
export const treatmentNames: Record<Treatment['kind'], string> = {
  none: 'no treatment stated',
  dry: 'dry',
  threadLubricant: 'thread lubricant',
  threadlocker: 'threadlocker',
  sealant: 'sealant',
  assemblyLubricant: 'assembly lubricant',
  siliconeGrease: 'silicone grease',
  grease: 'grease',
  oil: 'oil',
}

/** @example treatmentWords({ kind: 'threadlocker', product: 'medium', amount: 'one drop', … }) // 'medium threadlocker, one drop, on the bolt’s first threads; sets in 10 min, cured after 24 h' */
export function treatmentWords(treatment: Treatment): string {
  const { kind, product, amount, surface, setsMinutes, curesMinutes, takes } = treatment
  const times = [
    takes && `about ${takes.quantity}\u00a0${takes.unit}`,
    setsMinutes && `sets in ${hoursOrMinutes(setsMinutes)}`,
    curesMinutes && `cured after ${hoursOrMinutes(curesMinutes)}`,
  ].filter(Boolean)
  const what = [[product, treatmentNames[kind]].filter(Boolean).join(' '), amount, surface].filter(Boolean)
  return [what.join(', '), times.join(', ')].filter(Boolean).join('; ')
}

/** @example hoursOrMinutes(1440) // '24 h'; 90 stays '90 min' */
export function hoursOrMinutes(minutes: number): string {
  return minutes >= 120 && minutes % 60 === 0 ? `${minutes / 60}\u00a0h` : `${minutes}\u00a0min`
}

const faceNames: Record<Orientation['face'], string> = {
  lip: 'lip',
  spring: 'spring side',
  groove: 'groove side',
  taper: 'taper',
  concave: 'concave side',
  tab: 'tab',
  label: 'label',
  letter: 'letter',
  ball: 'ball end',
  flat: 'flat side',
  cup: 'cup',
  tip: 'tip',
}
const towardsNames: Record<Orientation['towards'], string> = {
  pressure: 'towards pressure',
  crankcase: 'towards the crankcase',
  motor: 'towards the motor',
  cap: 'towards the cap',
  pump: 'towards the pump',
  slot: 'in its slot',
  flow: 'with the flow',
  againstFlow: 'against the flow',
  eitherWay: 'either way round',
  asItCameOut: 'as it came out',
}

/** @example orientationWords({ face: 'lip', towards: 'pressure' }) // 'lip towards pressure' */
export function orientationWords({ face, towards }: Orientation): string {
  return towards === 'eitherWay' || towards === 'asItCameOut'
    ? towardsNames[towards]
    : `${faceNames[face]} ${towardsNames[towards]}`
}

/** What a step asks besides its text, in short phrases: which way round, how much of what, how often. */
export function stepFacts(step: Step, toolName: (key: string) => string): string[] {
  const { count, measure, treatment, timer } = step
  const limits =
    measure &&
    [measure.min !== null && `${measure.min}`, measure.max !== null && `${measure.max}`].filter(Boolean)
  return [
    step.orientation && orientationWords(step.orientation),
    treatment && treatmentWords(treatment),
    count && `${count.min === count.max ? count.min : `${count.min} to ${count.max}`} ${count.what}`,
    measure && `measure ${measure.what}: ${limits!.join(' to ')} ${measure.unit}`,
    step.cue && `until: ${step.cue}`,
    timer &&
      `${{ soak: 'soak', sets: 'sets in', cured: 'cure' }[timer.kind]} ${hoursOrMinutes(timer.minutes)}`,
    step.crank && `crank: ${step.crank}`,
    step.setting &&
      (step.setting.goes === 'noted' ? `note ${step.setting.what}` : `put back ${step.setting.what}`),
    step.people > 1 &&
      `${step.people} people${step.helperMinutes ? `, the second for ${step.helperMinutes} min` : ''}`,
    step.qualification && qualificationNames[step.qualification],
    step.snug && 'only until it touches: no torque yet',
    step.places === 'pinned' && 'those in the pins’ places',
    step.places === 'free' && 'all but those in the pins’ places',
    step.fluid && (step.fluid.goes === 'out' ? 'runs out here' : 'filled again here'),
    step.lift && `lift: ${step.lift}`,
    step.photo && 'photo',
    step.gate && 'to be confirmed before going on',
    step.withNext && 'while doing the next',
    step.builds && 'on the bench',
    step.undo && `if not: ${step.undo}`,
    step.asks && `answer: ${step.asks.answers.join(' / ')}`,
    step.tools.length > 0 && step.tools.map(toolName).join(', '),
    step.temporary &&
      `${toolName(step.temporary.tool)} ${step.temporary.goes === 'in' ? 'goes in, and must come out' : 'comes out'}`,
    step.media && `see ${step.media}`,
    step.doubt && `in doubt: ${step.doubt}`,
    step.own && 'our own step',
  ].filter((fact): fact is string => typeof fact === 'string' && fact !== '')
}

export function patternWords({ pattern, retapFirst, snugFirst, pinned }: Fastener): string {
  const order = {
    crissCross: 'criss-cross',
    centreOut: 'from the centre outwards',
    asNumbered: 'as numbered in the manual',
    single: '',
    notStated: 'order not stated: by practice',
  }[pattern]
  return [
    snugFirst && 'all finger tight first',
    order,
    retapFirst && 'the first one again',
    pinned.length > 0 && 'those in the pins’ places (dashed) went in last',
  ]
    .filter(Boolean)
    .join(', ')
}
