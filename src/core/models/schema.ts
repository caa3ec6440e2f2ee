import { Joi } from '../problem'
import type { Schema } from 'joi'
import { practiceKeys } from '../practices'
import { unitsOf } from '../units'
import {
  modelKinds,
  orientationFaces,
  orientationTowards,
  partUnits,
  patterns,
  positionSorts,
  qualifications,
  taskKinds,
  treatmentKinds,
  type PumpModel,
} from './types'

const key = () =>
  Joi.string()
    .pattern(/^[a-z][A-Za-z0-9]{0,39}$/)
    // Words that every object has by nature: a list kept under one of them would be somebody else's.
    .invalid(...Object.getOwnPropertyNames(Object.prototype))
    .messages({
      'string.pattern.base': 'A key starts with a small letter and has letters and digits only.',
      'any.invalid': 'This word cannot be a key: choose another.',
    })
const text = (max = 200) => Joi.string().trim().max(max)
const words = (max = 200) => text(max).allow('').default('')
const optionalKey = () => key().allow(null).default(null)
const minutes = () => Joi.number().min(0).max(10_000)
const positive = () => Joi.number().greater(0).max(1e9)
const list = <T>(item: Schema<T>) => Joi.array().items(item).default([])
const synonyms = Joi.array().items(text(60)).default([])

const treatment = Joi.object({
  kind: Joi.string()
    .valid(...treatmentKinds)
    .required(),
  product: words(80),
  amount: words(80),
  surface: words(80),
  setsMinutes: minutes().allow(null).default(null),
  curesMinutes: minutes().allow(null).default(null),
  takes: Joi.object({
    quantity: positive().required(),
    unit: Joi.string().valid('mL', 'g').default('mL'),
    part: optionalKey(),
  })
    .allow(null)
    .default(null),
})
const noTreatment = {
  kind: 'none',
  product: '',
  amount: '',
  surface: '',
  setsMinutes: null,
  curesMinutes: null,
  takes: null,
}
const practiceKey = () => Joi.string().valid(...practiceKeys)
const onlyWhere = Joi.object({
  key: practiceKey().required(),
  is: Joi.array().items(text(40)).min(1).required(),
})
  .allow(null)
  .default(null)
const onlyForFact = Joi.object({
  key: key().required(),
  is: Joi.array().items(text(80)).min(1).required(),
})
  .allow(null)
  .default(null)
const qualification = Joi.string()
  .valid(...qualifications)
  .allow(null)
  .default(null)
const orientation = Joi.object({
  face: Joi.string()
    .valid(...orientationFaces)
    .required(),
  towards: Joi.string()
    .valid(...orientationTowards)
    .required(),
})
  .allow(null)
  .default(null)

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
  orientation,
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
    max: Joi.number().min(0).required(),
  })
    .allow(null)
    .default(null),
  cue: words(),
  fastener: optionalKey(),
  stage: Joi.number().integer().min(1).allow(null).default(null),
  snug: Joi.boolean().default(false),
  places: Joi.string().valid('all', 'free', 'pinned').default('all'),
  crank: words(120),
  photo: Joi.boolean().default(false),
  people: Joi.number().integer().min(1).max(4).default(1),
  helperMinutes: minutes().allow(null).default(null),
  qualification,
  lift: words(),
  gate: Joi.boolean().default(false),
  when: Joi.object({
    question: key().required(),
    is: Joi.alternatives(text(80), Joi.array().items(text(80)).min(1)).required(),
  })
    .allow(null)
    .default(null),
  asks: Joi.object({ question: key().required(), answers: Joi.array().items(text(80)).min(2).required() })
    .allow(null)
    .default(null),
  practice: onlyWhere,
  fact: onlyForFact,
  only: Joi.array().items(Joi.number().integer().min(1).max(200)).unique().default([]),
  withNext: Joi.boolean().default(false),
  temporary: Joi.object({ tool: key().required(), goes: Joi.string().valid('in', 'out').required() })
    .allow(null)
    .default(null),
  setting: Joi.object({ what: text(80).required(), goes: Joi.string().valid('noted', 'putBack').required() })
    .allow(null)
    .default(null),
  lays: optionalKey(),
  slidesOver: optionalKey(),
  fluid: Joi.object({ position: key().required(), goes: Joi.string().valid('out', 'in').required() })
    .allow(null)
    .default(null),
  cleans: Joi.string().valid('threads', 'seats', 'bores').allow(null).default(null),
  builds: optionalKey(),
  fits: optionalKey(),
  locks: Joi.string().valid('on', 'off').allow(null).default(null),
  undo: words(),
  media: words(),
  doubt: words(400),
  own: Joi.boolean().default(false),
})

const useOf = {
  fact: onlyForFact,
  part: key().required(),
  quantity: positive().required(),
  spot: key().required(),
  rule: Joi.string().valid('always', 'onCondition').default('always'),
}
const use = Joi.object(useOf)
const amount = () => positive().allow(null).default(null)

const path = Joi.object({
  key: key().required(),
  name: text(80).required(),
  minutes: minutes().required(),
  renews: Joi.string().valid('always', 'onCondition').default('always'),
  practice: Joi.object({ key: practiceKey().required(), choice: text(40).required() })
    .allow(null)
    .default(null),
  steps: list(step),
  uses: list(use),
})

/** The shape of a pump model. What the pieces say of each other is checked by `parsePumpModel`. */
export const pumpModelDataSchema = Joi.object<PumpModel>({
  format: Joi.valid(1)
    .required()
    .messages({ 'any.only': 'This is format 1; another version of Atelier wrote this model.' }),
  maker: text(60).required(),
  name: text(60).required(),
  kind: Joi.string()
    .valid(...modelKinds)
    .default('pump'),
  design: words(80),
  notice: words(300),
  source: words(120),
  usage: Joi.string().valid('h', 'strokes').default('h'),
  sizes: list(
    Joi.object({
      key: key().required(),
      name: text(60).required(),
      differs: Joi.object().unknown().max(300).default({}),
    }),
  ),
  size: optionalKey(),
  manual: list(
    Joi.object({
      practice: practiceKey().required(),
      choice: text(40).required(),
      source: text(120).required(),
    }),
  ),
  facts: list(
    Joi.object({
      key: key().required(),
      name: text(60).required(),
      question: text(160).required(),
      answers: Joi.array().items(text(80)).min(2).max(8).unique().required(),
    }),
  ),
  wet: Joi.object({
    litres: positive().required(),
    drains: Joi.number().min(0).required(),
    traps: words(),
    source: words(120),
  })
    .allow(null)
    .default(null),
  repeats: list(
    Joi.object({
      key: key().required(),
      name: text(40).required(),
      count: Joi.number().integer().min(1).max(64).required(),
      labels: Joi.array().items(text(40)).max(64),
      oneAtATime: Joi.boolean().default(false),
      inside: Joi.object({
        repeat: key().required(),
        at: Joi.array().items(Joi.number().integer().min(1).max(64)).min(1).required(),
      })
        .allow(null)
        .default(null),
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
      unit: Joi.string()
        .valid(...partUnits)
        .default('piece'),
      synonyms,
      material: words(40),
      oriented: Joi.boolean().default(false),
      consumable: Joi.boolean().default(false),
      doubt: words(300),
    }),
  ),
  fluids: list(
    Joi.object({
      key: key().required(),
      name: text(80).required(),
      position: key().required(),
      grade: words(120),
      litres: positive().required(),
      level: words(),
      source: words(120),
      doubt: words(300),
    }),
  ),
  kits: list(
    Joi.object({
      key: key().required(),
      name: text(80).required(),
      makersNumber: words(40),
      holds: Joi.array()
        .items(Joi.object({ part: key().required(), quantity: positive().required() }))
        .min(1)
        .required()
        .messages({ 'array.min': 'A kit holds something.' }),
    }),
  ),
  tools: list(
    Joi.object({
      key: key().required(),
      name: text(80).required(),
      special: Joi.boolean().default(false),
      temporary: Joi.boolean().default(false),
      removalOnly: Joi.boolean().default(false),
      torqueWrench: Joi.boolean().default(false),
      contingency: Joi.boolean().default(false),
    }),
  ),
  fasteners: list(
    Joi.object({
      key: key().required(),
      name: text(80).required(),
      count: Joi.number().integer().min(1).max(200).required(),
      torque: torque.required(),
      treatment: treatment.default(noTreatment),
      pattern: Joi.string()
        .valid(...patterns)
        .default('single'),
      layout: list(Joi.object({ x: Joi.number().required(), y: Joi.number().required() })),
      retapFirst: Joi.boolean().default(false),
      snugFirst: Joi.boolean().default(false),
      pinned: Joi.array().items(Joi.number().integer().min(1).max(200)).unique().default([]),
      treatedBy: practiceKey().allow(null).default(null),
      extensionMm: positive().allow(null).default(null),
      recheck: Joi.boolean().default(false),
      doubt: words(300),
    }),
  ),
  access: list(
    Joi.object({
      key: key().required(),
      name: text(80).required(),
      parent: optionalKey(),
      needs: list(key()),
      repeat: optionalKey(),
      practice: onlyWhere,
      openMinutes: minutes().required(),
      closeMinutes: minutes().required(),
      open: list(step),
      close: list(step),
      innermost: Joi.string().valid('pressure', 'crankcase').allow(null).default(null),
      stack: list(
        Joi.object({
          part: key().required(),
          pieces: Joi.number().integer().min(1).max(100).default(1),
          orientation,
          note: words(120),
        }),
      ),
      bench: list(Joi.object({ key: key().required(), name: text(80).required(), of: list(key()) })),
      consumes: list(
        Joi.object({
          ...useOf,
          practice: practiceKey().allow(null).default(null),
        }),
      ),
      disturbs: list(
        Joi.object({
          position: key().required(),
          rule: Joi.string().valid('renew', 'onCondition', 'keep').required(),
          why: text(120).required(),
        }),
      ),
    }),
  ),
  tasks: list(
    Joi.object({
      key: key().required(),
      name: text(80).required(),
      kind: Joi.string()
        .valid(...taskKinds)
        .required(),
      at: optionalKey(),
      renewsAt: optionalKey(),
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
      qualification,
      paths: list(path),
    }),
  ),
  makeSafe: list(step),
  makeSafeMinutes: minutes().required(),
  prove: list(step),
  proveMinutes: minutes().required(),
})
