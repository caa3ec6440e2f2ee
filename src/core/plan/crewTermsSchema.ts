import { qualifications } from '../models'
import { Joi, day, id, version } from '../problem'
import type { Span, CrewInput, PlanTermsInput } from './crewTerms'

const spans = (most: number) =>
  Joi.array()
    .items(
      Joi.object({
        from: day().required(),
        to: day().required(),
      }).custom((value: Span, helpers) =>
        value.to < value.from ? helpers.message({ custom: 'The last day is before the first.' }) : value,
      ),
    )
    .max(most)
    .default([])

const figure = (words: string, min: number, max: number) =>
  Joi.number()
    .min(min)
    .max(max)
    .required()
    .messages({ 'number.base': words, 'number.min': words, 'number.max': words, 'any.required': words })

export const crewSchema = Joi.object<CrewInput>({
  personId: id().required(),
  version: version(),
  yardId: id().allow('', null).empty('').default(null),
  days: Joi.array().items(Joi.number().integer().min(1).max(7)).unique().max(7).default([]),
  minutes: figure('Enter 0 to 960 minutes.', 0, 960).integer(),
  skills: Joi.array()
    .items(Joi.string().valid(...qualifications))
    .unique()
    .default([]),
  leave: spans(60),
})

export const planTermsSchema = Joi.object<PlanTermsInput>({
  version: version(),
  hourCost: Joi.any(),
  visitCost: Joi.any(),
  downtimeCost: Joi.any(),
  moveCost: Joi.any(),
  freePercent: figure('Enter 0 to 90 %.', 0, 90),
  frozenDays: figure('Enter 0 to 30 days.', 0, 30).integer(),
  benches: Joi.array()
    .items(
      Joi.object({
        yardId: id().required(),
        places: figure('Enter 0 to 200 places, or nothing for no limit.', 0, 200)
          .integer()
          .empty('')
          .allow(null)
          .optional()
          .default(null),
      }),
    )
    .max(200)
    .default([]),
  travel: Joi.array()
    .items(
      Joi.object({
        from: id().required(),
        to: id().required(),
        minutes: figure('Enter 0 to 1440 minutes.', 0, 1440),
      }),
    )
    .max(2000)
    .default([]),
  closed: spans(200),
})
