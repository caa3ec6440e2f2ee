'use server'

import type { RetireInput } from '@/core/fleet'
import type { CountInput, PartForm, ReceiptInput } from '@/core/stores'
import * as stores from '@/services/stores'
import { act } from '../../access/act'

export async function savePart(input: PartForm) {
  return act((actor) => stores.savePart(actor, input))
}
export async function receivePart(input: ReceiptInput) {
  return act((actor) => stores.receivePart(actor, input))
}
export async function countPart(input: CountInput) {
  return act((actor) => stores.countPart(actor, input))
}
export async function retirePart(input: RetireInput) {
  return act((actor) => stores.retirePart(actor, input))
}
export async function returnPart(input: { id: string; version: number }) {
  return act((actor) => stores.returnPart(actor, input))
}
