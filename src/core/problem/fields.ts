import { Joi } from './joi'
import type { Schema } from 'joi'

/** Field kinds that several schemas share, with the limits the database columns have. */

export const id = () =>
  Joi.string()
    .pattern(/^[0-9a-zA-Z-]{8,36}$/)
    .messages({ 'string.pattern.base': 'This is not a known reference.' })

/** One line of text; blanks at the ends are dropped and inner line breaks refused. */
export const line = (max: number) =>
  Joi.string()
    .trim()
    .max(max)
    .pattern(/^[^\p{Cc}]*$/u)
    .messages({ 'string.pattern.base': 'Keep this on one line.' })

/** A line that may be left out: blank becomes the empty string. */
export const optionalLine = (max: number) => line(max).allow('').default('')

/** Several lines of free text, which may be blank. */
export const note = (max = 2000) => Joi.string().trim().max(max).allow('').default('')

/** A plain calendar day, `YYYY-MM-DD`, that exists. */
export const day = () =>
  Joi.string()
    .custom((value: string, helpers) => {
      const match = /^(\d{4})-(\d{2})-(\d{2})$/.exec(value)
      if (!match) return helpers.error('string.isoDate')
      const date = new Date(`${value}T00:00:00Z`)
      const exists = !Number.isNaN(date.getTime()) && date.toISOString().startsWith(value)
      if (!exists) return helpers.message({ custom: 'There is no such day in the calendar.' })
      if (value < '1950-01-01' || value > '2199-12-31') {
        return helpers.message({ custom: 'Enter a day between 1950 and 2199.' })
      }
      return value
    })
    .messages({ 'string.empty': 'Enter a day.' })

export const optionalDay = () => day().allow('', null).empty('').default(null)

/** A time of day on the clock, `HH:mm`. */
export const timeOfDay = () =>
  Joi.string()
    .pattern(/^([01]\d|2[0-3]):[0-5]\d$/)
    .messages({ 'string.pattern.base': 'Enter a time as 07:30.' })

export const version = () => Joi.number().integer().min(1)

/** A row as a person saw it: which, and in which version. */
export type Reference = { id: string; version: number }
export const referenceSchema = Joi.object<Reference>({
  id: id().required(),
  version: version().required(),
})
  // Whoever has the whole row at hand may send it: nothing else of it is looked at.
  .prefs({ stripUnknown: true })
  .required()

/** Which row, and nothing else. */
export const idSchema = id().required() as Schema<string>
