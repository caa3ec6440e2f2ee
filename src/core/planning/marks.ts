import Joi from 'joi'
import { day, id, line, optionalLine } from '../problem/fields'

/** What a row of Today is about: `service:…`, `sign:…`, `reading:…`, `doubt:…`, `earlyCheck:…`, `part:…`. */
const subject = () =>
  Joi.string()
    .max(200)
    .pattern(/^(service|sign|reading|doubt|earlyCheck|part):/)
    .required()

/** Puts a row of Today off until a day, with the reason. */
export type SnoozeInput = { id: string; subject: string; label: string; until: string; reason: string }

export const snoozeSchema = Joi.object<SnoozeInput>({
  id: id().required(),
  subject: subject(),
  label: line(200).required(),
  until: day().required(),
  reason: line(300).required().messages({ 'string.empty': 'Say why it can wait.' }),
})

/** Hands a row of Today to somebody. */
export type HandInput = { id: string; subject: string; label: string; toId: string; note: string }

export const handSchema = Joi.object<HandInput>({
  id: id().required(),
  subject: subject(),
  label: line(200).required(),
  toId: id()
    .required()
    .messages({ 'string.empty': 'Choose who takes it.', 'any.required': 'Choose who takes it.' }),
  note: optionalLine(300),
})

/** How a row of Today was put off or handed on. */
export type Mark = {
  id: string
  subject: string
  label: string
  kind: 'snooze' | 'hand'
  until: string | null
  reason: string
  to: string | null
  by: string
  day: string
}
