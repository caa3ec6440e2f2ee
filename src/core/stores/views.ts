import type { LotStock } from './stock'
import type { StockState } from './buckets'
import type { MovementKind, PartInput, PartUnit } from './schema'
import type { Supply } from './availability'
import type { LeadTime } from './deliveries'
import type { OrderAdvice, StockOnDay } from './projection'

/** A part as the list of the stores shows it. */
export type StockLine = Omit<PartInput, 'version'> & {
  version: number
  retiredOn: string | null
  retiredReason: string
  /** Days until it is there if it is ordered today: from whoever sells it soonest. */
  comesWithin: number
  onHand: number
  /** What open sheets have taken: in the book until they are signed, but not in the bin. */
  taken: number
  expired: number
  /** Used beyond the book: count this bin. */
  short: number
  /** What lies elsewhere than on a shelf: picked, in vans, in quarantine. */
  elsewhere: { state: StockState; quantity: number }[]
  /** By yard, what lies on its shelves and in its vans, where there is more than one yard. */
  byYard: { yard: string; quantity: number }[]
  /** What is on its way. */
  onTheWay: number
  /** What unopened kits hold of it. */
  inClosedKits: number
  /** Pieces left in opened packs. */
  openPack: number
  lots: number
  /** What the open visits need, and how much of it is not there. */
  needed: number
  missing: number
  /** Something missing would come after the visit's day, even if it were ordered today. */
  tooLate: boolean
  below: boolean
  fitsModels: string[]
}

/** So much of a lot in one place, with the names that a page shows. */
export type HeldLine = {
  lotId: string
  lot: number
  placeId: string
  place: string
  state: StockState
  visitId: string | null
  visit: number | null
  quantity: number
}

export type LotLine = LotStock & {
  code: string
  unitCents: number | null
  note: string
  curedOn: string | null
  expiryAssumed: boolean
  openedOn: string | null
  /** Our number of the kit it came out of. */
  kitLot: number | null
  held: HeldLine[]
}

export type MovementLine = {
  id: string
  kind: MovementKind
  quantity: number
  day: string
  lot: number | null
  sheetId: string | null
  sheetNumber: number | null
  /** State and place. */
  where: string
  reason: string
  by: string
}

export type PartPage = StockLine & {
  lotList: LotLine[]
  movements: MovementLine[]
  visits: (Supply & { number: string; fromWords: string })[]
  offers: {
    id: string
    version: number
    supplierId: string
    supplier: string
    supplierNumber: string
    unitCents: number
    packSize: number
    minimumOrder: number
    /** What the supplier says of this part; null where it says one for all. */
    said: number | null
    lead: LeadTime
  }[]
  onOrder: { orderId: string; order: number; supplier: string; quantity: number; day: string }[]
  /** What a kit holds, and which kits hold it. */
  pieces: { partId: string; number: string; name: string; quantity: number }[]
  inKits: { partId: string; number: string; name: string; quantity: number }[]
  standsFor: { partId: string; number: string; words: string }[]
  replacedBy: { partId: string; number: string; words: string }[]
  history: { id: string; day: string; by: string; summary: string; reason: string }[]
}

/** A part of a pump model that a stocked part can serve as. */
export type PartChoice = {
  modelId: string
  part: string
  model: string
  name: string
  unit: PartUnit
}

/** What will be wanted of a part, and how its stock stands week by week. */
export type PartAhead = {
  weeks: StockOnDay[]
  advice: OrderAdvice | null
  /** The chance of running short that is taken. */
  risk: number
  /** What takes it, soonest first: visits surely, services with the chance that they fall due until the last of the weeks. */
  uses: {
    key: string
    /** A visit's number, or the service and where it is done. */
    words: string
    visitId: string | null
    assemblyId: string | null
    day: string | null
    quantity: number
    chance: number
  }[]
}
