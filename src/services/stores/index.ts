export { adviceOn, aheadOf, comingNeeds, likelyServices, risk, usesByPart, weeksAhead } from './comingNeeds'
export { type LeadTimeOf, loadLeadTimes } from './leadTimes'
export { listPlaceChoices } from './placeChoices'
export { countsIn, loadBook, missingFor, modelsOfVersions, usesOnOpenSheets } from './stock'
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
