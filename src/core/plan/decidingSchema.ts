import { Joi, id, day, version } from '../problem'
import type { WeighInput, OpenDecisionInput, DecisionForm, ApproveInput, PinInput } from './deciding'

const items = () =>
  Joi.array()
    .items(
      Joi.object({
        assemblyId: id().required(),
        task: Joi.string().max(40).required(),
        positions: Joi.array().items(Joi.string().max(60)).min(1).max(400).required(),
      }),
    )
    .min(1)
    .max(400)
    .required()
    .messages({ 'array.min': 'Choose at least one service.' })

export const weighSchema = Joi.object<WeighInput>({
  machineId: id().required(),
  visitId: id().allow(null).default(null),
  day: day().allow(null).default(null),
  leadId: id().allow(null).default(null),
  helperId: id().allow(null).default(null),
  items: items(),
})
export const openDecisionSchema = Joi.object<OpenDecisionInput>({
  machineId: id().required(),
  visitId: id().allow(null).default(null),
})
export const decisionSchema = Joi.object<DecisionForm>({
  on: id().allow('').default(''),
  day: day().required(),
  leadId: id()
    .required()
    .messages({ 'string.empty': 'Choose a technician.', 'any.required': 'Choose a technician.' }),
  helperId: id().allow('').default(''),
  items: items(),
})
export const approveSchema = Joi.object<ApproveInput>({
  visits: Joi.array()
    .items(Joi.object({ id: id().required(), version: version().required() }))
    .min(1)
    .max(500)
    .unique('id')
    .required()
    .messages({ 'array.min': 'Choose at least one visit.' }),
  approve: Joi.boolean().required(),
})
export const pinSchema = Joi.object<PinInput>({
  id: id().required(),
  version: version().required(),
  pinned: Joi.boolean().required(),
})
