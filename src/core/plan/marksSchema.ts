import { Joi, id, line, day, optionalLine } from '../problem'
import type { MarkedAs, Marking, SnoozeInput, HandInput } from './marks'

/** What a row of Today is about: `service:…`, `sign:…`, `reading:…`, `doubt:…`, `slip:…`, `earlyCheck:…`, `part:…`. */
const subject = () =>
  Joi.string()
    .max(200)
    .pattern(/^(service|sign|slip|reading|doubt|earlyCheck|part):/)
    .required()

const about = () =>
  Joi.object<MarkedAs>({
    positions: Joi.array().items(Joi.string().max(60)).max(500).required(),
    severity: Joi.number().min(0).max(1e9).required(),
    grounds: Joi.array().items(Joi.string().max(80)).max(200).required(),
  })
    .allow(null)
    .default(null)

const marking = {
  id: id().required(),
  subject: subject(),
  label: line(200).required(),
  about: about(),
}
/** A row that stands for several things marks each of them, in one act. */
const also = () => Joi.array().items(Joi.object<Marking>(marking)).max(100).default([])

export const snoozeSchema = Joi.object<SnoozeInput>({
  ...marking,
  also: also(),
  until: day().required(),
  reason: line(300).required().messages({ 'string.empty': 'Say why it can wait.' }),
})

export const handSchema = Joi.object<HandInput>({
  ...marking,
  also: also(),
  toId: id()
    .required()
    .messages({ 'string.empty': 'Choose who takes it.', 'any.required': 'Choose who takes it.' }),
  note: optionalLine(300),
})
