export {
  availability,
  openBook,
  serves,
  stockedFor,
  suppliesOf,
  type Availability,
  type Book,
  type Demand,
  type StockedPart,
  type Supply,
} from './availability'
export {
  bookUses,
  countDifference,
  countedOut,
  takenByOpen,
  type CountedBin,
  type NotedUse,
} from './openUses'
export { stockOf, takeFrom, tidy, type Lot, type LotStock, type Movement, type PartStock } from './stock'
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
export {
  coverNeed,
  type Cover,
  type CoverKit,
  type CoverPrices,
  type CoverRequest,
  type FreeLot,
  type Wanted,
} from './cover'
export type { ComingNeed } from './coming'
export type { MovementLine, PartAhead, PartChoice, PartPage, StockLine } from './views'
export {
  orderAdvice,
  projectStock,
  stockOn,
  type LikelyUse,
  type OrderAdvice,
  type OrderTerms,
  type StockAhead,
  type StockOnDay,
} from './projection'
