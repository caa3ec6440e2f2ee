import { id, longText, text, whole, table } from '../house'

export type YardRow = {
  id: string
  name: string
  place: string
  note: string
  createdAt: string
  version: number
}

export const yards = table<YardRow>('yards', {
  id,
  name: text,
  place: text,
  note: longText,
  createdAt: text,
  version: whole,
})
