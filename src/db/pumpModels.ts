import type { PumpModel } from '@/core/pump'
import { id, json, longText, text, whole } from './columns'
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

/** A published version of a model's data. Never changed: a correction is the next version. */
export type PumpModelVersionRow = {
  id: string
  modelId: string
  version: number
  data: PumpModel
  publishedAt: string
  publishedById: string
}

export const pumpModelVersions = table<PumpModelVersionRow>(
  'pump_model_versions',
  { id, modelId: text, version: whole, data: json, publishedAt: text, publishedById: text },
  ['data'],
)
