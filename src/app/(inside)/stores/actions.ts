'use server'

import type { RetireInput } from '@/core/fleet'
import type {
  ConfirmationFileInput,
  ConfirmInput,
  CountInput,
  DeliveryInput,
  EndOrderInput,
  ExtendInput,
  KeepOldInput,
  MoveInput,
  OfferInput,
  OpenBottleInput,
  OpenKitInput,
  OrderInput,
  PartForm,
  PickInput,
  PriceListInput,
  ReceiptInput,
  SendInput,
  StocktakeInput,
  SupplierInput,
  VanInput,
} from '@/core/stores'
import * as stores from '@/services/stores'
import { act, look } from '../../access/act'

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
export async function moveByHand(input: MoveInput) {
  return act((actor) => stores.moveByHand(actor, input))
}
export async function openKit(input: OpenKitInput) {
  return act((actor) => stores.openKit(actor, input))
}
export async function openBottle(input: OpenBottleInput) {
  return act((actor) => stores.openBottle(actor, input))
}
export async function extendLot(input: ExtendInput) {
  return act((actor) => stores.extendLot(actor, input))
}
export async function partStockOn(partId: string, day: string) {
  return look((actor) => stores.partStockOn(actor, partId, day))
}
export async function saveVan(input: VanInput) {
  return act((actor) => stores.saveVan(actor, input))
}
export async function saveSupplier(input: SupplierInput) {
  return act((actor) => stores.saveSupplier(actor, input))
}
export async function saveOffer(input: OfferInput) {
  return act((actor) => stores.saveOffer(actor, input))
}
export async function takePriceList(input: PriceListInput) {
  return act((actor) => stores.takePriceList(actor, input))
}
export async function saveOrder(input: OrderInput) {
  return act((actor) => stores.saveOrder(actor, input))
}
export async function sendOrder(input: SendInput) {
  return act((actor) => stores.sendOrder(actor, input))
}
export async function confirmOrder(input: ConfirmInput) {
  return act((actor) => stores.confirmOrder(actor, input))
}
export async function takeConfirmation(input: ConfirmationFileInput) {
  return act((actor) => stores.takeConfirmation(actor, input))
}
export async function receiveDelivery(input: DeliveryInput) {
  return act((actor) => stores.receiveDelivery(actor, input))
}
export async function endOrder(input: EndOrderInput) {
  return act((actor) => stores.endOrder(actor, input))
}
export async function pickForVisit(input: PickInput) {
  return act((actor) => stores.pickForVisit(actor, input))
}
export async function keepStocktake(input: StocktakeInput) {
  return act((actor) => stores.keepStocktake(actor, input))
}
export async function keepOldPart(input: KeepOldInput) {
  return act((actor) => stores.keepOldPart(actor, input))
}
export async function endOldPart(input: { id: string; ending: string }) {
  return act((actor) => stores.endOldPart(actor, input))
}
