import { Joi, id, line } from '../problem'

/** A private calendar link: of one yard, of one technician, or of everything where neither is named. */
export type FeedInput = { id: string; name: string; yardId: string | null; personId: string | null }

const optionalId = () => id().allow(null, '').empty('').default(null)

export const feedSchema = Joi.object<FeedInput>({
  id: id().required(),
  name: line(80).required().messages({ 'string.empty': 'Say whose calendar it goes into.' }),
  yardId: optionalId(),
  personId: optionalId(),
})

export type FeedView = {
  id: string
  name: string
  /** "Harbour yard", "M. Osei", "Harbour yard, M. Osei", or "everything". */
  of: string
  madeBy: string
  madeOn: string
  /** When a calendar last asked for it; null: never. */
  readOn: string | null
  revoked: { by: string; day: string } | null
}
