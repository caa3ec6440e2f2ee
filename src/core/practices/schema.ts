import { Joi, id, line, optionalLine, version } from '../problem'
import { practiceKeys, practiceOf, type PracticeKey } from './catalogue'
import type { Product } from './resolve'

export type PracticeInput = {
  practice: PracticeKey
  /** Null: for all models. */
  modelId: string | null
  /** Null takes an override for one model away again. */
  choice: string | null
  reason: string
  /** What stands on the label of what is put on; null: the usual figures hold. */
  product?: Product | null
  /** The version the choice was made on; 0 where none had been made yet. */
  version: number
}

const minutes = (words: string) =>
  Joi.number().min(0).max(20_160).required().messages({
    'any.required': words,
    'number.base': words,
    'number.min': words,
    'number.max': 'That is more than two weeks.',
  })

export const practiceSchema = Joi.object<PracticeInput>({
  practice: Joi.string()
    .valid(...practiceKeys)
    .required(),
  modelId: id()
    .allow(null)
    .default(null)
    .messages({ 'string.empty': 'Choose a model.', 'string.guid': 'Choose a model.' }),
  choice: Joi.string()
    .max(40)
    .allow(null)
    .required()
    .messages({ 'any.required': 'Choose one.', 'string.empty': 'Choose one.' }),
  reason: optionalLine(300),
  product: Joi.object<Product>({
    product: optionalLine(60),
    amount: line(60).required().messages({ 'string.empty': 'Say how much: “one drop”, “a film all round”.' }),
    setsMinutes: minutes('Enter the minutes until it sets, 0 for none.'),
    curesMinutes: minutes('Enter the minutes until it has cured, 0 for none.'),
    takesMl: Joi.number().min(0).max(1000).required().messages({
      'any.required': 'Enter about how many mL one thread takes.',
      'number.base': 'Enter about how many mL one thread takes.',
    }),
  })
    .allow(null)
    .default(null),
  version: version().min(0).default(0),
}).custom((value: PracticeInput, helpers) => {
  if (value.choice === null)
    return value.modelId === null ? helpers.message({ custom: 'Choose one.' }) : value
  const known = practiceOf(value.practice).choices.find((each) => each.key === value.choice)
  if (!known) return helpers.message({ custom: 'There is no such choice.' })
  return known.treats || !value.product
    ? value
    : helpers.message({ custom: 'This choice puts nothing on a thread.' })
})
