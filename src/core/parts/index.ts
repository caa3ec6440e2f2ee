export {
  dealOut,
  stockOf,
  takeFrom,
  tidy,
  type Demand,
  type Lot,
  type LotStock,
  type Movement,
  type PartStock,
  type Supply,
} from './stock'
export {
  countSchema,
  partSchema,
  partUnits,
  receiptSchema,
  type CountInput,
  type Fit,
  type PartForm,
  type PartInput,
  type PartUnit,
  type ReceiptInput,
} from './schema'
export { showAmount } from './words'
export { comingNeed, type ComingDemand, type ComingNeed, type ComingStock } from './coming'
