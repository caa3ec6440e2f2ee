import { type MeterInput, meterFields } from '../hours'
import { line, Joi, id, version, optionalLine, note, optionalDay, day, timeOfDay } from '../problem'
import { type Quantity, quantitySchema, parseNumber } from '../units'
import {
  machineKinds,
  storageKinds,
  driveKinds,
  bypassKinds,
  keys,
  assemblyKinds,
  openingKinds,
} from './choices'
import type { Schema } from 'joi'

/** A machine or assembly number: short, unique, what is painted on the side. */
const fleetNumber = () =>
  line(12)
    .uppercase()
    .pattern(/^[A-Za-z0-9](?:[A-Za-z0-9./-]*[A-Za-z0-9])?$/)
    .messages({ 'string.pattern.base': 'Use letters, digits and hyphens, such as T-04.' })

export type YardInput = { id: string; version?: number; name: string; place: string; note: string }

export const yardSchema = Joi.object<YardInput>({
  id: id().required(),
  version: version(),
  name: line(60).required(),
  place: optionalLine(120),
  note: note(),
})

export type MachineInput = {
  id: string
  version?: number
  number: string
  name: string
  kind: keyof typeof machineKinds
  yardId: string
  bay: string
  /** Who takes it out, as people say it: "crew 2"; blank where it is nobody's own. */
  crew: string
  storage: keyof typeof storageKinds
  inServiceSince: string | null
  drive: keyof typeof driveKinds
  driveName: string
  drivePower: Quantity | null
  workingPressure: Quantity | null
  flow: Quantity | null
  hoseLength: Quantity | null
  hoseBore: Quantity | null
  tankVolume: Quantity | null
  bypass: keyof typeof bypassKinds
  note: string
}

const machineFields = {
  number: fleetNumber().required(),
  name: line(80).required(),
  kind: Joi.string()
    .valid(...keys(machineKinds))
    .required(),
  yardId: id().required().messages({ 'string.empty': 'Choose a yard.', 'any.required': 'Choose a yard.' }),
  bay: optionalLine(40),
  crew: optionalLine(40),
  storage: Joi.string()
    .valid(...keys(storageKinds))
    .required(),
  inServiceSince: optionalDay(),
  drive: Joi.string()
    .valid(...keys(driveKinds))
    .required(),
  driveName: optionalLine(80),
  drivePower: quantitySchema('power', { min: 100, max: 2e6, says: 'a power between 0.1 and 2000 kW' }),
  workingPressure: quantitySchema('pressure', {
    min: 1e5,
    max: 7e8,
    says: 'a pressure between 1 and 7000 bar',
  }),
  flow: quantitySchema('flow', {
    min: 0.05e-3 / 60,
    max: 2000e-3 / 60,
    says: 'a flow between 0.05 and 2000 L/min',
  }),
  hoseLength: quantitySchema('length', { min: 0.1, max: 1000, says: 'a length between 0.1 and 1000 m' }),
  hoseBore: quantitySchema('length', { min: 0.001, max: 0.2, says: 'a bore between 1 and 200 mm' }),
  tankVolume: quantitySchema('volume', { min: 0, max: 50, says: 'a volume up to 50 000 L' }),
  bypass: Joi.string()
    .valid(...keys(bypassKinds))
    .default('tank'),
  note: note(),
}

export const machineSchema = Joi.object<MachineInput>({
  id: id().required(),
  version: version(),
  ...machineFields,
})

/** Where an assembly is: fitted to a machine and counted by one of its meters, or on a yard's shelf. */
export type PlaceInput =
  | {
      where: 'machine'
      machineId: string
      slot: string
      meterId: string
      /** 0 to 1 after checking; typed as a percentage. */
      share: number
      shareBasis: 'own' | 'assumed' | 'measured'
    }
  | { where: 'shelf'; yardId: string; bin: string }

const percentage = Joi.any().custom((input: unknown, helpers) => {
  const parsed = parseNumber(String(input ?? '').replace('%', ''))
  if (!parsed.ok || parsed.value <= 0 || parsed.value > 100) {
    return helpers.message({ custom: 'Enter a share from 1 to 100 %.' })
  }
  return parsed.value / 100
})

const fittedFields = {
  where: Joi.string().valid('machine').required(),
  slot: line(40).allow('').default(''),
  meterId: id().required().messages({
    'any.required': 'Choose the meter that counts it.',
    'string.empty': 'Choose the meter that counts it.',
  }),
  share: percentage.default(1),
  shareBasis: Joi.string().valid('own', 'assumed', 'measured').default('assumed'),
}

export const placeSchema = Joi.alternatives<PlaceInput>().conditional(Joi.ref('.where'), {
  is: 'shelf',
  then: Joi.object({
    where: Joi.string(),
    yardId: id().required().messages({ 'string.empty': 'Choose a yard.', 'any.required': 'Choose a yard.' }),
    bin: optionalLine(40),
  }),
  otherwise: Joi.object({
    ...fittedFields,
    machineId: id()
      .required()
      .messages({ 'string.empty': 'Choose a machine.', 'any.required': 'Choose a machine.' }),
  }),
})

export type AssemblyInput = {
  id: string
  version?: number
  number: string
  kind: keyof typeof assemblyKinds
  /** A pump's model; null for an accessory whose model is not written down. */
  modelId: string | null
  /** What an accessory is; blank for a pump, whose model says it. */
  name: string
  serial: string
  usageScale: 'h' | 'strokes'
  openingKind: keyof typeof openingKinds
  openingUsage: number
  takenOverOn: string
  note: string
}

/** Hours as typed, into a number. */
const usage = Joi.any()
  .custom((input: unknown, helpers) => {
    if (input == null || input === '') return 0
    const parsed = parseNumber(String(input), 2)
    if (!parsed.ok) return helpers.message({ custom: parsed.reason })
    if (parsed.value < 0 || parsed.value > 1e9)
      return helpers.message({ custom: 'Enter the hours on it, 0 or more.' })
    return parsed.value
  })
  .default(0)

const assemblyFields = {
  number: fleetNumber().required(),
  kind: Joi.string()
    .valid(...keys(assemblyKinds))
    .required(),
  modelId: Joi.when('kind', {
    is: 'pump',
    then: id()
      .required()
      .messages({ 'string.empty': 'Choose a pump model.', 'any.required': 'Choose a pump model.' }),
    otherwise: id().empty('').allow(null).default(null),
  }),
  // A pump's model says what it is, and so does that of what drives or heats it, where it has one.
  name: Joi.when('kind', {
    is: 'pump',
    then: optionalLine(80),
    otherwise: Joi.when('modelId', {
      is: Joi.string().guid().required(),
      then: optionalLine(80),
      otherwise: line(80)
        .required()
        .messages({ 'string.empty': 'Say what it is, such as “unloader” or “two-cylinder diesel”.' }),
    }),
  }),
  serial: optionalLine(40),
  usageScale: Joi.string().valid('h', 'strokes').default('h'),
  openingKind: Joi.string()
    .valid(...keys(openingKinds))
    .required(),
  openingUsage: usage.when('openingKind', {
    is: Joi.valid('known', 'assumed'),
    then: Joi.any().custom((value: number, helpers) =>
      value > 0 ? value : helpers.message({ custom: 'Enter the hours it had, or choose another answer.' }),
    ),
    otherwise: Joi.any().custom(() => 0),
  }),
  takenOverOn: day().required(),
  note: note(),
}

export const assemblySchema = Joi.object<AssemblyInput>({
  id: id().required(),
  version: version(),
  ...assemblyFields,
})

/** Moving an assembly: where to, and from when. */
export type MoveInput = {
  id: string
  assemblyId: string
  version: number
  day: string
  time: string
  /** What the meter it leaves showed then, and the one that counts it from then on; blank: not read. */
  offTyped?: string
  onTyped?: string
  place: PlaceInput
  reason: string
}

/** The newest move of an assembly, taken back. */
export const undoMoveSchema = Joi.object<{ assemblyId: string; fittingId: string }>({
  assemblyId: id().required(),
  fittingId: id().required(),
})
  .prefs({ stripUnknown: true })
  .required()

export const moveSchema = Joi.object<MoveInput>({
  id: id().required(),
  assemblyId: id().required(),
  version: version().required(),
  day: day().required(),
  time: timeOfDay().required(),
  offTyped: optionalLine(40),
  onTyped: optionalLine(40),
  place: placeSchema.required(),
  reason: optionalLine(300),
})

/** A whole new assembly and the place it starts at. */
export type NewAssemblyInput = AssemblyInput & { place: PlaceInput }
export const newAssemblySchema = Joi.object<NewAssemblyInput>({
  id: id().required(),
  ...assemblyFields,
  place: placeSchema.required(),
})

/** A new machine, with its first meter and, if it has one already, its pump. */
export type NewMachineInput = MachineInput & {
  meter: MeterInput & { firstTyped: string; firstDay: string }
  pump:
    | (Omit<AssemblyInput, 'kind' | 'name'> & {
        slot: string
        share: number
        shareBasis: 'own' | 'assumed' | 'measured'
      })
    | null
}

const { kind: _kind, name: _name, modelId: _modelId, ...pumpFields } = assemblyFields

export const newMachineSchema = Joi.object<NewMachineInput>({
  id: id().required(),
  ...machineFields,
  meter: Joi.object({
    id: id().required(),
    ...meterFields,
    firstTyped: line(40).allow('').default(''),
    firstDay: day().required(),
  }).required(),
  pump: Joi.object({
    id: id().required(),
    ...pumpFields,
    modelId: id()
      .required()
      .messages({ 'string.empty': 'Choose a pump model.', 'any.required': 'Choose a pump model.' }),
    slot: fittedFields.slot,
    share: fittedFields.share,
    shareBasis: fittedFields.shareBasis,
  })
    .allow(null)
    .default(null),
})

/** Another meter, or another share of it, counts a fitted assembly from an instant on. */
export type DutyInput = {
  id: string
  assemblyId: string
  version: number
  day: string
  time: string
  meterId: string
  share: number
  shareBasis: 'own' | 'assumed' | 'measured'
  reason: string
}

export const dutySchema = Joi.object<DutyInput>({
  id: id().required(),
  assemblyId: id().required(),
  version: version().required(),
  day: day().required(),
  time: timeOfDay().required(),
  meterId: fittedFields.meterId,
  share: fittedFields.share,
  shareBasis: fittedFields.shareBasis,
  reason: line(300).required().messages({ 'string.empty': 'Say what it was measured or judged by.' }),
})

export type RetireInput = { id: string; version: number; reason: string }
export const retireSchema = Joi.object<RetireInput>({
  id: id().required(),
  version: version().required(),
  reason: line(300).required().messages({ 'string.empty': 'Say why, for the record.' }),
})

export type PumpModelInput = {
  id: string
  version?: number
  maker: string
  name: string
  design: string
  note: string
}

export const pumpModelSchema = Joi.object<PumpModelInput>({
  id: id().required(),
  version: version(),
  maker: line(60).required(),
  name: line(60).required(),
  design: optionalLine(80),
  note: note(),
})

export type SettleDoubtInput = { id: string; modelId: string; words: string; answer: string }
export const settleDoubtSchema = Joi.object<SettleDoubtInput>({
  id: id().required(),
  modelId: id().required(),
  words: Joi.string().max(1000).required(),
  answer: line(300).required().messages({ 'string.empty': 'Say what was found out, and where.' }),
})

/** A model's data as it was pasted or read from a file, and what its publisher had seen. */
export type PublishInput = {
  text: string
  /** The newest version of each model that the publisher saw, by "Maker Name"; 0 for a new one. */
  seen?: Record<string, number>
  /** What is new, for the list of versions. */
  news?: string
}
/** A model's data as text. */
export const modelTextSchema = Joi.string().max(2_000_000).required().messages({
  'string.empty': 'Choose a file, or paste the model’s JSON data.',
  'string.max': 'This is too long for a pump model: at most two million characters.',
}) as Schema<string>

export const publishSchema = Joi.object<PublishInput>({
  text: modelTextSchema,
  seen: Joi.object().pattern(Joi.string(), Joi.number().integer().min(0)).default({}),
  news: optionalLine(300),
})

/** Whose changes are asked for: a machine's, or those of a pump or accessory. */
export type ChangesAbout = { machineId: string } | { assemblyId: string }

export const changesAboutSchema = Joi.object<ChangesAbout>({ machineId: id(), assemblyId: id() }).xor(
  'machineId',
  'assemblyId',
)
