import { id, text, whole, table, type RowOf, recorded } from '../house'

export const documents = table('documents', {
  id,
  machineId: text(),
  name: text(),
  type: text<'image/jpeg' | 'application/pdf'>(),
  bytes: whole(),
  status: text<'active' | 'removed'>(),
  ...recorded,
  version: whole(),
})
/** A photo or document of a machine; its file lies in the data folder under its id. */
export type DocumentRow = RowOf<typeof documents>
