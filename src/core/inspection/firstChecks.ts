import { flowVerdict, type FlowReading, type FlowVerdict } from '../hydraulics'
import { instancesOf, mayRenew, type PositionKey, type PumpModel } from '../models'
import { dutyFactors, type DutyKey } from '../wear'
import { checks, symptoms, type FirstCheck, type Suspect, type SymptomKey } from './symptoms'

/** What somebody saw, with the figure that goes with it where there is one. */
export type Seen = {
  symptom: SymptomKey
  dripsPerMinute: number | null
  flow: FlowReading | null
}

export type Likely = Suspect & {
  /** Positions of that sort on the pump it was seen on; none for what is beside the pump. */
  positions: PositionKey[]
  /** Renewing services that touch them. */
  tasks: string[]
}

export type Triage = {
  /** Most likely first. */
  likely: Likely[]
  /** Cheapest and safest first. */
  checks: FirstCheck[]
  /** Why it should not run on, or blank. */
  stop: string
  withinDays: number
  /** What flow and pressure together say. */
  flow: { verdict: FlowVerdict; words: string } | null
}

const riskOrder: Record<FirstCheck['risk'], number> = { look: 0, running: 1, opening: 2 }

/** Drips a minute from which a weep wants seeing to within days, and from which at once. Ours. */
export const dripLimits = { soon: 5, now: 30 } as const

/**
 * What a sign points at and what to check first: from the field's report back to probable positions and
 * the checks that tell them apart, those that only look before those beside a running machine before
 * those that open something, quick ones first among equals.
 *
 * Hard duty that is known of the pump makes what it touches likelier; flow and pressure read together
 * raise or drop what they speak for or against. A ranking with reasons, never a certainty.
 *
 * @param seen the symptom with its figure
 * @param model of the pump it was seen on; null where it is not known
 * @param duties hard duty known of that pump
 */
export function firstChecks(seen: Seen, model: PumpModel | null, duties: DutyKey[] = []): Triage {
  const symptom = symptoms[seen.symptom]
  const flow = seen.flow && { ...flowVerdict(seen.flow) }
  const suspects: Suspect[] = symptom.suspects.map((suspect: Suspect) => {
    const hard = duties.filter(
      (duty) =>
        suspect.sort !== null && (dutyFactors[duty].touches as readonly string[]).includes(suspect.sort),
    )
    const spoken = flow ? (flowSays[flow.verdict][suspect.name] ?? 0) : 0
    return {
      ...suspect,
      weight: Math.max(0, suspect.weight + hard.length * 2 + spoken),
      why: [
        suspect.why,
        ...hard.map((duty) => `its duty: ${dutyFactors[duty].name.toLowerCase()}`),
        spoken > 0
          ? 'flow and pressure speak for it'
          : spoken < 0
            ? 'flow and pressure speak against it'
            : '',
      ]
        .filter(Boolean)
        .join('; '),
    }
  })
  const likely = suspects
    .sort((a, b) => b.weight - a.weight)
    .map((suspect) => ({ ...suspect, ...onModel(suspect, model) }))
  const wanted: FirstCheck[] = symptom.checks.map((key) => ({ key, ...checks[key]! }))
  return {
    likely,
    checks: wanted.sort((a, b) => riskOrder[a.risk] - riskOrder[b.risk] || a.minutes - b.minutes),
    stop: symptom.stop || stopFor(seen.dripsPerMinute),
    withinDays: withinFor(seen.dripsPerMinute, symptom.withinDays),
    flow: flow && { verdict: flow.verdict, words: flowWords(flow) },
  }
}

function onModel(suspect: Suspect, model: PumpModel | null): Pick<Likely, 'positions' | 'tasks'> {
  if (!model || suspect.sort === null) return { positions: [], tasks: [] }
  const own = model.positions.filter((position) => position.sort === suspect.sort)
  const keys = new Set(own.map((position) => position.key))
  return {
    positions: own.flatMap((position) => instancesOf(model, position)),
    tasks: model.tasks
      .filter((task) => mayRenew(task) && task.positions.some((key) => keys.has(key)))
      .map((task) => task.key),
  }
}

function withinFor(drips: number | null, usual: number): number {
  if (drips === null) return usual
  if (drips >= dripLimits.now) return Math.min(usual, 1)
  return drips >= dripLimits.soon ? Math.min(usual, 5) : usual
}

function stopFor(drips: number | null): string {
  return drips !== null && drips >= dripLimits.now
    ? `${drips} drips a minute: water this near the oil seals ends in the crankcase. Better not run it on.`
    : ''
}

const flowSays: Record<FlowVerdict, Record<string, number>> = {
  nozzleWorn: { Nozzle: 4, Unloader: -3, Valves: -2, Seals: -2, 'Water supply and strainer': -3 },
  lostBefore: { Nozzle: -5, Unloader: 5, 'Water supply and strainer': 2, Valves: 1, Seals: 1 },
  onCurve: { Nozzle: 2 },
  gaugeOrFlow: {},
}

function flowWords({ verdict, curve, ofCurve, ofUsual }: ReturnType<typeof flowVerdict>): string {
  const percent = (share: number) => `${Math.round(share * 100)} %`
  const own = `This nozzle passes ${curve.toFixed(1)} L/min at that pressure`
  switch (verdict) {
    case 'nozzleWorn':
      return `${own}; ${percent(ofCurve)} of that was measured: the nozzle is worn or the wrong size, or the gauge shows too little.`
    case 'lostBefore':
      return `${own}, which is what was measured, but only ${percent(ofUsual)} of the usual flow: it is lost before the nozzle. Look at the by-pass line first, then inlet, valves, seals.`
    case 'onCurve':
      return `${own}, and the usual flow arrives: this is the pressure this nozzle gives. Is it the right size?`
    case 'gaugeOrFlow':
      return `${own}; only ${percent(ofCurve)} of that was measured: part blocked, or the gauge or the measured flow is wrong. Measure again.`
  }
}
