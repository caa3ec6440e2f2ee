import { id, longText, text, whole } from './columns'
import { table } from './table'

export type PumpModelRow = {
  id: string
  maker: string
  name: string
  design: string
  note: string
  createdAt: string
  version: number
}

export const pumpModels = table<PumpModelRow>('pump_models', {
  id,
  maker: text,
  name: text,
  design: text,
  note: longText,
  createdAt: text,
  version: whole,
})
