export {
  type Advised,
  adviceOn,
  aheadOf,
  comingNeeds,
  likelyServices,
  risk,
  usesByPart,
  weeksAhead,
} from './comingNeeds'
export { type LeadTimeOf, loadLeadTimes } from './leadTimes'
export { extendLot, moveByHand, openBottle, openKit } from './moves'
export { endOldPart, keepOldPart, listOldParts } from './oldParts'
export {
  confirmOrder,
  endOrder,
  getOrder,
  listOrders,
  orderFile,
  saveOrder,
  sendOrder,
  takeConfirmation,
} from './orders'
export { pickedForNothing, pickForVisit } from './picks'
export { listPlaceChoices } from './placeChoices'
export { loadOffers } from './placedOrders'
export { type Place, listPlaces, loadPlaces, saveVan } from './places'
export { receiveDelivery } from './receiving'
export {
  afterUses,
  countsIn,
  loadBook,
  missingFor,
  loadStock,
  modelsOfVersions,
  usesOnOpenSheets,
  yardsOfWork,
} from './stock'
export { keepStocktake, listToCount } from './stocktake'
export { countPart, movement, receivePart } from './booking'
export { listStock } from './list'
export { getPart } from './part'
export { listBenchParts, listPartChoices } from './partChoices'
export { retirePart, returnPart, savePart } from './parts'
export { listSuppliers, saveOffer, saveSupplier, takePriceList } from './suppliers'
export { partStockOn, storesValue } from './value'
export { needsOfService } from './partNeeds'
