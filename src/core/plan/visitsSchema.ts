import { day, timeOfDay, id, note, Joi, version, line } from '../problem'
import type { BookingInput, CampaignBookingInput, VisitChangeInput, CancelInput } from './visits'

const when = {
  day: day().required(),
  startTime: timeOfDay().allow('').default(''),
  leadId: id()
    .required()
    .messages({ 'string.empty': 'Choose a technician.', 'any.required': 'Choose a technician.' }),
  note: note(1000),
}

/** One service of a pump that is asked for, with the positions that it is for. */
export const bookedItem = () =>
  Joi.object({
    assemblyId: id().required(),
    task: Joi.string().max(40).required(),
    path: Joi.string().max(40).allow(null).default(null),
    positions: Joi.array().items(Joi.string().max(60)).min(1).required(),
  })

/** People beside the lead. */
export const helpers = () => Joi.array().items(id()).max(10).default([])

export const bookingSchema = Joi.object<BookingInput>({
  id: id().required(),
  items: Joi.array()
    .items(bookedItem())
    .required()
    .when('winter', {
      is: Joi.valid('lay', 'return').required(),
      then: Joi.array(),
      otherwise: Joi.array().min(1),
    })
    .messages({ 'array.min': 'Choose at least one service.' }),
  winter: Joi.string().valid('', 'lay', 'return').default(''),
  machineId: id()
    .allow('', null)
    .empty('')
    .default(null)
    .when('winter', { is: Joi.valid('lay', 'return').required(), then: Joi.required() }),
  helpers: helpers(),
  ...when,
})
export const campaignBookingSchema = Joi.object<CampaignBookingInput>({
  id: Joi.string().guid().required(),
  yardId: id().required(),
  leadId: id().allow('').required(),
  withDue: Joi.boolean().default(true),
})
export const visitChangeSchema = Joi.object<VisitChangeInput>({
  id: id().required(),
  version: version().required(),
  ...when,
})
export const cancelSchema = Joi.object<CancelInput>({
  id: id().required(),
  version: version().required(),
  reason: line(300).required().messages({ 'string.empty': 'Say why, for the record.' }),
})
