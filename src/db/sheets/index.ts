export {
  type SheetEntryRow,
  type SheetRow,
  type TaskRecordRow,
  lastEntries,
  sheetEntries,
  sheetPhotos,
  sheets,
  taskRecords,
  tickCounts,
} from './sheets'
