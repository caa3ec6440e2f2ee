import { id, longText, text, whole, table, type RowOf } from '../house'

export const yards = table('yards', {
  id,
  name: text(),
  place: text(),
  note: longText(),
  createdAt: text(),
  version: whole(),
})
export type YardRow = RowOf<typeof yards>
