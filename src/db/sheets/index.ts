export {
  type SheetEntryRow,
  type SheetRow,
  type TaskRecordRow,
  lastEntries,
  sheetDigests,
  sheetEntries,
  sheetPhotos,
  sheets,
  taskRecords,
  tickCounts,
  undigestedSheets,
} from './sheets'
