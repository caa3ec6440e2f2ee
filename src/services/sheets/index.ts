export { appendEntries, entriesSince, takeInEntries } from './bench/entries'
export { addWork, offersOn } from './bench/moreWork'
export { addSheetPhoto, readSheetPhoto } from './bench/photos'
export { settledTorques } from './history'
export { correctSheet } from './record/corrections'
export { findingsOf } from './record/findings'
export { asEntry, sheetRowsOf } from './rows'
export {
  abandonSheet,
  findSheets,
  type FoundSheets,
  sheetChoices,
  entriesOf,
  getSheet,
  listSheets,
  sheetsOf,
  startSheet,
  startUnplannedSheet,
} from './sheets'
export { getSigning, signSheet } from './signing/signing'
export { prepareDigests } from './digests'
