import { Joi, day, id, line, note, timeOfDay, version } from '../problem'

export const visitStates = {
  proposed: 'Proposed',
  booked: 'Booked',
  approved: 'Approved',
  inWork: 'In work',
  waiting: 'Waiting',
  done: 'Done',
  missed: 'Missed',
  cancelled: 'Cancelled',
} as const
export type VisitState = keyof typeof visitStates

/** Whether a visit still stands, so that its services count as booked. */
export function isOpen(state: VisitState): boolean {
  return state !== 'done' && state !== 'missed' && state !== 'cancelled'
}

/** One service of a visit: a task on some positions of one assembly, by the exact version of its model. */
export type VisitItem = {
  assemblyId: string
  modelVersionId: string
  task: string
  /** The way of doing it, where it has several and one was chosen; else the company's practice says. */
  path?: string | null
  positions: string[]
}

/** What a winter visit does, as it stands among the services of its visit. */
export const winterVisits = { lay: 'Make safe for winter', return: 'Back from winter' } as const

export type BookingInput = {
  id: string
  items: { assemblyId: string; task: string; path?: string | null; positions: string[] }[]
  day: string
  startTime: string
  leadId: string
  note: string
  /** Makes a machine safe for winter after its services, or brings it back; blank for neither. */
  winter?: '' | 'lay' | 'return'
  /** Who helps the technician, where it wants more than one. */
  helpers?: string[]
  /** The machine of a winter visit, which may have no other services. */
  machineId?: string | null
}

const when = {
  day: day().required(),
  startTime: timeOfDay().allow('').default(''),
  leadId: id()
    .required()
    .messages({ 'string.empty': 'Choose a technician.', 'any.required': 'Choose a technician.' }),
  note: note(1000),
}

/** People beside the lead. */
export const helpers = () => Joi.array().items(id()).max(10).default([])

export const bookingSchema = Joi.object<BookingInput>({
  id: id().required(),
  items: Joi.array()
    .items(
      Joi.object({
        assemblyId: id().required(),
        task: Joi.string().max(40).required(),
        path: Joi.string().max(40).allow(null).default(null),
        positions: Joi.array().items(Joi.string().max(60)).min(1).required(),
      }),
    )
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

/** The order of work of one yard, booked in one go; `id` is what its visits are named by. */
export type CampaignBookingInput = { id: string; yardId: string; leadId: string; withDue: boolean }
export const campaignBookingSchema = Joi.object<CampaignBookingInput>({
  id: Joi.string().guid().required(),
  yardId: id().required(),
  leadId: when.leadId,
  withDue: Joi.boolean().default(true),
})

export type VisitChangeInput = {
  id: string
  version: number
  day: string
  startTime: string
  leadId: string
  note: string
}
export const visitChangeSchema = Joi.object<VisitChangeInput>({
  id: id().required(),
  version: version().required(),
  ...when,
})

export type CancelInput = { id: string; version: number; reason: string }
export const cancelSchema = Joi.object<CancelInput>({
  id: id().required(),
  version: version().required(),
  reason: line(300).required().messages({ 'string.empty': 'Say why, for the record.' }),
})

/** `0412` */
export function visitNumber(number: number): string {
  return String(number).padStart(4, '0')
}

/** @example showMinutes(102) // '1 h 42 min' */
export function showMinutes(minutes: number): string {
  const whole = Math.round(minutes)
  const hours = Math.floor(whole / 60)
  const rest = whole % 60
  return [hours > 0 ? `${hours}\u00a0h` : '', rest > 0 || hours === 0 ? `${rest}\u00a0min` : '']
    .filter(Boolean)
    .join(' ')
}
