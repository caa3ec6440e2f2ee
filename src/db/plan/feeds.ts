import { id, text, table, type RowOf, orNull, recorded } from '../house'

export const feeds = table('feeds', {
  id,
  name: text(),
  tokenHash: text(),
  yardId: orNull(text()),
  personId: orNull(text()),
  /** When a calendar last asked for it. */
  readAt: orNull(text()),
  revokedAt: orNull(text()),
  revokedById: orNull(text()),
  ...recorded,
})
/** A private calendar link: of a yard, of a technician, or of everything. */
export type FeedRow = RowOf<typeof feeds>
