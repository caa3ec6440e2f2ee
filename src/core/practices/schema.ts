import Joi from 'joi'
import { id, optionalLine, version } from '../problem'
import { practiceKeys, practiceOf, type PracticeKey } from './catalogue'

export type PracticeInput = {
  practice: PracticeKey
  /** Null: for all models. */
  modelId: string | null
  /** Null takes an override for one model away again. */
  choice: string | null
  reason: string
  /** The version the choice was made on; 0 where none had been made yet. */
  version: number
}

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
  version: version().min(0).default(0),
}).custom((value: PracticeInput, helpers) => {
  if (value.choice === null)
    return value.modelId === null ? helpers.message({ custom: 'Choose one.' }) : value
  const known = practiceOf(value.practice).choices.some((each) => each.key === value.choice)
  return known ? value : helpers.message({ custom: 'There is no such choice.' })
})
