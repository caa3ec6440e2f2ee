import type { LotStock } from './stock'
import type { PartInput, PartUnit } from './schema'
import type { Supply } from './availability'
import type { OrderAdvice, StockOnDay } from './projection'

/** A part as the list of the stores shows it. */
export type StockLine = Omit<PartInput, 'version'> & {
  version: number
  retiredOn: string | null
  retiredReason: string
  onHand: number
  /** What open sheets have taken: in the book until they are signed, but not in the bin. */
  taken: number
  expired: number
  /** Used beyond the book: count this bin. */
  short: number
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

export type LotLine = LotStock & { code: string; unitCents: number | null; note: string }

export type MovementLine = {
  id: string
  kind: 'receipt' | 'use' | 'count' | 'correction'
  quantity: number
  day: string
  lot: number | null
  sheetId: string | null
  sheetNumber: number | null
  reason: string
  by: string
}

export type PartPage = StockLine & {
  lotList: LotLine[]
  movements: MovementLine[]
  visits: (Supply & { number: string })[]
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
