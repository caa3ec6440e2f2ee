import { qualifications, type Qualification } from '../models'
import { Joi, day, id, version } from '../problem'

export type Span = { from: string; to: string }

/** When a technician works, where, and what for. */
export type CrewInput = {
  personId: string
  version?: number
  /** The yard they start from; null where they have none. */
  yardId: string | null
  /** Weekdays, 1 Monday to 7. */
  days: number[]
  minutes: number
  skills: Qualification[]
  leave: Span[]
}

/** By their number less one, Monday first. */
export const weekdayNames = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const

/** Of a technician without a word: Monday to Friday, eight hours, for any work. Ours. */
export const usualCrew = { yardId: null, days: [1, 2, 3, 4, 5], minutes: 480, leave: [] as Span[] }

const spans = (most: number) =>
  Joi.array()
    .items(
      Joi.object({
        from: day().required(),
        to: day().required(),
      }).custom((value: Span, helpers) =>
        value.to < value.from ? helpers.message({ custom: 'The last day is before the first.' }) : value,
      ),
    )
    .max(most)
    .default([])

const figure = (words: string, min: number, max: number) =>
  Joi.number()
    .min(min)
    .max(max)
    .required()
    .messages({ 'number.base': words, 'number.min': words, 'number.max': words, 'any.required': words })

export const crewSchema = Joi.object<CrewInput>({
  personId: id().required(),
  version: version(),
  yardId: id().allow('', null).empty('').default(null),
  days: Joi.array().items(Joi.number().integer().min(1).max(7)).unique().max(7).default([]),
  minutes: figure('Enter 0 to 960 minutes.', 0, 960).integer(),
  skills: Joi.array()
    .items(Joi.string().valid(...qualifications))
    .unique()
    .default([]),
  leave: spans(60),
})

/** What planning goes by. */
export type PlanTermsInput = {
  version?: number
  hourCost: string
  visitCost: string
  downtimeCost: string
  moveCost: string
  /** The share of each day that stays free for breakdowns. */
  freePercent: number
  /** Days from today on in which nothing is moved. */
  frozenDays: number
  benches: { yardId: string; places: number | null }[]
  travel: { from: string; to: string; minutes: number }[]
  closed: Span[]
}

export const planTermsSchema = Joi.object<PlanTermsInput>({
  version: version(),
  hourCost: Joi.any(),
  visitCost: Joi.any(),
  downtimeCost: Joi.any(),
  moveCost: Joi.any(),
  freePercent: figure('Enter 0 to 90 %.', 0, 90),
  frozenDays: figure('Enter 0 to 30 days.', 0, 30).integer(),
  benches: Joi.array()
    .items(
      Joi.object({
        yardId: id().required(),
        places: figure('Enter 0 to 200 places, or nothing for no limit.', 0, 200)
          .integer()
          .empty('')
          .allow(null)
          .optional()
          .default(null),
      }),
    )
    .max(200)
    .default([]),
  travel: Joi.array()
    .items(
      Joi.object({
        from: id().required(),
        to: id().required(),
        minutes: figure('Enter 0 to 1440 minutes.', 0, 1440),
      }),
    )
    .max(2000)
    .default([]),
  closed: spans(200),
})

/** Money in cents, as planning counts it; all of it ours until the company says otherwise. */
export type PlanTerms = {
  hourCents: number
  visitCents: number
  downtimeCents: number
  moveCents: number
  freePercent: number
  frozenDays: number
  benches: { yardId: string; places: number | null }[]
  travel: { from: string; to: string; minutes: number }[]
  closed: Span[]
}
export const usualPlanTerms: PlanTerms = {
  hourCents: 5400,
  visitCents: 4000,
  downtimeCents: 12000,
  moveCents: 6000,
  freePercent: 20,
  frozenDays: 3,
  benches: [],
  travel: [],
  closed: [],
}
