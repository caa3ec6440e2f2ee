import { id, text, whole, table, type RowOf } from '../house'

export const documents = table('documents', {
  id,
  machineId: text(),
  name: text(),
  type: text<'image/jpeg' | 'application/pdf'>(),
  bytes: whole(),
  status: text<'active' | 'removed'>(),
  recordedAt: text(),
  recordedById: text(),
  version: whole(),
})
/** A photo or document of a machine; its file lies in the data folder under its id. */
export type DocumentRow = RowOf<typeof documents>
