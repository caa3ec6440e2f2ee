'use server'

import type {
  AntifreezeInput,
  CircuitInput,
  FrostNightInput,
  MinimaInput,
  WinterNoteInput,
  WinterTermsInput,
  YardClimateInput,
} from '@/core/winter'
import type { CampaignBookingInput } from '@/core/plan'
import * as plan from '@/services/plan'
import * as winter from '@/services/winter'
import { act } from '../../access/act'

export async function saveClimate(input: YardClimateInput) {
  return act((actor) => winter.saveClimate(actor, input))
}
export async function importMinima(input: MinimaInput) {
  return act((actor) => winter.importMinima(actor, input))
}
export async function askWeather() {
  return act((actor) => winter.askWeather(actor))
}
export async function recordFrost(input: FrostNightInput) {
  return act((actor) => winter.recordFrost(actor, input))
}
export async function saveTerms(input: WinterTermsInput) {
  return act((actor) => winter.saveTerms(actor, input))
}
export async function saveProduct(input: AntifreezeInput) {
  return act((actor) => winter.saveProduct(actor, input))
}
export async function saveCircuit(input: CircuitInput) {
  return act((actor) => winter.saveCircuit(actor, input))
}
export async function recordWinter(input: WinterNoteInput) {
  return act((actor) => winter.recordWinter(actor, input))
}
export async function bookCampaign(input: CampaignBookingInput) {
  return act((actor) => plan.bookCampaign(actor, input))
}
