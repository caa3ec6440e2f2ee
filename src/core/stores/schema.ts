import { Joi, id, version, line, optionalLine, note, day, optionalDay } from '../problem'
import { parseNumber, readMoney } from '../units'
import { partUnits } from './choices'
import type { KitPiece } from './kits'
import { type ShelfGroup, shelfGroups, readCured } from './shelfLife'

export type PartUnit = keyof typeof partUnits

/** Which part of which pump model a stocked part serves as. */
export type Fit = { modelId: string; part: string }

/** A part that may be used instead of another: for one model or any, with whoever approved of it. */
export type StandsFor = {
  partId: string
  /** A maker's later number for the same thing, or something else that does as well. */
  kind: 'supersedes' | 'alternative'
  /** The pump model it is approved for; null for every one. */
  modelId: string | null
  /** The places on that model that it is approved for, by the model's part; empty for all of them. */
  positions: string[]
  /** Who approved of it, and where that is written. */
  approval: string
}

/** The kinds of movements; the last four move within the stores or out of them by hand. */
export type MovementKind = 'receipt' | 'use' | 'count' | 'correction' | 'open' | 'move' | 'sentBack' | 'scrap'

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
  /** What a kit of unlike pieces holds. */
  contents: KitPiece[]
  insteadOf: StandsFor[]
  /** What sheets call the bottle or tube that this is, such as `assembly lubricant`; blank for a part. */
  means: string
  material: string
  shelfGroup: ShelfGroup
  /** Months, of a life of its own; and of a bottle once it is open, 0 where that makes no difference. */
  keepsMonths: number
  openedMonths: number
  note: string
}

export const wholeNumber = (min: number, max: number) => Joi.number().integer().min(min).max(max)

/** A typed amount that may be blank: `12`, `0.5`, `1 200`. */
export const amount = (words: string, { min = 0, blank = false }: { min?: number; blank?: boolean } = {}) =>
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
export const price = () =>
  Joi.any()
    .custom((input: unknown, helpers) => {
      const text = input == null ? '' : String(input).trim()
      if (text === '') return 0
      const read = readMoney(text)
      return read.ok ? read.cents : helpers.message({ custom: read.reason })
    })
    .default(0)

type Later = 'contents' | 'insteadOf' | 'means' | 'material' | 'shelfGroup' | 'keepsMonths' | 'openedMonths'
/** A part as a form sends it; what it leaves out of kits and shelf life is nothing special. */
export type PartForm = Omit<PartInput, 'priceCents' | Later> &
  Partial<Pick<PartInput, Later>> & { price: string }
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
  contents: Joi.array()
    .items(
      Joi.object({
        partId: id().required(),
        quantity: amount('Enter how many of it.', { min: 0.001 }).required(),
      }),
    )
    .max(60)
    .default([]),
  insteadOf: Joi.array()
    .items(
      Joi.object({
        partId: id().required(),
        kind: Joi.string().valid('supersedes', 'alternative').required(),
        modelId: id().allow(null, '').empty('').default(null),
        positions: Joi.array().items(Joi.string().max(40)).max(60).default([]),
        approval: line(120).required().messages({ 'string.empty': 'Say who approved of it, and where.' }),
      }),
    )
    .max(40)
    .default([]),
  means: optionalLine(80),
  material: optionalLine(60),
  shelfGroup: Joi.string()
    .valid(...Object.keys(shelfGroups))
    .default('none'),
  keepsMonths: Joi.when('shelfGroup', {
    is: 'own',
    then: wholeNumber(1, 600).empty('').required().messages({
      'any.required': 'Say how many months it keeps.',
      'number.min': 'Say how many months it keeps.',
    }),
    otherwise: wholeNumber(0, 600).empty('').default(0),
  }),
  openedMonths: wholeNumber(0, 600).empty('').default(0),
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
  /** As it stands on the bag: a day, a month, a quarter; blank where it does not say. */
  curedOn?: string | null
  /** As printed; blank: reckoned from its shelf-life group. */
  expiresOn: string | null
  /** The yard or van it comes into; blank: the first yard. */
  placeId?: string
  note: string
}

/** The date of cure as it stands on the bag. */
export const cured = () =>
  Joi.any()
    .custom((input: unknown, helpers) => {
      const read = readCured(input == null ? '' : String(input))
      return read.ok ? read.day : helpers.message({ custom: read.reason })
    })
    .default(null)

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
  curedOn: cured(),
  expiresOn: optionalDay(),
  placeId: id().allow('').default(''),
  note: optionalLine(300),
})

/** What a count found, lot by lot. A lot left blank was not counted. */
export type CountInput = {
  id: string
  partId: string
  /** Without a place: where the lot lies. */
  lots: { lotId: string; placeId?: string; counted: number | null }[]
  reason: string
}
export const countSchema = Joi.object<CountInput>({
  id: id().required(),
  partId: id().required(),
  lots: Joi.array()
    .items(
      Joi.object({
        lotId: id().required(),
        placeId: id(),
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
