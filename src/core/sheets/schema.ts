import { findingSortKeys, damageKeys, extents, dispositionKeys } from '../inspection'
import { bookedItem } from '../plan'
import { line, Joi, optionalLine, id, optionalDay, note, version } from '../problem'
import { dimensions, parseNumber } from '../units'
import { endReasons } from '../wear'
import { mostEntriesAtOnce } from './choices'
import {
  type DeviceEntryKind,
  type Payloads,
  pieceFates,
  timerKinds,
  type SentEntry,
  type EndedLife,
  type Correction,
} from './types'
import type { ObjectSchema, SchemaMap, Schema } from 'joi'

const because = (words: string) =>
  line(300).required().messages({ 'string.empty': words, 'any.required': words })

const amount = (units: string[] | null) =>
  Joi.object({
    // Torques are never below nothing; what is measured may be: a coolant freezes at −37 °C.
    value: Joi.number()
      .min(units ? 0 : -1e6)
      .max(1e7)
      .required(),
    unit: units ? Joi.string().valid(...units) : Joi.string().max(20),
    ...(units ? {} : { how: optionalLine(80) }),
  })
    .allow(null)
    .default(null)

const position = { assemblyId: id().required(), position: Joi.string().max(60).required() }

/** How much of a part was used: more than nothing, to a thousandth. */
export const usedQuantity = () =>
  Joi.number().greater(0).max(100_000).precision(3).required().messages({
    'number.base': 'Enter how much was used.',
    'number.greater': 'Enter more than 0.',
  })

/** What each kind of entry that a device sends must say. */
export const payloadSchemas: { [Kind in DeviceEntryKind]: ObjectSchema<Payloads[Kind]> } = {
  reading: Joi.object({
    meterId: id().required(),
    typed: optionalLine(40),
    unreadable: optionalLine(300),
    vouched: Joi.boolean().default(false),
  }).custom((value: Payloads['reading'], helpers) =>
    value.typed === '' && value.unreadable === ''
      ? helpers.message({ custom: 'Enter what the meter shows, or say why it cannot be read.' })
      : value,
  ),
  madeSafe: Joi.object({
    name: because('Confirm it with your name.'),
    round: Joi.number().integer().min(1).max(99),
  }),
  done: Joi.object({
    measure: amount(null),
    torque: amount(Object.keys(dimensions.torque)),
    answer: optionalLine(200),
    reason: optionalLine(300),
    setting: optionalLine(120),
    pieces: Joi.array()
      .items(
        Joi.object({
          part: Joi.string().max(40).required(),
          pieces: Joi.number().integer().min(0).max(100).required(),
          fate: Joi.string()
            .valid(...Object.keys(pieceFates))
            .required(),
          reason: optionalLine(200),
        }),
      )
      .max(60),
    ownBores: Joi.array().items(Joi.string().max(100)).max(200),
  }),
  skipped: Joi.object({ reason: because('Say why this step is skipped.') }),
  takeBack: Joi.object({ of: id().required(), reason: optionalLine(300) }),
  remark: Joi.object({
    text: Joi.string().trim().max(2000).required().messages({ 'string.empty': 'Write the remark.' }),
  }),
  substitute: Joi.object({
    tool: line(120).required(),
    used: because('Say what was used instead.'),
    reason: because('Say why.'),
  }),
  renewed: Joi.object({ ...position, reason: because('Say why it was renewed.') }),
  kept: Joi.object({ ...position, reason: because('Say why it was kept.') }),
  part: Joi.object({
    partId: id().allow(null).default(null),
    lotId: id().allow(null).default(null),
    name: line(120).required().messages({ 'string.empty': 'Say what was used.' }),
    unit: Joi.string().valid('piece', 'L', 'mL').required(),
    quantity: usedQuantity(),
    assemblyId: id().allow(null).default(null),
    part: Joi.string().max(40).allow(null).default(null),
  }),
  notUsed: Joi.object({
    assemblyId: id().required(),
    part: Joi.string().max(40).required(),
    reason: because('Say why it was not used.'),
  }),
  bolt: Joi.object({
    place: Joi.number().integer().min(1).max(400).required(),
    bolt: Joi.string().max(8).required(),
    torque: amount(Object.keys(dimensions.torque)),
    reason: optionalLine(300),
  }),
  torqueSet: Joi.object({
    assemblyId: id().required(),
    fastener: Joi.string().max(40).required(),
    value: Joi.number().greater(0).max(100_000).required().messages({
      'number.base': 'Enter the value of the manual.',
      'number.greater': 'Enter more than 0.',
    }),
    unit: Joi.string()
      .valid(...Object.keys(dimensions.torque))
      .required(),
    page: because('Enter the page of the maker’s manual.'),
  }),
  timer: Joi.object({
    kind: Joi.string()
      .valid(...Object.keys(timerKinds))
      .required(),
    name: because('Say what it is for.'),
    minutes: Joi.number().greater(0).max(20_160).allow(null).required().messages({
      'number.greater': 'Enter more than 0 minutes.',
      'number.max': 'Enter two weeks at most.',
    }),
  }),
  timerEnd: Joi.object({ of: id().required(), reason: optionalLine(200) }),
  finding: Joi.object({
    assemblyId: id().required(),
    position: Joi.string().max(60).allow(null).required(),
    what: optionalLine(80),
    sort: Joi.string()
      .valid(...findingSortKeys)
      .required(),
    damages: Joi.array()
      .items(Joi.string().valid(...damageKeys))
      .unique()
      .max(damageKeys.length)
      .required(),
    extent: Joi.string()
      .valid('', ...Object.keys(extents))
      .default(''),
    disposition: Joi.string()
      .valid(...dispositionKeys)
      .required(),
    words: optionalLine(300),
  }),
  photo: Joi.object({
    photoId: id().required(),
    caption: optionalLine(200),
    assemblyId: id().allow(null).default(null),
    position: Joi.string().max(60).allow(null).default(null),
  }),
  measured: Joi.object({
    assemblyId: id().required(),
    position: Joi.string().max(60).allow(null).default(null),
    what: because('Say what was measured.'),
    value: Joi.number().min(-1e6).max(1e7).required().messages({ 'number.base': 'Enter what was measured.' }),
    unit: line(20).required().messages({ 'string.empty': 'Say in which unit.' }),
    how: optionalLine(80),
    words: optionalLine(200),
  }),
  lock: Joi.object({
    name: because('Say whose lock it is.'),
    goes: Joi.string().valid('on', 'off').required(),
    reason: optionalLine(300),
  }),
  left: Joi.object({
    toId: id().allow(null).default(null),
    toName: optionalLine(60),
    words: optionalLine(500),
  }),
  joined: Joi.object({ words: optionalLine(300) }),
}

/** The list that a device posts. What is in it is checked one by one, so that one bad entry is not all. */
export const sentEntriesSchema = Joi.array<unknown[]>()
  .items(Joi.any())
  .min(1)
  .max(mostEntriesAtOnce)
  .required()
  .messages({
    'array.base': 'Send a list of entries.',
    'any.required': 'Send a list of entries.',
    'array.min': 'Send at least one entry.',
    'array.max': `Send at most ${mostEntriesAtOnce} entries at once.`,
  })

/** One entry of that list; its payload has a schema of its own. */
export const sentEntrySchema = Joi.object<SentEntry>({
  id: id().required(),
  authorId: id().required().messages({
    'any.required':
      'It does not say who made it: this page is older than Atelier. Load the page again; nothing is lost.',
  }),
  deviceId: id().required(),
  deviceSeq: Joi.number().integer().min(1).max(2_000_000_000).required(),
  seenUpTo: Joi.number().integer().min(0).max(2_000_000_000).required(),
  // A clock may be years out; what no date can hold is no time.
  deviceTime: Joi.string()
    .max(40)
    .isoDate()
    .custom((value: string, helpers) =>
      Number.isNaN(Date.parse(value)) || Math.abs(Date.parse(value)) > 7.2e12
        ? helpers.error('string.isoDate')
        : value,
    )
    .required(),
  stepKey: Joi.string().max(300).allow(null).default(null),
  kind: Joi.string()
    .valid(...Object.keys(payloadSchemas))
    .required(),
  payload: Joi.object().unknown().default({}),
})

/** Why a coordinator takes in what an author cannot send any more. */
export const takeInReasonSchema = because('Say why they cannot send it themselves.')

export type StartSheetInput = { id: string; visitId: string }
export const startSheetSchema = Joi.object<StartSheetInput>({ id: id().required(), visitId: id().required() })

export type UnplannedSheetInput = {
  id: string
  items: { assemblyId: string; task: string; path?: string | null; positions: string[] }[]
  trouble: string
}
export const unplannedSheetSchema = Joi.object<UnplannedSheetInput>({
  id: id().required(),
  items: Joi.array()
    .items(bookedItem())
    .min(1)
    .required()
    .messages({ 'array.min': 'Choose at least one service.' }),
  trouble: line(300).required().messages({ 'string.empty': 'Say what happened.' }),
})

export type SignatureInput = {
  /** The id of the signing entry: sent twice, it signs once. */
  id: string
  sheetId: string
  /** The newest entry that the signer has seen. */
  seenUpTo: number
  ended: Omit<EndedLife, 'reached'>[]
  note: string
  /** After how many hours of work somebody looks at it again; left out, the company's usual. */
  earlyCheckHours?: number | string | null
}
export const signatureSchema = Joi.object<SignatureInput>({
  id: id().required(),
  sheetId: id().required(),
  seenUpTo: Joi.number().integer().min(0).required(),
  ended: Joi.array()
    .items(
      Joi.object({
        ...position,
        endReason: Joi.string()
          .valid(...Object.keys(endReasons))
          .required()
          .messages({
            'any.only': 'Say why the old part came out.',
            'string.empty': 'Say why the old part came out.',
          }),
        seenFailingOn: optionalDay(),
      }),
    )
    .required(),
  note: note(1000),
  earlyCheckHours: Joi.any().custom((input: unknown, helpers) => {
    if (input == null || input === '') return null
    const parsed = parseNumber(String(input), 1)
    if (!parsed.ok) return helpers.message({ custom: parsed.reason })
    return parsed.value >= 1 && parsed.value <= 1000
      ? parsed.value
      : helpers.message({ custom: 'Enter 1 to 1000 hours.' })
  }),
})

/** Further work found on the way, or another way of doing what is not begun. */
export type MoreWorkInput = {
  sheetId: string
  /** The newest entry that was seen: what came in since may change what is left. */
  seenUpTo: number
  items: { assemblyId: string; task: string; path?: string | null; positions: string[] }[]
  reason: string
}
export const moreWorkSchema = Joi.object<MoreWorkInput>({
  sheetId: id().required(),
  seenUpTo: Joi.number().integer().min(0).required(),
  items: Joi.array()
    .items(
      Joi.object({
        assemblyId: id().required(),
        task: Joi.string().max(40).required(),
        path: Joi.string().max(40).allow(null, '').empty('').default(null),
        positions: Joi.array().items(Joi.string().max(60)).min(1).required(),
      }),
    )
    .min(1)
    .required()
    .messages({ 'array.min': 'Choose what is to be done besides.' }),
  reason: because('Say what was found.'),
})

export type AbandonInput = { id: string; version: number; reason: string }
export const abandonSchema = Joi.object<AbandonInput>({
  id: id().required(),
  version: version().required(),
  reason: because('Say why, for the record.'),
})

export type CorrectionInput = { id: string; sheetId: string } & Correction
const correction = (fields: SchemaMap) =>
  Joi.object({
    id: id().required(),
    sheetId: id().required(),
    about: Joi.string(),
    of: id().required(),
    reason: because('Say why, for the record.'),
    ...fields,
  }).prefs({ stripUnknown: true })

export const correctionSchema = Joi.alternatives().conditional(Joi.ref('.about'), {
  switch: [
    {
      is: 'words',
      then: correction({
        text: Joi.string().trim().max(1000).required().messages({ 'string.empty': 'Say what is right.' }),
      }),
    },
    {
      is: 'part',
      then: correction({
        quantity: Joi.number().min(0).max(100_000).precision(3).required().messages({
          'number.base': 'Enter how much was used.',
        }),
      }),
    },
    {
      is: 'endReason',
      then: correction({
        ...position,
        endReason: Joi.string()
          .valid(...Object.keys(endReasons))
          .required()
          .messages({ 'any.only': 'Say why the old part came out.' }),
      }),
    },
    { is: 'notRenewed', then: correction(position) },
  ],
  otherwise: Joi.object({
    about: Joi.any()
      .valid('words', 'part', 'endReason', 'notRenewed')
      .required()
      .messages({ 'any.only': 'Choose what to correct.' }),
  }).unknown(),
}) as unknown as Schema<CorrectionInput>
