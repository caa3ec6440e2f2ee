'use server'

import type {
  AbandonInput,
  CorrectionInput,
  MoreWorkInput,
  SignatureInput,
  StartSheetInput,
  UnplannedSheetInput,
} from '@/core/sheets'
import { correctSheet as correct, addWork, signSheet as sign } from '@/services/sheets'
import * as sheets from '@/services/sheets'
import { act } from '../../access/act'

export async function startSheet(input: StartSheetInput) {
  return act((actor) => sheets.startSheet(actor, input))
}
export async function startUnplannedSheet(input: UnplannedSheetInput) {
  return act((actor) => sheets.startUnplannedSheet(actor, input))
}
export async function abandonSheet(input: AbandonInput) {
  return act((actor) => sheets.abandonSheet(actor, input))
}
export async function addMoreWork(input: MoreWorkInput) {
  return act((actor) => addWork(actor, input))
}
export async function signSheet(input: SignatureInput) {
  return act((actor) => sign(actor, input))
}
export async function correctSheet(input: CorrectionInput) {
  return act((actor) => correct(actor, input))
}
