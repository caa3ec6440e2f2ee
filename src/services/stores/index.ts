export { adviceOn, aheadOf, comingNeeds, likelyServices, risk, usesByPart, weeksAhead } from './comingNeeds'
export { type LeadTimeOf, loadLeadTimes } from './leadTimes'
export { listPlaceChoices } from './placeChoices'
export { type Place, listPlaces, loadPlaces, saveVan } from './places'
export {
  afterUses,
  countsIn,
  loadBook,
  missingFor,
  modelsOfVersions,
  usesOnOpenSheets,
  yardsOfWork,
} from './stock'
export {
  countPart,
  getPart,
  listBenchParts,
  listPartChoices,
  listStock,
  movement,
  receivePart,
  retirePart,
  returnPart,
  savePart,
} from './stores'
