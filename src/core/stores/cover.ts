import type { Day } from '../calendar'
import { tidy } from './stock'

/** So much of one part. */
export type Wanted = { part: string; quantity: number }

/** What lies free in one lot: nothing in it is promised to others. */
export type FreeLot = {
  lot: string
  part: string
  quantity: number
  expiresOn: Day | null
  /** A piece left over from a kit or pack that was opened: such are used up first. */
  leftOver?: boolean
}

/** A kit of unlike pieces: what it holds, and the unopened ones that lie free. */
export type CoverKit = {
  kit: string
  pieces: Wanted[]
  lots: { lot: string; quantity: number; expiresOn: Day | null }[]
}

/** In whole cents: a piece bought loose and a kit bought whole; what has no price is not for sale. */
export type CoverPrices = {
  parts: {
    [part: string]: {
      cents: number
      pack?: number
      /** It has a price, and nobody buys it now. */ notForSale?: true
    }
  }
  kits: { [kit: string]: number }
}

export type CoverRequest = {
  need: Wanted[]
  stock: FreeLot[]
  kits: CoverKit[]
  prices: CoverPrices
  /** The day of the visit: what has expired by then covers nothing. */
  onDay: Day
  /** Work that comes after it: so much of a part, by that day. What is left over is worth something to it. */
  dueWork?: (Wanted & { by: Day })[]
}

export type Cover = {
  take: { lot: string; part: string; quantity: number }[]
  /** Kits of the stores to open, with the pieces that this visit takes out of each. */
  open: { kit: string; kitLot: string; pieces: Wanted[] }[]
  buy: ({ part: string; quantity: number } | { kit: string; quantity: number })[]
  /** What cannot be had: not enough of it lies there, and nobody sells it. */
  missing: Wanted[]
  /** Price of all that is taken, opened or bought, less what is left over for due work. */
  cents: number
  leftOver: (Wanted & { expiresOn: Day | null; worthCents: number })[]
}

/**
 * How a visit's need is covered at least cost: which lots to take from, which kits to open, what to buy.
 *
 * What is taken, opened or bought costs its price; a kit costs the whole of it. Pieces left over are worth
 * their loose price as far as due work will use them before they expire. Of equal covers the one that
 * buys least stands, then the one that uses up left-over pieces, then what expires soonest. What is good
 * today and not on the day of the visit covers nothing.
 *
 * Exact: every number of kits that could be opened or bought is tried, except what can no longer be the
 * cheapest; for given kits what is still wanted of each part stands by itself.
 *
 * @throws RangeError for a quantity that is not more than nothing, and for a kit without pieces
 * @example
 * // six valves, kits of three, two left over of an opened one: one kit is opened, and one bought
 * coverNeed({ need: [{ part: 'valve', quantity: 6 }], … }).open // [{ kit: 'VK-3', pieces: [{ part: 'valve', quantity: 3 }] }]
 */
export function coverNeed(request: CoverRequest): Cover {
  check(request)
  const need = summed(request.need)
  const world = worldOf(request, need)
  const best = cheapest(world)
  return written(world, best)
}

/** One way to come by a kit: out of one lot of the stores, or by buying it. */
type Source = {
  kit: string
  pieces: Map<string, number>
  cents: number
  /** What all its pieces could be worth at most. */
  worth: number
  /** Null where it is bought. */
  lot: string | null
  expiresOn: Day | null
  /** How many there are, and how many of this kit the need could use at all. */
  atMost: number
  ofKit: number
}
type World = {
  need: Map<string, number>
  lots: Map<string, FreeLot[]>
  sources: Source[]
  request: CoverRequest
}
/** What each part comes to for a given number of each kit. */
type Plan = {
  counts: number[]
  missing: number
  cents: number
  bought: number
  fresh: number
  expiry: string
}

function worldOf(request: CoverRequest, need: Map<string, number>): World {
  const isGood = ({ expiresOn }: { expiresOn: Day | null }) =>
    expiresOn === null || expiresOn >= request.onDay
  const lots = new Map<string, FreeLot[]>()
  for (const part of need.keys())
    lots.set(
      part,
      request.stock
        .filter((lot) => lot.part === part && lot.quantity > 0 && isGood(lot))
        .sort((a, b) => Number(b.leftOver ?? false) - Number(a.leftOver ?? false) || bySoonest(a, b)),
    )
  const sources = request.kits.flatMap(({ kit, pieces, lots: own }): Source[] => {
    const holds = summed(pieces)
    const useful = [...holds].filter(([part]) => need.has(part))
    if (useful.length === 0) return []
    // More of them than the part that wants most would be bought for the shelf, which orders are for.
    const ofKit = Math.max(...useful.map(([part, each]) => Math.ceil(tidy(need.get(part)! / each))))
    const price = request.prices.kits[kit]
    const worth = looseWorth(holds, request.prices)
    const source = { kit, pieces: holds, cents: price ?? worth, worth, ofKit }
    return [
      ...own
        .filter((lot) => lot.quantity > 0 && isGood(lot))
        .sort(bySoonest)
        .map(({ lot, quantity, expiresOn }) => ({
          ...source,
          lot,
          expiresOn,
          atMost: Math.min(quantity, ofKit),
        })),
      ...(price === undefined ? [] : [{ ...source, lot: null, expiresOn: null, atMost: ofKit }]),
    ]
  })
  return { need, lots, sources, request }
}

/** A kit that nobody sells is worth what its pieces cost. */
const looseWorth = (pieces: Map<string, number>, prices: CoverPrices) =>
  [...pieces].reduce((sum, [part, quantity]) => sum + Math.round(centsOf(prices, part) * quantity), 0)

const centsOf = (prices: CoverPrices, part: string) => prices.parts[part]?.cents ?? 0

function cheapest(world: World): Plan {
  const { sources } = world
  // The least that the sources from here on can add: where what they leave over is worth more than they cost.
  const gains = sources.map(({ atMost, cents, worth }) => Math.min(0, atMost * (cents - worth)))
  const gainFrom = sources.map((_, at) => gains.slice(at).reduce((sum, each) => sum + each, 0))
  let best = null as Plan | null
  const counts = sources.map(() => 0)
  const search = (at: number, bound: number) => {
    // What these cost, less all that could be worth anything, is more already than a whole cover costs.
    if (best?.missing === 0 && bound + (gainFrom[at] ?? 0) > best.cents) return
    const source = sources[at]
    if (!source) {
      const plan = planFor(world, counts)
      if (best === null || isBetter(plan, best)) best = plan
      return
    }
    const chosen = counts.reduce((sum, count, no) => sum + (sources[no]!.kit === source.kit ? count : 0), 0)
    for (let count = 0; count <= Math.min(source.atMost, source.ofKit - chosen); count += 1) {
      counts[at] = count
      search(at + 1, bound + count * (source.cents - source.worth))
    }
    counts[at] = 0
  }
  search(0, 0)
  return best!
}

/** What cannot be had at all is worse than any price. */
function isBetter(a: Plan, b: Plan): boolean {
  const by =
    tidy(a.missing - b.missing) || a.cents - b.cents || tidy(a.bought - b.bought) || tidy(a.fresh - b.fresh)
  return by === 0 ? a.expiry < b.expiry : by < 0
}

/** What so many of each source cost in all, with what is then taken and bought loose. */
function planFor(world: World, counts: number[]): Plan {
  const parts = partsFor(world, counts)
  const sumOf = (of: (source: Source) => number) =>
    world.sources.reduce((sum, source, at) => sum + counts[at]! * of(source), 0)
  const sum = (of: (part: PartCover) => number) => parts.reduce((total, part) => total + of(part), 0)
  const opened = world.sources.filter(({ lot }, at) => lot !== null && counts[at]! > 0)
  return {
    counts: [...counts],
    missing: sum((part) => part.missing),
    cents: sumOf(({ cents }) => cents) + sum((part) => part.cents),
    bought: sumOf(({ lot }) => Number(lot === null)) + sum((part) => part.bought),
    fresh: sumOf(() => 1) + sum((part) => part.fresh),
    expiry: [...parts.map((part) => part.firstExpiry), ...opened.map(({ expiresOn }) => expiresOn ?? '9999')]
      .sort()
      .join(),
  }
}

type PartCover = {
  part: string
  cents: number
  bought: number
  missing: number
  /** Taken out of lots that are no left-over. */
  fresh: number
  firstExpiry: string
  taken: { lot: string; quantity: number }[]
  fromKits: number
  leftOver: { quantity: number; expiresOn: Day | null; worthCents: number }[]
}

function partsFor({ need, lots, sources, request }: World, counts: number[]): PartCover[] {
  const held = new Map<string, { quantity: number; expiresOn: Day | null }[]>()
  sources.forEach(({ pieces, expiresOn }, at) => {
    if (counts[at] === 0) return
    for (const [part, quantity] of pieces) {
      const list = held.get(part) ?? []
      list.push({ quantity: tidy(quantity * counts[at]!), expiresOn })
      held.set(part, list)
    }
  })
  return [...new Set([...need.keys(), ...held.keys()])].map((part) =>
    partFor(request, part, need.get(part) ?? 0, lots.get(part) ?? [], held.get(part) ?? []),
  )
}

/** One part: pieces of opened kits first, since they are paid for, then lots, then what is bought loose. */
function partFor(
  { prices, dueWork = [] }: CoverRequest,
  part: string,
  wanted: number,
  lots: FreeLot[],
  held: { quantity: number; expiresOn: Day | null }[],
): PartCover {
  const price = prices.parts[part]
  const cents = price?.cents ?? 0
  let left = wanted
  const rest: { quantity: number; expiresOn: Day | null }[] = []
  // What keeps longest is left over.
  for (const each of [...held].sort(bySoonest)) {
    const used = Math.min(left, each.quantity)
    left = tidy(left - used)
    if (each.quantity > used) rest.push({ quantity: tidy(each.quantity - used), expiresOn: each.expiresOn })
  }
  const fromKits = tidy(wanted - left)
  const taken: { lot: string; quantity: number }[] = []
  let fresh = 0
  let firstExpiry = '9999'
  for (const lot of lots) {
    if (left <= 0) break
    const quantity = Math.min(left, lot.quantity)
    taken.push({ lot: lot.lot, quantity })
    left = tidy(left - quantity)
    if (!lot.leftOver) fresh = tidy(fresh + quantity)
    if (lot.expiresOn !== null && lot.expiresOn < firstExpiry) firstExpiry = lot.expiresOn
  }
  const takenSum = tidy(taken.reduce((sum, each) => sum + each.quantity, 0))
  const pack = price?.pack ?? 1
  const isForSale = price !== undefined && !price.notForSale
  const bought = left > 0 && isForSale ? tidy(Math.ceil(tidy(left / pack)) * pack) : 0
  const missing = isForSale ? 0 : left
  if (bought > left) rest.push({ quantity: tidy(bought - left), expiresOn: null })
  const leftOver = worthOf(
    rest,
    dueWork.filter((work) => work.part === part),
    cents,
  )
  return {
    part,
    cents:
      Math.round(takenSum * cents) +
      Math.round(bought * cents) -
      leftOver.reduce((sum, each) => sum + each.worthCents, 0),
    bought,
    missing,
    fresh,
    firstExpiry,
    taken,
    fromKits,
    leftOver,
  }
}

/** What is left over, and how much of it due work will use before it expires: soonest to expire first. */
function worthOf(
  rest: { quantity: number; expiresOn: Day | null }[],
  dueWork: { quantity: number; by: Day }[],
  cents: number,
): PartCover['leftOver'] {
  const works = dueWork.map((work) => ({ ...work })).sort((a, b) => (a.by < b.by ? -1 : a.by > b.by ? 1 : 0))
  return [...rest].sort(bySoonest).map(({ quantity, expiresOn }) => {
    let used = 0
    for (const work of works) {
      if (expiresOn !== null && work.by > expiresOn) continue
      const share = Math.min(work.quantity, tidy(quantity - used))
      work.quantity = tidy(work.quantity - share)
      used = tidy(used + share)
    }
    return { quantity, expiresOn, worthCents: Math.round(used * cents) }
  })
}

function written(world: World, { counts, cents }: Plan): Cover {
  const parts = partsFor(world, counts)
  const toTake = new Map(parts.map(({ part, fromKits }) => [part, fromKits]))
  const opened: (Cover['open'][number] & { bought: boolean })[] = world.sources
    .flatMap((source, at) => Array.from({ length: counts[at]! }, () => source))
    // As they were reckoned with: what expires soonest gives its pieces first.
    .sort(bySoonest)
    .map((source) => ({
      kit: source.kit,
      kitLot: source.lot ?? '',
      bought: source.lot === null,
      pieces: [...source.pieces].flatMap(([part, each]): Wanted[] => {
        const quantity = Math.min(each, toTake.get(part) ?? 0)
        toTake.set(part, tidy((toTake.get(part) ?? 0) - quantity))
        return quantity > 0 ? [{ part, quantity }] : []
      }),
    }))
  const boughtKits = new Map<string, number>()
  for (const { kit } of opened.filter((each) => each.bought))
    boughtKits.set(kit, (boughtKits.get(kit) ?? 0) + 1)
  return {
    take: parts.flatMap(({ part, taken }) => taken.map((each) => ({ ...each, part }))),
    open: opened.filter((each) => !each.bought).map(({ kit, kitLot, pieces }) => ({ kit, kitLot, pieces })),
    buy: [
      ...[...boughtKits].map(([kit, quantity]) => ({ kit, quantity })),
      ...parts.filter(({ bought }) => bought > 0).map(({ part, bought }) => ({ part, quantity: bought })),
    ],
    missing: parts
      .filter(({ missing }) => missing > 0)
      .map(({ part, missing }) => ({ part, quantity: missing })),
    cents,
    leftOver: parts.flatMap(({ part, leftOver }) => leftOver.map((each) => ({ part, ...each }))),
  }
}

function summed(wanted: Wanted[]): Map<string, number> {
  const sums = new Map<string, number>()
  for (const { part, quantity } of wanted) sums.set(part, tidy((sums.get(part) ?? 0) + quantity))
  return sums
}

function check({ need, kits }: CoverRequest): void {
  for (const { part, quantity } of [...need, ...kits.flatMap((kit) => kit.pieces)])
    if (!(quantity > 0) || !Number.isFinite(quantity))
      throw new RangeError(`${quantity} of ${part} is no quantity.`)
  for (const { kit, pieces } of kits) if (pieces.length === 0) throw new RangeError(`${kit} holds nothing.`)
}

const bySoonest = (a: { expiresOn: Day | null }, b: { expiresOn: Day | null }) => {
  const [x, y] = [a.expiresOn ?? '9999', b.expiresOn ?? '9999']
  return x < y ? -1 : x > y ? 1 : 0
}
