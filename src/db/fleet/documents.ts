import { id, text, whole, table } from '../house'

/** A photo or document of a machine; its file lies in the data folder under its id. */
export type DocumentRow = {
  id: string
  machineId: string
  name: string
  type: 'image/jpeg' | 'application/pdf'
  bytes: number
  status: 'active' | 'removed'
  recordedAt: string
  recordedById: string
  version: number
}

export const documents = table<DocumentRow>('documents', {
  id,
  machineId: text,
  name: text,
  type: text,
  bytes: whole,
  status: text,
  recordedAt: text,
  recordedById: text,
  version: whole,
})
