import Joi from 'joi'
import { day, id, line, note, optionalDay, optionalLine, version } from '../problem'
import { parseNumber, readMoney } from '../units'

export const partUnits = { piece: 'pieces', L: 'litres', mL: 'millilitres', g: 'grams' } as const
export type PartUnit = keyof typeof partUnits

/** Which part of which pump model a stocked part serves as. */
export type Fit = { modelId: string; part: string }

export type PartInput = {
  id: string
  version?: number
  /** Our own number. */
  number: string
  name: string
  makersNumber: string
  unit: PartUnit
  /** Pieces in a pack or kit as it comes: a valve kit of three. 1 for loose pieces. */
  packSize: number
  priceCents: number
  leadDays: number
  minimum: number
  bin: string
  fits: Fit[]
  note: string
}

const wholeNumber = (min: number, max: number) => Joi.number().integer().min(min).max(max)

/** A typed amount that may be blank: `12`, `0.5`, `1 200`. */
const amount = (words: string, { min = 0, blank = false }: { min?: number; blank?: boolean } = {}) =>
  Joi.any().custom((input: unknown, helpers) => {
    const text = input == null ? '' : String(input).trim()
    if (text === '') return blank ? 0 : helpers.message({ custom: words })
    const parsed = parseNumber(text, 3)
    if (!parsed.ok) return helpers.message({ custom: parsed.reason })
    if (parsed.value < min) return helpers.message({ custom: `Enter ${min} or more.` })
    if (parsed.value > 1_000_000) return helpers.message({ custom: 'That is more than any store holds.' })
    return Math.round(parsed.value * 1000) / 1000
  })

/** A typed price into cents. What is a whole number already came from here and is typed money too. */
const price = () =>
  Joi.any()
    .custom((input: unknown, helpers) => {
      const text = input == null ? '' : String(input).trim()
      if (text === '') return 0
      const read = readMoney(text)
      return read.ok ? read.cents : helpers.message({ custom: read.reason })
    })
    .default(0)

export type PartForm = Omit<PartInput, 'priceCents'> & { price: string }
export const partSchema = Joi.object({
  id: id().required(),
  version: version(),
  number: line(20).required().messages({ 'string.empty': 'Give it your own number.' }),
  name: line(80).required().messages({ 'string.empty': 'Give it a name.' }),
  makersNumber: optionalLine(40),
  unit: Joi.string()
    .valid(...Object.keys(partUnits))
    .required(),
  packSize: wholeNumber(1, 1000).empty('').default(1),
  price: price(),
  leadDays: wholeNumber(0, 730).empty('').default(0),
  minimum: amount('Enter the least you want to have.', { blank: true }),
  bin: optionalLine(20),
  fits: Joi.array()
    .items(Joi.object({ modelId: id().required(), part: Joi.string().max(40).required() }))
    .max(200)
    .default([]),
  note: note(1000),
})

export type ReceiptInput = {
  id: string
  partId: string
  quantity: number
  code: string
  receivedOn: string
  /** Cents for one piece; the part's own price where it is left blank. */
  price: number | null
  expiresOn: string | null
  note: string
}
export const receiptSchema = Joi.object<ReceiptInput>({
  id: id().required(),
  partId: id().required(),
  quantity: amount('Enter how much came in.', { min: 0.001 }).required(),
  code: optionalLine(40),
  receivedOn: day().required(),
  price: Joi.any()
    .custom((input: unknown, helpers) => {
      const text = input == null ? '' : String(input).trim()
      if (text === '') return null
      const read = readMoney(text)
      return read.ok ? read.cents : helpers.message({ custom: read.reason })
    })
    .default(null),
  expiresOn: optionalDay(),
  note: optionalLine(300),
})

/** What a count found, lot by lot. A lot left blank was not counted. */
export type CountInput = {
  id: string
  partId: string
  lots: { lotId: string; counted: number | null }[]
  reason: string
}
export const countSchema = Joi.object<CountInput>({
  id: id().required(),
  partId: id().required(),
  lots: Joi.array()
    .items(
      Joi.object({
        lotId: id().required(),
        counted: Joi.any().custom((input: unknown, helpers) => {
          const text = input == null ? '' : String(input).trim()
          if (text === '') return null
          const parsed = parseNumber(text, 3)
          if (!parsed.ok) return helpers.message({ custom: parsed.reason })
          return parsed.value >= 0
            ? Math.round(parsed.value * 1000) / 1000
            : helpers.message({ custom: 'A bin holds 0 or more.' })
        }),
      }),
    )
    .required(),
  reason: line(300).required().messages({ 'string.empty': 'Say what the count was for.' }),
})
