import type { LotStock } from './stock'
import type { StockState } from './buckets'
import type { MovementKind, PartInput, PartUnit } from './schema'
import type { Supply } from './availability'
import type { LeadTime } from './deliveries'
import type { Chase, OrderState } from './orders'
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
  /** Whoever to order from, and how long it takes from there; null where nobody is known to sell it. */
  supplier: string | null
  lead: LeadTime | null
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

export type SupplierLine = {
  id: string
  version: number
  name: string
  leadDays: number
  leastCents: number
  contact: string
  note: string
  retiredOn: string | null
  orders: number
  offers: {
    id: string
    version: number
    partId: string
    number: string
    name: string
    unit: PartUnit
    supplierNumber: string
    unitCents: number
    packSize: number
    minimumOrder: number
    said: number | null
    lead: LeadTime
  }[]
}

/** An order as the list shows it. */
export type OrderListLine = {
  id: string
  version: number
  number: number
  supplierId: string
  supplier: string
  yardId: string
  yard: string
  state: OrderState
  /** Something of it came in, and something is still to come. */
  inPart: boolean
  sentOn: string | null
  lines: number
  cents: number
  /** When the last of it is reckoned to come; null for what does not come. */
  comesOn: string | null
  chase: Chase | null
}

export type OrderPage = OrderListLine & {
  note: string
  endReason: string
  hurryCents: number
  currency: string
  leastCents: number
  contact: string
  lineList: {
    id: string
    line: number
    partId: string
    number: string
    name: string
    makersNumber: string
    unit: PartUnit
    supplierNumber: string
    quantity: number
    unitCents: number
    neededBy: string | null
    late: boolean
    confirmed: number | null
    promisedOn: string | null
    calledOff: number
    received: number
    open: number
    comesOn: string
    answer: string
    ages: boolean
  }[]
  deliveries: { id: string; noteNumber: string; receivedOn: string; differences: string; by: string }[]
  history: { id: string; day: string; by: string; summary: string; reason: string }[]
}

/** An order that needs only a signature, with why. */
export type ProposedLine = {
  partId: string
  number: string
  name: string
  unit: PartUnit
  supplierNumber: string
  quantity: number
  unitCents: number
  orderBy: string
  neededBy: string
  late: boolean
  along: boolean
  why: string
}
export type OrderProposal = {
  supplierId: string
  supplier: string
  lines: ProposedLine[]
  cents: number
  belowLeast: number
}
/** What wants to be ordered and nobody is known to sell. */
export type Unsold = {
  partId: string
  number: string
  name: string
  quantity: number
  unit: PartUnit
  orderBy: string
}

/** One line of a pick list. */
export type PickLine = {
  key: string
  partId: string
  number: string
  name: string
  unit: PartUnit
  bin: string
  place: string
  lotId: string
  placeId: string
  lot: string
  expiresOn: string | null
  quantity: number
  leftOver: boolean
}
export type PickPage = {
  visitId: string
  number: number
  version: number
  day: string
  startTime: string | null
  where: string
  yard: string
  lead: string
  take: PickLine[]
  open: (PickLine & { pieces: { partId: string; number: string; name: string; quantity: number }[] })[]
  /** Out of a kit that another visit of the list opens first. */
  afterOpening: { number: string; name: string; quantity: number; unit: PartUnit }[]
  short: {
    partId: string
    number: string
    name: string
    unit: PartUnit
    quantity: number
    earliestDay: string
    inTime: boolean
    /** What is free for it in other yards and can be there in time: to be brought over. */
    transfers: { lotId: string; lot: number; placeId: string; place: string; quantity: number }[]
    /** Where to. */
    toPlaceId: string
    /** Who else holds some: on other shelves, or picked for other visits. */
    elsewhere: string[]
  }[]
  unknown: { name: string; quantity: number; unit: string }[]
  picked: (HeldLine & { partId: string; number: string; name: string; unit: PartUnit; code: string })[]
  spares: { name: string; unit: string; quantity: number; likely: string; there: string }[]
  /** Bottles and tubes, and which of them is there; blank where the stores know none of that name. */
  consumables: { name: string; amount: string; there: string; short: boolean }[]
  tools: string[]
}

export type StocktakeLine = {
  partId: string
  number: string
  name: string
  unit: PartUnit
  bin: string
  packSize: number
  unitCents: number
  lotId: string
  lot: number
  code: string
  expired: boolean
  onHand: number
  taken: number
}

export type OldPartLine = {
  id: string
  number: number
  sheetId: string
  sheetNumber: number
  sheetOpen: boolean
  name: string
  place: string
  quantity: number
  until: 'job' | 'claim'
  reason: string
  since: string
  endedOn: string | null
  ending: string
}

export type ValuePage = {
  currency: string
  day: string
  since: string
  byPlace: { place: string; cents: number }[]
  cents: number
  expiredCents: number
  scrappedCents: number
  expired: {
    partId: string
    number: string
    name: string
    lot: number
    expiresOn: string
    cents: number
    quantity: number
    unit: PartUnit
  }[]
  hurried: {
    orderId: string
    order: number
    supplier: string
    sentOn: string
    lines: string
    hurryCents: number
    cents: number
  }[]
  hurryCents: number
}
