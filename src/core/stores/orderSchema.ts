import { Joi, day, id, line, note, optionalDay, optionalLine, version } from '../problem'
import type { StockAct } from './buckets'
import { stockActs } from './buckets'
import { amount, cured, price, wholeNumber } from './schema'

export type SupplierInput = {
  id: string
  version?: number
  name: string
  leadDays: number
  least: string
  contact: string
  note: string
}
export const supplierSchema = Joi.object({
  id: id().required(),
  version: version(),
  name: line(80).required().messages({ 'string.empty': 'Give it a name.' }),
  leadDays: wholeNumber(0, 730)
    .empty('')
    .required()
    .messages({ 'any.required': 'Say how many days it takes.' }),
  least: price(),
  contact: optionalLine(200),
  note: note(1000),
})

export type OfferInput = {
  id: string
  version?: number
  supplierId: string
  partId: string
  supplierNumber: string
  price: string
  packSize: number
  minimumOrder: number
  /** Blank: as the supplier says for all. */
  leadDays: number | null
}
export const offerSchema = Joi.object({
  id: id().required(),
  version: version(),
  supplierId: id().required().messages({ 'string.empty': 'Choose a supplier.' }),
  partId: id().required(),
  supplierNumber: line(40).required().messages({ 'string.empty': 'Enter the supplier’s number.' }),
  price: price(),
  packSize: wholeNumber(1, 1000).empty('').default(1),
  minimumOrder: amount('Enter the least that is sent.', { blank: true }),
  leadDays: wholeNumber(0, 730).empty('').allow(null).default(null),
})

export type VanInput = { id: string; version?: number; name: string; yardId: string }
export const vanSchema = Joi.object<VanInput>({
  id: id().required(),
  version: version(),
  name: line(60).required().messages({ 'string.empty': 'Give it a name.' }),
  yardId: id().required().messages({ 'string.empty': 'Choose a yard.' }),
})

/** Something is moved by hand: from where it lies to another state or place, or out of the stores. */
export type MoveInput = {
  id: string
  partId: string
  lotId: string
  placeId: string
  state: string
  visitId: string | null
  act: StockAct
  quantity: number
  /** Of a transfer, and of what goes into a van; blank: it stays where it is. */
  toPlaceId: string
  reason: string
}
export const moveSchema = Joi.object<MoveInput>({
  id: id().required(),
  partId: id().required(),
  lotId: id().required(),
  placeId: id().required(),
  state: Joi.string().valid('shelf', 'picked', 'van', 'bench', 'back', 'quarantine').required(),
  visitId: id().allow(null).default(null),
  act: Joi.string()
    .valid(...Object.keys(stockActs))
    .required(),
  quantity: amount('Enter how much.', { min: 0.001 }).required(),
  toPlaceId: id().allow('').default(''),
  reason: optionalLine(300),
})

/** A new order, or a draft that is changed. */
export type OrderInput = {
  id: string
  version?: number
  supplierId: string
  yardId: string
  lines: { id: string; partId: string; quantity: number; neededBy: string | null }[]
  note: string
}
export const orderSchema = Joi.object<OrderInput>({
  id: id().required(),
  version: version(),
  supplierId: id().required(),
  yardId: id().required(),
  lines: Joi.array()
    .items(
      Joi.object({
        id: id().required(),
        partId: id().required().messages({ 'string.empty': 'Choose a part.' }),
        quantity: amount('Enter how many.', { min: 0.001 }).required(),
        neededBy: optionalDay(),
      }),
    )
    .min(1)
    .max(200)
    .required()
    .messages({ 'array.min': 'An order has at least one line.' }),
  note: note(1000),
})

export type SendInput = { id: string; version: number; hurry: string }
export const sendSchema = Joi.object({ id: id().required(), version: version().required(), hurry: price() })

export type ConfirmInput = {
  id: string
  version: number
  lines: { id: string; confirmed: number; promisedOn: string | null; answer: string }[]
}
export const confirmSchema = Joi.object<ConfirmInput>({
  id: id().required(),
  version: version().required(),
  lines: Joi.array()
    .items(
      Joi.object({
        id: id().required(),
        confirmed: amount('Enter how many are confirmed.').required(),
        promisedOn: optionalDay(),
        answer: optionalLine(300),
      }),
    )
    .min(1)
    .required(),
})

export type ConfirmationFileInput = { id: string; version: number; text: string }
export const confirmationFileSchema = Joi.object<ConfirmationFileInput>({
  id: id().required(),
  version: version().required(),
  text: Joi.string().max(4_000_000).required().messages({ 'string.empty': 'The file is empty.' }),
})

export type PriceListInput = {
  supplierId: string
  text: string
  /** False: only say what it would change. */
  take: boolean
  /** Take the doubtful prices too. */
  doubtful: boolean
}
export const priceListSchema = Joi.object<PriceListInput>({
  supplierId: id().required(),
  text: Joi.string().max(4_000_000).required().messages({ 'string.empty': 'The file is empty.' }),
  take: Joi.boolean().default(false),
  doubtful: Joi.boolean().default(false),
})

/** What came with a delivery note, line by line as counted. */
export type DeliveryInput = {
  id: string
  orderId: string
  noteNumber: string
  receivedOn: string
  lines: {
    lotId: string
    lineId: string
    /** Another part than was ordered came on this line: it is set aside. */
    wrongPart: boolean
    noted: number
    came: number
    damaged: number
    code: string
    curedOn: string | null
    expiresOn: string | null
  }[]
}
export const deliverySchema = Joi.object<DeliveryInput>({
  id: id().required(),
  orderId: id().required(),
  noteNumber: line(40).required().messages({ 'string.empty': 'Enter the number of the delivery note.' }),
  receivedOn: day().required(),
  lines: Joi.array()
    .items(
      Joi.object({
        lotId: id().required(),
        lineId: id().required(),
        wrongPart: Joi.boolean().default(false),
        noted: amount('Enter what the note says.', { blank: true }),
        came: amount('Enter what you counted.', { blank: true }),
        damaged: amount('Enter how many are damaged.', { blank: true }),
        code: optionalLine(40),
        curedOn: cured(),
        expiresOn: optionalDay(),
      }),
    )
    .min(1)
    .max(200)
    .required(),
})

export type EndOrderInput = { id: string; version: number; reason: string }
export const endOrderSchema = Joi.object<EndOrderInput>({
  id: id().required(),
  version: version().required(),
  reason: line(300).required().messages({ 'string.empty': 'Say why, for the record.' }),
})

/** What is picked for a visit: so much of each lot, and kits that are opened for it. */
export type PickInput = {
  id: string
  visitId: string
  take: { lotId: string; placeId: string; quantity: number }[]
  open: { lotId: string; placeId: string; pieces: { partId: string; quantity: number }[] }[]
}
export const pickSchema = Joi.object<PickInput>({
  id: id().required(),
  visitId: id().required(),
  take: Joi.array()
    .items(
      Joi.object({
        lotId: id().required(),
        placeId: id().required(),
        quantity: amount('Enter how much.', { min: 0.001 }).required(),
      }),
    )
    .max(300)
    .default([]),
  open: Joi.array()
    .items(
      Joi.object({
        lotId: id().required(),
        placeId: id().required(),
        pieces: Joi.array()
          .items(
            Joi.object({
              partId: id().required(),
              quantity: amount('Enter how many.', { min: 0.001 }).required(),
            }),
          )
          .max(60)
          .default([]),
      }),
    )
    .max(60)
    .default([]),
}).custom((input: PickInput, helpers) =>
  input.take.length + input.open.length > 0 ? input : helpers.message({ custom: 'Nothing is picked.' }),
)

export type OpenKitInput = { id: string; lotId: string; placeId: string }
export const openKitSchema = Joi.object<OpenKitInput>({
  id: id().required(),
  lotId: id().required(),
  placeId: id().required(),
})

/** A bottle or tube is opened: from then on it keeps shorter. */
export type OpenBottleInput = { id: string; lotId: string }
export const openBottleSchema = Joi.object<OpenBottleInput>({ id: id().required(), lotId: id().required() })

/** Another look at rubber whose time is up: it may lie longer, once. */
export type ExtendInput = { id: string; lotId: string; reason: string }
export const extendSchema = Joi.object<ExtendInput>({
  id: id().required(),
  lotId: id().required(),
  reason: line(300).required().messages({ 'string.empty': 'Say who looked at it, and what was found.' }),
})

/** A whole round of counts in one yard. */
export type StocktakeInput = {
  id: string
  placeId: string
  reason: string
  lines: { partId: string; lotId: string; counted: number | null; sure: boolean }[]
}
export const stocktakeSchema = Joi.object<StocktakeInput>({
  id: id().required(),
  placeId: id().required(),
  reason: line(300).required().messages({ 'string.empty': 'Say what the count was for.' }),
  lines: Joi.array()
    .items(
      Joi.object({
        partId: id().required(),
        lotId: id().required(),
        counted: Joi.any().custom((input: unknown, helpers) => {
          const text = input == null ? '' : String(input).trim()
          if (text === '') return null
          const checked = amount('Enter what is there.').validate(text)
          return checked.error
            ? helpers.message({ custom: checked.error.message })
            : (checked.value as number)
        }),
        sure: Joi.boolean().default(false),
      }),
    )
    .min(1)
    .max(2000)
    .required(),
})

/** An old part that came off, kept until the job is closed or a claim is settled. */
export type KeepOldInput = {
  id: string
  sheetId: string
  name: string
  place: string
  quantity: number
  until: 'job' | 'claim'
  reason: string
}
export const keepOldSchema = Joi.object<KeepOldInput>({
  id: id().required(),
  sheetId: id().required(),
  name: line(80).required().messages({ 'string.empty': 'Say what it is.' }),
  place: optionalLine(120),
  quantity: amount('Enter how many.', { min: 0.001 }).required(),
  until: Joi.string().valid('job', 'claim').required(),
  reason: optionalLine(300),
})
export const endOldSchema = Joi.object<{ id: string; ending: string }>({
  id: id().required(),
  ending: line(300).required().messages({ 'string.empty': 'Say what became of it.' }),
})
