import { Joi, day, id, version, optionalDay, line } from '../problem'
import { parseNumber } from '../units'
import { type SpellInput, spellKinds } from './spells'
import type { CustomHelpers } from 'joi'

const hoursADay = Joi.any()
  .custom((input: unknown, helpers) => {
    if (input == null || input === '') return null
    const parsed = parseNumber(String(input), 2)
    if (!parsed.ok || parsed.value < 0 || parsed.value > 24)
      return helpers.message({ custom: 'Enter 0 to 24 hours a day, or leave it blank.' })
    return parsed.value
  })
  .default(null)

const lastDayOfJob = Joi.any().custom((value: unknown, helpers) => {
  const { value: checked, error } = day()
    .required()
    .validate(value ?? '')
  return error ? helpers.message({ custom: 'Enter the job’s last day.' }) : notBeforeFirst(checked, helpers)
})

function notBeforeFirst(value: string | null, helpers: CustomHelpers) {
  const { fromDay } = helpers.state.ancestors[0] as SpellInput
  return value !== null && value < fromDay
    ? helpers.message({ custom: 'The last day is before the first.' })
    : value
}

export const spellSchema = Joi.object<SpellInput>({
  id: id().required(),
  version: version(),
  kind: Joi.string()
    .valid(...Object.keys(spellKinds))
    .required(),
  fromDay: day().required(),
  toDay: Joi.when('kind', { is: 'job', then: lastDayOfJob, otherwise: optionalDay().custom(notBeforeFirst) }),
  hoursPerDay: Joi.when('kind', { is: 'job', then: hoursADay, otherwise: Joi.any().custom(() => null) }),
  what: line(120).required().messages({ 'string.empty': 'Say what for: the job, or why it stands.' }),
})
