export * from './schema'
export { driveFact } from './schema'
export { nextNumber } from './numbers'
export {
  documentSchema,
  kindOfFile,
  largestDocument,
  type DocumentInput,
  type DocumentView,
} from './documents'
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
