'use server'

import type { PublishInput, PumpModelInput, SettleDoubtInput } from '@/core/fleet'
import type { PracticeInput } from '@/core/practices'
import type { RetireToolInput, ToolInput } from '@/core/tools'
import * as publishing from '@/services/models'
import * as practices from '@/services/practices'
import * as models from '@/services/models'
import * as tools from '@/services/tools'
import { act } from '../../access/act'

export async function savePumpModel(input: PumpModelInput) {
  return act((actor) => models.savePumpModel(actor, input))
}

export async function deletePumpModel(input: { id: string; version: number }) {
  return act((actor) => models.deletePumpModel(actor, input))
}

export async function settleDoubt(input: SettleDoubtInput) {
  return act((actor) => models.settleDoubt(actor, input))
}

export async function previewPumpModel(text: string) {
  return act((actor) => publishing.previewPumpModel(actor, text))
}

export async function publishPumpModel(input: PublishInput) {
  return act((actor) => publishing.publishPumpModel(actor, input))
}

export async function withLookedUp(modelId: string) {
  return act((actor) => publishing.withLookedUp(actor, modelId))
}

export async function choosePractice(input: PracticeInput) {
  return act((actor) => practices.choosePractice(actor, input))
}

export async function saveTool(input: ToolInput) {
  return act((actor) => tools.saveTool(actor, input))
}

export async function retireTool(input: RetireToolInput) {
  return act((actor) => tools.retireTool(actor, input))
}
