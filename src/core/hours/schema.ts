import { Joi, id, day, timeOfDay, line, note, optionalLine, version } from '../problem'
import { meterKinds } from './choices'
import type { SchemaMap, Schema } from 'joi'

/** A reading as a person enters it. The value stays text until the meter's face is known. */
export type ReadingInput = {
  id: string
  meterId: string
  day: string
  time: string
  typed: string
  readBy: string
  note: string
  /** The person looked again and says that a high or low reading is right. */
  vouched: boolean
  /** On a round: the instant of the newest reading the person saw, to tell when somebody else was quicker. */
  seenLast?: string
}

export const readingSchema = Joi.object<ReadingInput>({
  id: id().required(),
  meterId: id().required().messages({ 'any.required': 'Choose a meter.', 'string.empty': 'Choose a meter.' }),
  day: day().required(),
  time: timeOfDay().required(),
  typed: line(40).required().messages({ 'string.empty': 'Enter what the meter shows.' }),
  readBy: line(60).allow('').default(''),
  note: note(500),
  vouched: Joi.boolean().default(false),
  seenLast: Joi.string().max(30).allow(''),
})

/**
 * What becomes of a change of meter or a roll-over that a reading told of, when the reading itself is
 * withdrawn or corrected; left out, what the readings say decides.
 */
export type MeterEventToo = '' | 'goes' | 'stays'

/** What a person decides about a reading in doubt, or about one that turned out wrong. */
export type SettlementInput =
  | { decision: 'vouch'; readingId: string; reason: string }
  | {
      decision: 'correct'
      readingId: string
      id: string
      typed: string
      day: string
      time: string
      reason: string
      meterEvent?: MeterEventToo
    }
  | { decision: 'withdraw'; readingId: string; reason: string; meterEvent?: MeterEventToo }
  | {
      decision: 'newMeter'
      readingId: string
      /** Whether somebody read the old meter, or its last value is to be estimated, or left out. */
      oldLast?: 'read' | 'estimate' | 'none'
      oldLastTyped: string
      newFirstTyped: string
      day: string
      time: string
      reason: string
    }
  | { decision: 'rollOver'; readingId: string; reason: string; digits?: number | string | null }

export const meterFields = {
  name: line(40).required(),
  kind: Joi.string()
    .valid(...Object.keys(meterKinds))
    .required(),
  digits: Joi.number()
    .integer()
    .min(3)
    .max(9)
    .allow(null, '')
    .empty('')
    .default(null)
    .messages({ 'number.min': 'A meter has 3 to 9 digits.', 'number.max': 'A meter has 3 to 9 digits.' }),
  decimals: Joi.number().integer().min(0).max(2).required(),
  readingIntervalDays: Joi.number().integer().min(1).max(90).default(7),
}

const reason = line(300).allow('').default('')
const mustSayWhy = line(300).required().messages({ 'string.empty': 'Say why, for whoever reads this later.' })

const meterEvent = Joi.string().valid('', 'goes', 'stays').default('')

// A form holds the fields of every decision; each decision takes its own and leaves the rest.
const decision = (fields: SchemaMap) =>
  Joi.object({ decision: Joi.string(), readingId: id().required(), ...fields }).prefs({ stripUnknown: true })

// Joi infers `unknown` for alternatives that are told apart by a field of their own.
export const settlementSchema = Joi.alternatives().conditional(Joi.ref('.decision'), {
  switch: [
    { is: 'vouch', then: decision({ reason: mustSayWhy }) },
    {
      is: 'correct',
      then: decision({
        id: id().required(),
        typed: line(40).required().messages({ 'string.empty': 'Enter what the meter showed.' }),
        day: day().required(),
        time: timeOfDay().required(),
        reason: mustSayWhy,
        meterEvent,
      }),
    },
    { is: 'withdraw', then: decision({ reason: mustSayWhy, meterEvent }) },
    {
      is: 'newMeter',
      then: decision({
        oldLast: Joi.string().valid('read', 'estimate', 'none'),
        oldLastTyped: Joi.when('oldLast', {
          is: 'read',
          then: line(40).required().messages({
            'string.empty': 'Enter what the old meter showed last, or take the estimate.',
          }),
          otherwise: optionalLine(40),
        }),
        newFirstTyped: line(40)
          .required()
          .messages({ 'string.empty': 'Enter what the new meter started at.' }),
        day: day().required(),
        time: timeOfDay().required(),
        reason,
      }),
    },
    { is: 'rollOver', then: decision({ reason, digits: meterFields.digits }) },
  ],
  otherwise: Joi.object({
    decision: Joi.any()
      .valid('vouch', 'correct', 'withdraw', 'newMeter', 'rollOver')
      .required()
      .messages({ 'any.only': 'Choose what to do with this reading.' }),
  }).unknown(),
}) as unknown as Schema<SettlementInput>

/** What makes a meter: its name, what it counts and its face. */
export type MeterInput = {
  id: string
  version?: number
  name: string
  kind: 'engine' | 'pump' | 'jetOn' | 'strokes'
  digits: number | null
  decimals: number
  readingIntervalDays: number
}

export const meterSchema = Joi.object<MeterInput>({ id: id().required(), version: version(), ...meterFields })

/** A meter of the round that was not read, and why. */
export type SkipInput = { id: string; meterId: string; reason: string }
export const skipSchema = Joi.object<SkipInput>({
  id: id().required(),
  meterId: id().required(),
  reason: line(200).required().messages({ 'string.empty': 'Say why it was not read.' }),
})

/** A meter that was replaced, told during the round: the new one's reading, and the old one's last. */
export type ReplacedInput = {
  id: string
  meterId: string
  typed: string
  oldLastTyped: string
  readBy: string
}
export const replacedSchema = Joi.object<ReplacedInput>({
  id: id().required(),
  meterId: id().required(),
  typed: line(40).required().messages({ 'string.empty': 'Enter what the new meter shows.' }),
  oldLastTyped: optionalLine(40),
  readBy: line(60).allow('').default(''),
})
