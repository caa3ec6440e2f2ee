import Joi from 'joi'
import { unitsOf } from '../units'
import { orientationFaces, orientationTowards, positionSorts, type PumpModel } from './types'

const key = () =>
  Joi.string()
    .pattern(/^[a-z][A-Za-z0-9]{0,39}$/)
    .messages({ 'string.pattern.base': 'A key starts with a small letter and has letters and digits only.' })
const text = (max = 200) => Joi.string().trim().max(max)
const words = (max = 200) => text(max).allow('').default('')
const optionalKey = () => key().allow(null).default(null)
const minutes = () => Joi.number().min(0).max(10_000)
const positive = () => Joi.number().greater(0).max(1e9)
const list = <T>(item: Joi.Schema<T>) => Joi.array().items(item).default([])
const synonyms = Joi.array().items(text(60)).default([])

const treatment = Joi.object({
  kind: Joi.string()
    .valid('none', 'threadLubricant', 'threadlocker', 'sealant', 'assemblyLubricant', 'grease')
    .required(),
  product: words(80),
  amount: words(80),
  setsMinutes: minutes().allow(null).default(null),
  curesMinutes: minutes().allow(null).default(null),
})
const noTreatment = { kind: 'none', product: '', amount: '', setsMinutes: null, curesMinutes: null }

const torque = Joi.object({
  state: Joi.string().valid('stated', 'handTight', 'byFeel', 'notGiven').required(),
  source: words(120),
  value: Joi.when('state', { is: 'stated', then: positive().required(), otherwise: Joi.forbidden() }),
  unit: Joi.when('state', {
    is: 'stated',
    then: Joi.string()
      .valid(...unitsOf('torque'))
      .required(),
    otherwise: Joi.forbidden(),
  }),
  stages: Joi.when('state', {
    is: 'stated',
    then: Joi.array().items(positive()).default([]),
    otherwise: Joi.forbidden(),
  }),
  verified: Joi.when('state', {
    is: 'stated',
    then: Joi.boolean().default(false),
    otherwise: Joi.forbidden(),
  }),
}).messages({ 'any.unknown': 'Only a stated torque has this.' })

const step = Joi.object({
  key: key().required(),
  text: text(400).required(),
  phase: Joi.string().valid('makeSafe', 'stripDown', 'inspect', 'renew', 'rebuild', 'prove').required(),
  repeat: optionalKey(),
  tools: list(key()),
  part: optionalKey(),
  orientation: Joi.object({
    face: Joi.string()
      .valid(...orientationFaces)
      .required(),
    towards: Joi.string()
      .valid(...orientationTowards)
      .required(),
  })
    .allow(null)
    .default(null),
  treatment: treatment.allow(null).default(null),
  caution: words(400),
  timer: Joi.object({
    kind: Joi.string().valid('soak', 'sets', 'cured').required(),
    minutes: positive().required(),
  })
    .allow(null)
    .default(null),
  measure: Joi.object({
    what: text(80).required(),
    unit: text(20).required(),
    min: Joi.number().allow(null).default(null),
    max: Joi.number().allow(null).default(null),
  })
    .allow(null)
    .default(null),
  count: Joi.object({
    what: text(40).required(),
    min: Joi.number().min(0).required(),
    max: Joi.number().min(Joi.ref('min')).required(),
  })
    .allow(null)
    .default(null),
  cue: words(),
  fastener: optionalKey(),
  stage: Joi.number().integer().min(1).allow(null).default(null),
  crank: words(120),
  photo: Joi.boolean().default(false),
  people: Joi.number().integer().min(1).max(4).default(1),
  gate: Joi.boolean().default(false),
  when: Joi.object({ question: key().required(), is: text(80).required() })
    .allow(null)
    .default(null),
  asks: Joi.object({ question: key().required(), answers: Joi.array().items(text(80)).min(2).required() })
    .allow(null)
    .default(null),
  withNext: Joi.boolean().default(false),
  temporary: Joi.object({ tool: key().required(), goes: Joi.string().valid('in', 'out').required() })
    .allow(null)
    .default(null),
  undo: words(),
  media: words(),
  doubt: words(400),
  own: Joi.boolean().default(false),
})

const use = Joi.object({ part: key().required(), quantity: positive().required(), spot: key().required() })
const amount = () => positive().allow(null).default(null)

/** The shape of a pump model. What the pieces say of each other is checked by `parsePumpModel`. */
export const pumpModelDataSchema = Joi.object<PumpModel>({
  format: Joi.valid(1)
    .required()
    .messages({ 'any.only': 'This is format 1; another version of Atelier wrote this model.' }),
  maker: text(60).required(),
  name: text(60).required(),
  design: words(80),
  notice: words(300),
  usage: Joi.string().valid('h', 'strokes').default('h'),
  repeats: list(
    Joi.object({
      key: key().required(),
      name: text(40).required(),
      count: Joi.number().integer().min(1).max(64).required(),
      labels: Joi.array().items(text(40)).length(Joi.ref('count')),
    }),
  ),
  zones: list(Joi.object({ key: key().required(), name: text(40).required() })),
  positions: list(
    Joi.object({
      key: key().required(),
      name: text(80).required(),
      zone: key().required(),
      sort: Joi.string()
        .valid(...positionSorts)
        .default('other'),
      repeat: optionalKey(),
      part: optionalKey(),
      pieces: positive().default(1),
      synonyms,
    }),
  ),
  parts: list(
    Joi.object({
      key: key().required(),
      name: text(80).required(),
      unit: Joi.string().valid('piece', 'L', 'mL').default('piece'),
      synonyms,
      material: words(40),
      doubt: words(300),
    }),
  ),
  tools: list(
    Joi.object({
      key: key().required(),
      name: text(80).required(),
      special: Joi.boolean().default(false),
      temporary: Joi.boolean().default(false),
      removalOnly: Joi.boolean().default(false),
    }),
  ),
  fasteners: list(
    Joi.object({
      key: key().required(),
      name: text(80).required(),
      count: Joi.number().integer().min(1).max(200).required(),
      torque: torque.required(),
      treatment: treatment.default(noTreatment),
      pattern: Joi.string().valid('crissCross', 'centreOut', 'asNumbered', 'single').default('single'),
      layout: list(Joi.object({ x: Joi.number().required(), y: Joi.number().required() })),
      retapFirst: Joi.boolean().default(false),
    }),
  ),
  access: list(
    Joi.object({
      key: key().required(),
      name: text(80).required(),
      parent: optionalKey(),
      repeat: optionalKey(),
      openMinutes: minutes().required(),
      closeMinutes: minutes().required(),
      open: list(step),
      close: list(step),
      consumes: list(use),
    }),
  ),
  tasks: list(
    Joi.object({
      key: key().required(),
      name: text(80).required(),
      kind: Joi.string().valid('renew', 'inspect', 'change', 'adjust').required(),
      at: optionalKey(),
      positions: list(key()),
      limit: Joi.object({
        hours: amount(),
        days: amount(),
        firstHours: amount(),
        firstDays: amount(),
      }).required(),
      tolerance: Joi.object({
        early: Joi.number().min(0).max(0.9).required(),
        late: Joi.number().min(0).max(0.9).required(),
      }).default({
        early: 0.1,
        late: 0.1,
      }),
      minutes: minutes().required(),
      steps: list(step),
      uses: list(use),
    }),
  ),
  makeSafe: list(step),
  makeSafeMinutes: minutes().required(),
  prove: list(step),
  proveMinutes: minutes().required(),
})
