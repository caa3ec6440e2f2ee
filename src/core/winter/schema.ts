import { Joi, id, version, optionalDay, optionalLine, line, note, day } from '../problem'
import { parseNumber } from '../units'
import { keys, fluidNames, soldNames, winterNoteNames } from './choices'
import { type CircuitElement, type Zone, elementKinds, zones } from './circuit'
import { type Method, methodsFor, methodNames } from './methods'
import { type Turning, turnings } from './sheet'

type Limits = { min?: number; max?: number; blank?: boolean; decimals?: number }
/** A figure as typed, with a decimal comma or point; blank is null where it may be. */
export const figure = (says: string, { min, max, blank = false, decimals = 3 }: Limits = {}) =>
  Joi.any().custom((input: unknown, helpers) => {
    if (input === null || input === undefined || String(input).trim() === '')
      return blank ? null : helpers.message({ custom: says })
    const parsed = parseNumber(String(input), decimals)
    if (!parsed.ok) return helpers.message({ custom: parsed.reason })
    if ((min !== undefined && parsed.value < min) || (max !== undefined && parsed.value > max))
      return helpers.message({ custom: says })
    return parsed.value
  })
export type YardClimateInput = {
  yardId: string
  version?: number
  firstFrost: string | null
  firstSpreadDays: number | null
  lastFrost: string | null
  lastSpreadDays: number | null
  designLowC: number | null
  heatedStandsC: number | null
  heatedReason: string
  hallStandsC: number | null
  hallReason: string
  outdoorsStandsC: number | null
  outdoorsReason: string
  heatedSpace: boolean
}
const stands = () =>
  figure('Enter a temperature from −60 to 10 °C; blank is never.', { min: -60, max: 10, blank: true })
export const yardClimateSchema = Joi.object<YardClimateInput>({
  yardId: id().required(),
  version: version(),
  firstFrost: optionalDay(),
  firstSpreadDays: figure('Enter 1 to 60 days.', { min: 1, max: 60, blank: true }),
  lastFrost: optionalDay(),
  lastSpreadDays: figure('Enter 1 to 60 days.', { min: 1, max: 60, blank: true }),
  designLowC: figure('Enter a temperature from −60 to 5 °C.', { min: -60, max: 5, blank: true }),
  heatedStandsC: stands(),
  heatedReason: optionalLine(200),
  hallStandsC: stands(),
  hallReason: optionalLine(200),
  outdoorsStandsC: stands(),
  outdoorsReason: optionalLine(200),
  heatedSpace: Joi.boolean().default(false),
}).custom((input: YardClimateInput, helpers) => {
  const half = (one: unknown, other: unknown) => (one === null) !== (other === null)
  if (half(input.firstFrost, input.firstSpreadDays) || half(input.lastFrost, input.lastSpreadDays))
    return helpers.message({ custom: 'A day of frost and how many days either way it lies belong together.' })
  if (half(input.firstFrost, input.lastFrost))
    return helpers.message({ custom: 'Enter the first and the last frost, or neither.' })
  return input
})

export type MinimaInput = { yardId: string; fileName: string; text: string; unit: 'C' | 'F' | null }
export const minimaSchema = Joi.object<MinimaInput>({
  yardId: id().required(),
  fileName: optionalLine(120),
  text: Joi.string()
    .max(4_000_000)
    .required()
    .messages({ 'string.max': 'The file is longer than any yard’s minima.' }),
  unit: Joi.string().valid('C', 'F').allow(null).default(null),
})

export type CircuitInput = {
  machineId: string
  version?: number
  /** `cost` is what freezing a piece would cost, as typed in whole money; it goes before `costCents`. */
  elements: (CircuitElement & { cost?: number | null })[]
  methods: Partial<Record<Zone, { method: Method; reason: string }>>
  turning: Turning
  fuelTankLitres: number | null
  /** It works through winter: what is done every evening; blank where it is laid up. */
  evening: '' | 'indoors' | 'drained' | 'fluid'
  eveningReason: string
}

const element = Joi.object<CircuitInput['elements'][number]>({
  id: Joi.string().trim().min(1).max(40).required(),
  kind: Joi.string()
    .valid(...keys(elementKinds))
    .required(),
  name: optionalLine(60),
  litres: figure('Enter litres, 0 to 50 000.', { min: 0, max: 50_000, blank: true }),
  boreMm: figure('Enter a bore from 1 to 300 mm.', { min: 1, max: 300, blank: true }),
  lengthM: figure('Enter a length from 0 to 1000 m.', { min: 0, max: 1000, blank: true }),
  drains: Joi.boolean().default(true),
  drainsLitres: figure('Enter litres, 0 or more.', { min: 0, max: 50_000, blank: true }),
  traps: optionalLine(120),
  costCents: figure('Enter what it would cost, 0 or more.', { min: 0, max: 1e9, blank: true }),
  cost: figure('Enter what it would cost, 0 or more.', { min: 0, max: 1e7, blank: true, decimals: 2 }),
})
export const circuitSchema = Joi.object<CircuitInput>({
  machineId: id().required(),
  version: version(),
  elements: Joi.array().items(element).max(60).unique('id').required().messages({
    'array.unique': 'Two pieces have the same name here.',
  }),
  methods: Joi.object(
    Object.fromEntries(
      zones.map((zone) => [
        zone,
        Joi.object({
          method: Joi.string()
            .valid(...methodsFor[zone])
            .required(),
          reason: line(200).required().messages({ 'string.empty': 'Say why this machine differs.' }),
        }),
      ]),
    ),
  ).default({}),
  turning: Joi.string()
    .valid(...keys(turnings))
    .required(),
  fuelTankLitres: figure('Enter litres, 0 to 5000.', { min: 0, max: 5000, blank: true }),
  evening: Joi.string().valid('', 'indoors', 'drained', 'fluid').default(''),
  eveningReason: optionalLine(200),
})

export type AntifreezeInput = {
  id: string
  version?: number
  name: string
  fluid: 'propylene' | 'ethylene' | 'alcohol'
  sold: 'concentrate' | 'ready'
  contentPercent: number | null
  freezesAtC: number | null
  burstsAtC: number | null
  packLitres: number
  price: string
  partId: string | null
  note: string
}
export const antifreezeSchema = Joi.object<AntifreezeInput>({
  id: id().required(),
  version: version(),
  name: line(60).required(),
  fluid: Joi.string()
    .valid(...keys(fluidNames))
    .required(),
  sold: Joi.string()
    .valid(...keys(soldNames))
    .required(),
  contentPercent: figure('Enter 1 to 100 %.', { min: 1, max: 100, blank: true }),
  freezesAtC: figure('Enter a temperature from −80 to 0 °C.', { min: -80, max: 0, blank: true }),
  burstsAtC: figure('Enter a temperature from −100 to 0 °C.', { min: -100, max: 0, blank: true }),
  packLitres: figure('Enter litres, more than 0.', { min: 0.01, max: 5000 }),
  price: Joi.any(),
  partId: id().allow('', null).empty('').default(null),
  note: note(500),
})

export type WinterTermsInput = {
  version?: number
  productId: string | null
  riskPercent: number
  marginC: number
  runOnPercent: number
  hourCost: string
  protectorCost: string
  refillable: boolean
  alarmC: number
  weatherUrl: string
  /** Crew of each yard: how many people, minutes of each a day, and on which weekdays (1 Monday to 7). */
  crews: { yardId: string; people: number; minutes: number; days: number[] }[]
}
export const winterTermsSchema = Joi.object<WinterTermsInput>({
  version: version(),
  productId: id().allow('', null).empty('').default(null),
  riskPercent: figure('Enter a risk from 0.1 to 50 %.', { min: 0.1, max: 50 }),
  marginC: figure('Enter 0 to 20 °C.', { min: 0, max: 20 }),
  runOnPercent: figure('Enter 0 to 300 %.', { min: 0, max: 300 }),
  hourCost: Joi.any(),
  protectorCost: Joi.any(),
  refillable: Joi.boolean().default(false),
  alarmC: figure('Enter 0 to 10 °C.', { min: 0, max: 10 }),
  weatherUrl: Joi.string()
    .trim()
    .max(300)
    .allow('')
    .uri({ scheme: ['http', 'https'] })
    .default('')
    .messages({
      'string.uri': 'Enter an address that begins with http:// or https://.',
      'string.uriCustomScheme': 'Enter an address that begins with http:// or https://.',
    }),
  crews: Joi.array()
    .items(
      Joi.object({
        yardId: id().required(),
        people: figure('Enter 0 to 50 people.', { min: 0, max: 50, decimals: 1 }),
        minutes: figure('Enter 0 to 1440 minutes.', { min: 0, max: 1440 }),
        days: Joi.array().items(Joi.number().integer().min(1).max(7)).unique().max(7).default([]),
      }),
    )
    .max(100)
    .default([]),
})

/** What somebody tells of a machine by hand; the winter sheet tells the same by itself. */
export type WinterNoteInput = {
  id: string
  machineId: string
  kind: 'protected' | 'proof' | 'water' | 'thawed' | 'left' | 'returned' | 'evening' | 'damage'
  zone: Zone | ''
  method: Method | ''
  day: string
  measuredC: number | null
  passed: boolean
  litres: number | null
  words: string
}
export const winterNoteSchema = Joi.object<WinterNoteInput>({
  id: id().required(),
  machineId: id().required(),
  kind: Joi.string()
    .valid(...keys(winterNoteNames))
    .required(),
  zone: Joi.string()
    .valid('', ...zones)
    .default(''),
  method: Joi.string()
    .valid('', ...keys(methodNames))
    .default(''),
  day: day().required(),
  measuredC: figure('Enter a temperature from −80 to 20 °C.', { min: -80, max: 20, blank: true }),
  passed: Joi.boolean().default(false),
  litres: figure('Enter litres, 0 or more.', { min: 0, max: 5000, blank: true }),
  words: note(500),
}).custom((input: WinterNoteInput, helpers) => {
  const needsZone = input.kind === 'protected' || input.kind === 'proof' || input.kind === 'left'
  if (needsZone && input.zone === '') return helpers.message({ custom: 'Choose the zone.' })
  if (input.kind === 'protected' && input.method === '')
    return helpers.message({ custom: 'Choose what was done.' })
  if ((input.kind === 'thawed' || input.kind === 'damage') && input.words === '')
    return helpers.message({ custom: 'Say what was looked at, and what was found.' })
  return input
})

/** A night that was colder than anybody thought: it concerns every machine that stood in the yard. */
export type FrostNightInput = { id: string; yardId: string; day: string; minC: number }
export const frostNightSchema = Joi.object<FrostNightInput>({
  id: id().required(),
  yardId: id().required(),
  day: day().required(),
  minC: figure('Enter a temperature from −60 to 5 °C.', { min: -60, max: 5 }),
})
