import type { FlowReading } from '../hydraulics'
import { Joi, id, day, line, version, optionalLine } from '../problem'
import { parseNumber } from '../units'
import { signOutcomes } from './choices'
import { type SymptomKey, symptomKeys } from './symptoms'

/** A sign as it is reported, of a machine or of one pump. */
export type SignInput = {
  id: string
  machineId: string | null
  assemblyId: string | null
  symptom: SymptomKey
  seenOn: string
  words: string
  dripsPerMinute: number | null
  flow: FlowReading | null
  /** The service it brings forward; blank where it is only to be looked at. */
  task: string
  positions: string[]
  /** By when somebody should have seen to it. */
  by: string
  /** The sheet of the service it followed on, where it was found at an early check. */
  sheetId: string | null
}

const figure = (max: number, decimals = 1) =>
  Joi.any()
    .custom((input: unknown, helpers) => {
      if (input == null || input === '') return null
      const parsed = parseNumber(String(input), decimals)
      if (!parsed.ok) return helpers.message({ custom: parsed.reason })
      return parsed.value >= 0 && parsed.value <= max
        ? parsed.value
        : helpers.message({ custom: `Enter 0 to ${max}.` })
    })
    .default(null)

const needed = (max: number) =>
  figure(max, 2).custom((value: number | null, helpers) =>
    value === null || value === 0
      ? helpers.message({ custom: 'All four figures are needed to compare: enter more than 0.' })
      : value,
  )

const flowSchema = Joi.object<FlowReading>({
  nozzleSize: needed(200),
  bar: needed(6000),
  litresPerMinute: needed(2000),
  usualLitresPerMinute: needed(2000),
})

/** Four blank figures mean that none was read. */
const optionalFlow = Joi.any()
  .custom((input: unknown, helpers) => {
    if (input == null) return null
    const blank = Object.values(input as object).every((value) => value == null || value === '')
    if (blank) return null
    const { value, error } = flowSchema.validate(input, { abortEarly: true })
    if (!error) return value as FlowReading
    return helpers.message({ custom: error.details[0]?.message ?? 'Enter all four figures.' })
  })
  .default(null)

export const signSchema = Joi.object<SignInput>({
  id: id().required(),
  machineId: id().allow(null).default(null),
  assemblyId: id().allow(null, '').empty('').default(null),
  symptom: Joi.string()
    .valid(...symptomKeys)
    .required()
    .messages({ 'any.only': 'Choose what was seen.', 'string.empty': 'Choose what was seen.' }),
  seenOn: day().required(),
  words: line(300).required().messages({ 'string.empty': 'Say what was seen, in a few words.' }),
  dripsPerMinute: figure(600),
  flow: optionalFlow,
  task: Joi.string().max(40).allow('').default(''),
  positions: Joi.array().items(Joi.string().max(60)).default([]),
  by: day().required(),
  sheetId: id().allow(null).default(null),
})
export type SignOutcome = keyof typeof signOutcomes

/** How a sign ended; `version` is the one that was read. */
export type SettleSignInput = { id: string; version: number; outcome: SignOutcome; words: string }

export const settleSignSchema = Joi.object<SettleSignInput>({
  id: id().required(),
  version: version().required(),
  outcome: Joi.string()
    .valid(...Object.keys(signOutcomes))
    .required()
    .messages({ 'any.only': 'Say how it ended.', 'string.empty': 'Say how it ended.' }),
  words: line(300).required().messages({ 'string.empty': 'Say what was found or done.' }),
})

/** What an early check showed: all well, or a sign of its own. */
export type EarlyCheckInput = {
  id: string
  version: number
  result: 'good' | 'found'
  words: string
  /** What was found, where something was. */
  symptom: SymptomKey | ''
}

export const earlyCheckSchema = Joi.object<EarlyCheckInput>({
  id: id().required(),
  version: version().required(),
  result: Joi.string()
    .valid('good', 'found')
    .required()
    .messages({ 'any.only': 'Say what the check showed.', 'string.empty': 'Say what the check showed.' }),
  words: Joi.when('result', {
    is: 'found',
    then: line(300).required().messages({ 'string.empty': 'Say what was found.' }),
    otherwise: optionalLine(300),
  }),
  symptom: Joi.when('result', {
    is: 'found',
    then: Joi.string()
      .valid(...symptomKeys)
      .required()
      .messages({ 'any.only': 'Choose what was seen.', 'string.empty': 'Choose what was seen.' }),
    otherwise: Joi.string().allow('').default(''),
  }),
})
