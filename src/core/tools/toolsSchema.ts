import { Joi, id, version, line, optionalDay, optionalLine, note } from '../problem'
import { parseNumber, unitsOf } from '../units'
import { type ToolInput, toolKinds, type RetireToolInput } from './tools'

const amount = (words: string) =>
  Joi.any().custom((input: unknown, helpers) => {
    const text = input == null ? '' : String(input).trim()
    if (text === '') return null
    const parsed = parseNumber(text, 3)
    if (!parsed.ok) return helpers.message({ custom: parsed.reason })
    return parsed.value > 0 ? parsed.value : helpers.message({ custom: words })
  })

/** A tool of the register; names that models ask by may be typed as one text with commas. */
export const toolSchema = Joi.object<ToolInput>({
  id: id().required(),
  version: version(),
  number: line(20).required().messages({ 'string.empty': 'Give it your own number.' }),
  name: line(80).required().messages({ 'string.empty': 'Give it a name.' }),
  kind: Joi.string()
    .valid(...Object.keys(toolKinds))
    .required(),
  count: Joi.number().integer().min(1).max(99).empty('').default(1),
  rangeFrom: amount('Enter more than 0.'),
  rangeTo: amount('Enter more than 0.'),
  rangeUnit: Joi.string()
    .valid(...unitsOf('torque'))
    .empty('')
    .default('N·m'),
  leverMm: amount('Enter more than 0.'),
  calibrationDue: optionalDay(),
  yardId: id().empty('').allow(null).default(null),
  place: optionalLine(40),
  serves: Joi.any()
    .custom((input: unknown) =>
      (Array.isArray(input) ? input.map(String) : String(input ?? '').split(','))
        .map((name) => name.trim())
        .filter(Boolean)
        .slice(0, 20),
    )
    .default([]),
  note: note(1000),
}).custom((value: ToolInput) =>
  value.kind === 'torqueWrench'
    ? value
    : { ...value, rangeFrom: null, rangeTo: null, leverMm: null, calibrationDue: null },
)
export const retireToolSchema = Joi.object<RetireToolInput>({
  id: id().required(),
  version: version().required(),
  reason: line(300).required().messages({ 'string.empty': 'Say why, for the record.' }),
})
