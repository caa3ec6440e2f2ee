export * from './schema'
export {
  storageKinds,
  machineKinds,
  driveKinds,
  driveFact,
  bypassKinds,
  assemblyKinds,
  openingKinds,
} from './choices'
export { nextNumber } from './numbers'
export { kindOfFile, largestDocument, type DocumentInput, type DocumentView } from './documents'
export { documentSchema } from './documentsSchema'
export { fieldName, isWorthShowing, showValue } from './fieldWords'
export type {
  AssemblyPage,
  AssemblyView,
  ChangeLine,
  MachineLine,
  MachinePage,
  MeterPanel,
  PumpModelView,
  ReadingLine,
  SpellView,
  Stay,
  YardView,
} from './views'
