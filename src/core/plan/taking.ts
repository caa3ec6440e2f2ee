import type { Day } from '../calendar'
import { Joi, day, id, version } from '../problem'

/** What is taken of a plan: visits as they are to be, and those that are cancelled for them. */
export type TakeInput = {
  /** Names the act: sent once more after a cut connection it is the same. */
  id: string
  visits: {
    /** The booked visit that it becomes, as it was read; null for a new one. */
    visitId: string | null
    version: number | null
    day: Day
    leadId: string
    /** Who helps; left out, whoever it was. */
    helpers?: string[]
    /** It makes its machine safe for winter; left out, as it was. */
    winter?: '' | 'lay' | 'return'
    /** The machine of a new winter visit, which may have no services. */
    machineId?: string | null
    items: { assemblyId: string; task: string; positions: string[] }[]
  }[]
  cancel: { id: string; version: number }[]
  restore: { id: string; version: number }[]
  /** It takes another act back: a visit may stand again where it stood, also on a day that has passed. */
  takesBack?: boolean
}

const item = Joi.object({
  assemblyId: id().required(),
  task: Joi.string().max(40).required(),
  positions: Joi.array().items(Joi.string().max(60)).min(1).required(),
})
const reference = Joi.object({ id: id().required(), version: version().required() })

export const takeSchema = Joi.object<TakeInput>({
  id: Joi.string().guid().required(),
  visits: Joi.array()
    .items(
      Joi.object({
        visitId: id().allow(null).default(null),
        version: version().allow(null).default(null),
        day: day().required(),
        leadId: id().required(),
        helpers: Joi.array().items(id()).max(10),
        winter: Joi.string().valid('', 'lay', 'return'),
        machineId: id().allow(null).default(null),
        // A visit of winter may have no services; the service asks for one of any other.
        items: Joi.array().items(item).max(400).required(),
      }),
    )
    .max(2000)
    .required(),
  cancel: Joi.array().items(reference).max(2000).default([]),
  restore: Joi.array().items(reference).max(2000).default([]),
  takesBack: Joi.boolean().default(false),
})
