import type { Limit, PositionSort } from '../models'

/** How hard work may be on a pump; each shortens the hour limits of what it touches. */
export const dutyFactors = {
  hotInlet: {
    name: 'Hot inlet water',
    touches: ['seal', 'valve', 'oilSeal'],
    factor: 0.7,
    why: 'Hot water hardens elastomers and boils where the inlet pulls hardest.',
  },
  highPressure: {
    name: 'Near its rated pressure',
    touches: ['seal', 'valve', 'oil'],
    factor: 0.8,
    why: 'Seals extrude and seats pound more the closer the pressure comes to the rating.',
  },
  starvedInlet: {
    name: 'Starved or lifted inlet',
    touches: ['valve', 'seal'],
    factor: 0.7,
    why: 'A pump that pulls its water cavitates: valves pit, seals flutter.',
  },
  chemical: {
    name: 'Chemical through the pump',
    touches: ['seal', 'valve', 'oilSeal'],
    factor: 0.75,
    why: 'Elastomers swell and springs corrode.',
  },
  hardWater: {
    name: 'Hard or gritty water',
    touches: ['plunger', 'seal', 'valve', 'filter'],
    factor: 0.7,
    why: 'Scale and grit score plungers and cut seals and seats.',
  },
  longBypass: {
    name: 'Long by-pass running',
    touches: ['seal', 'oilSeal'],
    factor: 0.8,
    why: 'By-passed water goes round and heats up.',
  },
  stopStart: {
    name: 'Stop and start',
    touches: ['valve', 'oil'],
    factor: 0.85,
    why: 'Every start is a pressure stroke and a cold crankcase.',
  },
} as const satisfies Record<string, { name: string; touches: PositionSort[]; factor: number; why: string }>
export type DutyKey = keyof typeof dutyFactors

/** All factors together never shorten a limit below this share. */
export const dutyFloor = 0.4

/** Something hard about an assembly's work, how much it shortens, and who saw it where. */
export type Duty = { key: DutyKey; factor: number; reason: string }

/** What one assembly goes by instead of its model, for one task. */
export type LimitOverride = Limit & { task: string; early: number; late: number; reason: string }

/** What an assembly's clocks go by beside its model. */
export type WearRules = { overrides: LimitOverride[]; duties: Duty[] }
export const noRules: WearRules = { overrides: [], duties: [] }

/** A task's limit as it holds for one assembly, with everything that made it so. */
export type RuledLimit = {
  limit: Limit
  tolerance: { early: number; late: number }
  /** The limit before hard duty shortened it. */
  stated: Limit
  /** Why it is not the model's own, or blank. */
  overrideReason: string
  /** 1 where nothing shortens it. */
  factor: number
  duties: (Duty & { name: string })[]
}

/**
 * The limit of a task for one assembly: the model's, or the override's, with its hours (never its days)
 * shortened by the factors of hard duty that touch what it is about. Factors multiply, floored at 0.4.
 *
 * @param task the model's limit and tolerance
 * @param sorts what kinds of position the task is about
 * @example
 * // 800 h; hot inlet 0.7 and near rated pressure 0.8 touch seals: 448 h
 * ruledLimit({ key: 'hpSeals', limit, tolerance }, ['seal'], rules).limit.hours // 448
 */
export function ruledLimit(
  task: { key: string; limit: Limit; tolerance: { early: number; late: number } },
  sorts: PositionSort[],
  rules: WearRules,
): RuledLimit {
  const override = rules.overrides.find((each) => each.task === task.key)
  const stated: Limit = override
    ? {
        hours: override.hours,
        days: override.days,
        firstHours: override.firstHours,
        firstDays: override.firstDays,
      }
    : task.limit
  const duties = rules.duties
    .filter((duty) => dutyFactors[duty.key].touches.some((sort: PositionSort) => sorts.includes(sort)))
    .map((duty) => ({ ...duty, name: dutyFactors[duty.key].name }))
  const factor = Math.max(
    dutyFloor,
    duties.reduce((product, duty) => product * duty.factor, 1),
  )
  // Whole hours, without the dust of binary fractions: 0.7 of 800 is 560.
  const shorter = (hours: number | null) =>
    hours === null ? null : Math.max(1, Math.round(hours * factor * 10) / 10)
  return {
    limit:
      factor === 1
        ? stated
        : { ...stated, hours: shorter(stated.hours), firstHours: shorter(stated.firstHours) },
    tolerance: override ? { early: override.early, late: override.late } : task.tolerance,
    stated,
    overrideReason: override?.reason ?? '',
    factor,
    duties,
  }
}
