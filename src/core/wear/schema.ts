import { Joi, id, day, optionalLine, optionalDay, line } from '../problem'
import { parseNumber } from '../units'
import { endReasons, isBlank } from './choices'
import { type DutyKey, dutyFactors } from './rules'

export type EndReason = keyof typeof endReasons

/** How old the parts of a pump are taken to be when its clocks start. */
export type ClockStartInput = { assemblyId: string; basis: 'pump' | 'takeOver' }

export const clockStartSchema = Joi.object<ClockStartInput>({
  assemblyId: id().required(),
  basis: Joi.string().valid('pump', 'takeOver').required(),
})

/** A renewal that happened without a sheet: from the binder, or before Atelier. */
export type RenewalInput = {
  id: string
  assemblyId: string
  task: string
  positions: string[]
  day: string
  /** Hours the part has run since, asked for only where it was renewed before the pump was taken over. */
  runSince: number
  endReason: EndReason
  /** The lot the new parts came from, where it is known. */
  lotId?: string | null
  note: string
}

export const renewalSchema = Joi.object<RenewalInput>({
  id: id().required(),
  assemblyId: id().required(),
  task: Joi.string().max(40).required(),
  positions: Joi.array().items(Joi.string().max(60)).min(1).required().messages({
    'array.min': 'Choose at least one position.',
    'array.base': 'Choose at least one position.',
  }),
  day: day().required(),
  runSince: Joi.any()
    .custom((input: unknown, helpers) => {
      if (input == null || input === '') return 0
      const parsed = parseNumber(String(input), 2)
      if (!parsed.ok) return helpers.message({ custom: parsed.reason })
      return parsed.value >= 0 ? parsed.value : helpers.message({ custom: 'Enter 0 or more.' })
    })
    .default(0),
  endReason: Joi.string()
    .valid(...Object.keys(endReasons))
    .required()
    .messages({
      'any.only': 'Say why the old part came out.',
      'string.empty': 'Say why the old part came out.',
    }),
  lotId: id().allow(null, '').empty('').default(null),
  note: optionalLine(300),
})

/** A part that goes from its bore to another one of the same kind, with the hours it has. */
export type MovePartInput = {
  id: string
  assemblyId: string
  from: string
  to: string
  day: string
  /** What becomes of the part that sat there: it goes to the bore that falls free, or it is done with. */
  other: 'swap' | 'out'
  endReason: EndReason | ''
  note: string
}

export const movePartSchema = Joi.object<MovePartInput>({
  id: id().required(),
  assemblyId: id().required(),
  from: Joi.string().max(60).required(),
  to: Joi.string().max(60).required().messages({ 'string.empty': 'Choose where it goes.' }),
  day: day().required(),
  other: Joi.string().valid('swap', 'out').required().messages({
    'any.only': 'Say what became of the other part.',
    'string.empty': 'Say what became of the other part.',
  }),
  endReason: Joi.when('other', {
    is: 'out',
    then: Joi.string()
      .valid(...Object.keys(endReasons))
      .required()
      .messages({ 'any.only': 'Say why it came out.', 'string.empty': 'Say why it came out.' }),
    otherwise: Joi.any().custom(() => ''),
  }),
  note: optionalLine(300),
})

/** What is known of the parts of a pump that was taken over mid-life; `lifeId` names what the form had read. */
export type TakeOverInput = {
  assemblyId: string
  lines: { lifeId: string; hours: number; day: string | null; assumed: boolean }[]
}

const hoursOnPart = Joi.any().custom((input: unknown, helpers) => {
  const parsed = parseNumber(String(input ?? ''), 2)
  if (!parsed.ok) return helpers.message({ custom: parsed.reason })
  return parsed.value >= 0 && parsed.value <= 1e7
    ? parsed.value
    : helpers.message({ custom: 'Enter 0 or more.' })
})

export const takeOverSchema = Joi.object<TakeOverInput>({
  assemblyId: id().required(),
  lines: Joi.array()
    .items(
      Joi.object({
        lifeId: id().required(),
        hours: hoursOnPart.required(),
        day: optionalDay(),
        assumed: Joi.boolean().truthy('assumed').falsy('known').required(),
      }),
    )
    .min(1)
    .required(),
})

/** What one assembly goes by for one task; `seen` names the override the form had read, blank for none. */
export type LimitInput = {
  id: string
  assemblyId: string
  task: string
  seen: string
  hours: number | null
  days: number | null
  firstHours: number | null
  firstDays: number | null
  early: number
  late: number
  reason: string
}

const limitAmount = (max: number) =>
  Joi.any()
    .custom((input: unknown, helpers) => {
      if (input == null || input === '') return null
      const parsed = parseNumber(String(input), 1)
      if (!parsed.ok) return helpers.message({ custom: parsed.reason })
      return parsed.value > 0 && parsed.value <= max
        ? parsed.value
        : helpers.message({ custom: 'A limit is more than 0; leave it blank where there is none.' })
    })
    .default(null)

const toleranceShare = Joi.any().custom((input: unknown, helpers) => {
  const parsed = parseNumber(String(input ?? '').replace('%', ''), 1)
  return parsed.ok && parsed.value >= 0 && parsed.value <= 90
    ? parsed.value / 100
    : helpers.message({ custom: 'Enter a share of the limit from 0 to 90 %.' })
})

export const limitSchema = Joi.object<LimitInput>({
  id: id().required(),
  assemblyId: id().required(),
  task: Joi.string().max(40).required().messages({ 'string.empty': 'Choose a service.' }),
  seen: Joi.string().max(36).allow('').default(''),
  hours: limitAmount(1e7),
  days: limitAmount(10_000).custom((days: number | null, helpers) =>
    days === null && isBlank((helpers.state.ancestors[0] as LimitInput).hours)
      ? helpers.message({ custom: 'Enter hours, days or both.' })
      : days,
  ),
  firstHours: limitAmount(1e7),
  firstDays: limitAmount(10_000),
  early: toleranceShare.required(),
  late: toleranceShare.required(),
  reason: line(300).required().messages({ 'string.empty': 'Say why this pump goes by another limit.' }),
})

/** Hard duty of one assembly: the whole set; `seen` holds the ids the form had read, in order. */
export type DutiesInput = {
  assemblyId: string
  seen: string[]
  duties: { id: string; key: DutyKey; factor: number; reason: string }[]
}

export const dutiesSchema = Joi.object<DutiesInput>({
  assemblyId: id().required(),
  seen: Joi.array().items(id()).default([]),
  duties: Joi.array()
    .items(
      Joi.object({
        id: id().required(),
        key: Joi.string()
          .valid(...Object.keys(dutyFactors))
          .required(),
        factor: Joi.any()
          .custom((input: unknown, helpers) => {
            const parsed = parseNumber(String(input ?? '').replace('%', ''), 1)
            return parsed.ok && parsed.value >= 40 && parsed.value <= 100
              ? parsed.value / 100
              : helpers.message({ custom: 'Enter what is left of the limit, from 40 to 100 %.' })
          })
          .required(),
        reason: line(300).required().messages({ 'string.empty': 'Say where it was seen or measured.' }),
      }),
    )
    .unique('key')
    .required(),
})

/** A limit of one's own given up again; `seen` is the one that was read. */
export const clearLimitSchema = Joi.object<{ assemblyId: string; task: string; seen: string }>({
  assemblyId: id().required(),
  task: Joi.string().max(40).required(),
  seen: Joi.string().max(36).allow('').required(),
})
  .prefs({ stripUnknown: true })
  .required()

/** One position of one assembly. */
export const positionSchema = Joi.object<{ assemblyId: string; position: string }>({
  assemblyId: id().required(),
  position: Joi.string().max(60).required(),
})
  .prefs({ stripUnknown: true })
  .required()
