import Joi from 'joi'
import { day, id, optionalLine } from '../problem/fields'
import { parseNumber } from '../units'

export const endReasons = {
  preventive: 'Renewed in time',
  failed: 'It had failed',
  disturbed: 'Came out for another job',
  unknown: 'Not known',
} as const
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
  note: optionalLine(300),
})
