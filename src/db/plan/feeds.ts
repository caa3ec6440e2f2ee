import { id, text, table } from '../house'

/** A private calendar link: of a yard, of a technician, or of everything. */
export type FeedRow = {
  id: string
  name: string
  tokenHash: string
  yardId: string | null
  personId: string | null
  /** When a calendar last asked for it. */
  readAt: string | null
  revokedAt: string | null
  revokedById: string | null
  recordedAt: string
  recordedById: string
}

export const feeds = table<FeedRow>('feeds', {
  id,
  name: text,
  tokenHash: text,
  yardId: text,
  personId: text,
  readAt: text,
  revokedAt: text,
  revokedById: text,
  recordedAt: text,
  recordedById: text,
})
