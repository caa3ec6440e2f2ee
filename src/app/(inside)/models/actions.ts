'use server'

import type { PumpModelInput } from '@/core/fleet'
import * as models from '@/services/pumpModels'
import { act } from '../../access/act'

export async function savePumpModel(input: PumpModelInput) {
  return act((actor) => models.savePumpModel(actor, input))
}

export async function publishPumpModel(input: { modelId: string; text: string }) {
  return act((actor) => models.publishPumpModel(actor, input))
}
