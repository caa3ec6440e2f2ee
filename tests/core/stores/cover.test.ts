import { array, assert, constantFrom, integer, option, property, record } from 'fast-check'
import { coverNeed, type Cover, type CoverRequest } from '@/core/stores'

const onDay = '2026-10-20'
const plain: CoverRequest = {
  need: [],
  stock: [],
  kits: [],
  prices: { parts: {}, kits: {} },
  onDay,
}
const valveKit = { kit: 'VK-3', pieces: [{ part: 'valve', quantity: 3 }] }
const prices = { parts: { valve: { cents: 3000 } }, kits: { 'VK-3': 7500 } }
const cover = (request: Partial<CoverRequest>) => coverNeed({ ...plain, ...request })

// Expected by hand before the first run: the sums stand beside each.
test('six valves from kits of three, one of them opened before with two left', () => {
  const covered = cover({
    need: [{ part: 'valve', quantity: 6 }],
    stock: [{ lot: 'rest', part: 'valve', quantity: 2, expiresOn: null, leftOver: true }],
    kits: [{ ...valveKit, lots: [{ lot: 'k1', quantity: 2, expiresOn: null }] }],
    prices,
  })
  // Two kits cost 150.00; one kit, the two left over (60.00) and one loose (30.00) cost 165.00.
  expect(covered.open.map(({ kitLot, pieces }) => [kitLot, pieces[0]!.quantity])).toEqual([
    ['k1', 3],
    ['k1', 3],
  ])
  expect([covered.take, covered.buy, covered.cents]).toEqual([[], [], 15000])
})

test('five valves: one kit and the two left over, since a second kit would leave one for nobody', () => {
  const covered = cover({
    need: [{ part: 'valve', quantity: 5 }],
    stock: [{ lot: 'rest', part: 'valve', quantity: 2, expiresOn: null, leftOver: true }],
    kits: [{ ...valveKit, lots: [{ lot: 'k1', quantity: 2, expiresOn: null }] }],
    prices,
  })
  // 75.00 + 60.00 = 135.00 against 150.00 for two kits.
  expect(covered.take).toEqual([{ lot: 'rest', part: 'valve', quantity: 2 }])
  expect([covered.open.length, covered.cents, covered.leftOver]).toEqual([1, 13500, []])
})

test('with due work for the one left over two kits are no cheaper, and the left-over pieces go first', () => {
  const covered = cover({
    need: [{ part: 'valve', quantity: 5 }],
    stock: [{ lot: 'rest', part: 'valve', quantity: 2, expiresOn: null, leftOver: true }],
    kits: [{ ...valveKit, lots: [{ lot: 'k1', quantity: 2, expiresOn: null }] }],
    prices,
    dueWork: [{ part: 'valve', quantity: 3, by: '2026-12-01' }],
  })
  // Two kits: 150.00 less one left over worth 30.00 = 120.00; beside 135.00.
  expect([covered.open.length, covered.take, covered.cents]).toEqual([2, [], 12000])
  expect(covered.leftOver).toEqual([{ part: 'valve', quantity: 1, expiresOn: null, worthCents: 3000 }])
})

test('one cylinder only: loose where a kit would cost more, the kit where it costs less', () => {
  const one = { need: [{ part: 'valve', quantity: 1 }], kits: [{ ...valveKit, lots: [] }] }
  expect(cover({ ...one, prices }).buy).toEqual([{ part: 'valve', quantity: 1 }])
  const cheap = { parts: { valve: { cents: 3000 } }, kits: { 'VK-3': 2900 } }
  const covered = cover({ ...one, prices: cheap })
  expect([covered.buy, covered.cents]).toEqual([[{ kit: 'VK-3', quantity: 1 }], 2900])
  expect(covered.leftOver).toEqual([{ part: 'valve', quantity: 2, expiresOn: null, worthCents: 0 }])
})

test('what expires soonest goes first', () => {
  const covered = cover({
    need: [{ part: 'seal', quantity: 3 }],
    stock: [
      { lot: 'late', part: 'seal', quantity: 4, expiresOn: '2031-01-01' },
      { lot: 'soon', part: 'seal', quantity: 2, expiresOn: '2026-11-01' },
    ],
    prices: { parts: { seal: { cents: 400 } }, kits: {} },
  })
  expect(covered.take).toEqual([
    { lot: 'soon', part: 'seal', quantity: 2 },
    { lot: 'late', part: 'seal', quantity: 1 },
  ])
  expect(covered.cents).toBe(1200)
})

test('what is good today and not on the day of the visit covers nothing; on its last day it does', () => {
  const lot = (expiresOn: string) => [{ lot: 'a', part: 'seal', quantity: 5, expiresOn }]
  const need = [{ part: 'seal', quantity: 2 }]
  const sold = { parts: { seal: { cents: 400 } }, kits: {} }
  expect(cover({ need, stock: lot('2026-10-19'), prices: sold })).toMatchObject({
    take: [],
    buy: [{ part: 'seal', quantity: 2 }],
  })
  expect(cover({ need, stock: lot(onDay), prices: sold })).toMatchObject({
    take: [{ lot: 'a', quantity: 2 }],
    buy: [],
  })
})

test('a kit of unlike pieces with one piece already taken: its rest is used and the missing piece bought', () => {
  const service = {
    kit: 'SK-1',
    pieces: [
      { part: 'hpSeal', quantity: 3 },
      { part: 'lpSeal', quantity: 3 },
      { part: 'oring', quantity: 6 },
    ],
    lots: [],
  }
  const covered = cover({
    need: service.pieces,
    stock: [
      { lot: 'open', part: 'hpSeal', quantity: 2, expiresOn: '2030-01-01', leftOver: true },
      { lot: 'open', part: 'lpSeal', quantity: 3, expiresOn: '2030-01-01', leftOver: true },
      { lot: 'open', part: 'oring', quantity: 6, expiresOn: '2030-01-01', leftOver: true },
    ],
    kits: [service],
    prices: {
      parts: { hpSeal: { cents: 2000 }, lpSeal: { cents: 900 }, oring: { cents: 100 } },
      kits: { 'SK-1': 9500 },
    },
  })
  // Loose all of it: 60.00 + 27.00 + 6.00 = 93.00, beside 95.00 for a new kit.
  expect(covered.buy).toEqual([{ part: 'hpSeal', quantity: 1 }])
  expect(covered.take).toHaveLength(3)
  expect(covered.cents).toBe(9300)
})

test('loose pieces sold by the pack come in whole packs', () => {
  const covered = cover({
    need: [{ part: 'oring', quantity: 7 }],
    prices: { parts: { oring: { cents: 50, pack: 5 } }, kits: {} },
  })
  expect([covered.buy, covered.cents, covered.leftOver[0]!.quantity]).toEqual([
    [{ part: 'oring', quantity: 10 }],
    500,
    3,
  ])
})

test('what nobody sells and no lot holds is missing, also where leaving it out would be cheapest', () => {
  const covered = cover({
    need: [{ part: 'valve', quantity: 2 }],
    kits: [{ ...valveKit, lots: [{ lot: 'k1', quantity: 1, expiresOn: null }] }],
  })
  expect([covered.open[0]!.pieces, covered.missing]).toEqual([[{ part: 'valve', quantity: 2 }], []])
  expect(cover({ need: [{ part: 'valve', quantity: 2 }] }).missing).toEqual([{ part: 'valve', quantity: 2 }])
})

test('a left-over piece that expires before due work comes is worth nothing', () => {
  const left = (expiresOn: string) =>
    cover({
      need: [{ part: 'valve', quantity: 2 }],
      kits: [{ ...valveKit, lots: [{ lot: 'k1', quantity: 1, expiresOn }] }],
      prices,
      dueWork: [{ part: 'valve', quantity: 1, by: '2027-01-15' }],
    })
  // 75.00 less 30.00 = 45.00 is less than 60.00 loose; without that worth a new kit, which keeps, is.
  expect(left('2027-01-15')).toMatchObject({ cents: 4500, open: [{ kitLot: 'k1' }], buy: [] })
  expect(left('2027-01-14')).toMatchObject({ cents: 4500, open: [], buy: [{ kit: 'VK-3', quantity: 1 }] })
})

test('nothing and less than nothing is no quantity, and an empty kit no kit', () => {
  for (const quantity of [0, -1, NaN, Infinity])
    expect(() => cover({ need: [{ part: 'valve', quantity }] })).toThrow(RangeError)
  expect(() => cover({ kits: [{ kit: 'none', pieces: [], lots: [] }] })).toThrow('holds nothing')
})

const part = constantFrom('a', 'b', 'c')
const day = constantFrom('2026-10-19', '2026-10-20', '2027-01-01', null)
const pieces = array(record({ part, quantity: integer({ min: 1, max: 3 }) }), { minLength: 1, maxLength: 2 })
const requests = record({
  need: array(record({ part, quantity: integer({ min: 1, max: 2 }) }), { maxLength: 2 }),
  stock: array(
    record({
      lot: constantFrom('l1', 'l2', 'l3'),
      part,
      quantity: integer({ min: 0, max: 3 }),
      expiresOn: day,
      leftOver: constantFrom(true, false),
    }),
    { maxLength: 3 },
  ),
  kits: array(
    record({
      pieces,
      lots: array(
        record({ lot: constantFrom('k1', 'k2'), quantity: integer({ min: 0, max: 2 }), expiresOn: day }),
        { maxLength: 2 },
      ),
    }),
    { maxLength: 2 },
  ).map((kits) =>
    kits.map((kit, at) => ({
      kit: `kit ${at}`,
      ...kit,
      lots: kit.lots.map((each, no) => ({ ...each, lot: `${at} ${each.lot} ${no}` })),
    })),
  ),
  prices: record({
    parts: record({
      a: option(record({ cents: integer({ min: 0, max: 9 }), pack: integer({ min: 1, max: 2 }) }), {
        nil: undefined,
      }),
      b: record({ cents: integer({ min: 1, max: 9 }) }),
      c: record({ cents: integer({ min: 1, max: 9 }) }),
    }).map(({ a, ...others }) => (a ? { a, ...others } : others)),
    kits: record({ 'kit 0': integer({ min: 0, max: 20 }) }),
  }),
  onDay: constantFrom(onDay),
  dueWork: array(
    record({
      part,
      quantity: integer({ min: 1, max: 3 }),
      by: constantFrom('2026-11-01', '2027-01-01', '2027-02-01'),
    }),
    { maxLength: 2 },
  ),
}).map((request): CoverRequest => {
  // Each lot is one of one part.
  const stock = request.stock.map((lot, at) => ({ ...lot, lot: `${lot.lot} ${at}` }))
  return { ...request, stock } as CoverRequest
})

const amounts = (list: { part: string; quantity: number }[]) => {
  const sums: Record<string, number> = {}
  for (const { part: name, quantity } of list) sums[name] = (sums[name] ?? 0) + quantity
  return sums
}

test('law: a cover never counts short, never takes what is not there, and what expired covers nothing', () => {
  assert(
    property(requests, (request) => {
      const covered = coverNeed(request)
      const bought = covered.buy.flatMap((each) =>
        'part' in each
          ? [each]
          : request.kits
              .find(({ kit }) => kit === each.kit)!
              .pieces.map((piece) => ({ part: piece.part, quantity: piece.quantity * each.quantity })),
      )
      const opened = covered.open.flatMap(({ kit }) => request.kits.find((each) => each.kit === kit)!.pieces)
      const all = amounts([...covered.take, ...opened, ...bought, ...covered.missing])
      for (const [name, wanted] of Object.entries(amounts(request.need)))
        expect(all[name] ?? 0).toBeGreaterThanOrEqual(wanted)
      for (const { lot, quantity } of covered.take) {
        const from = request.stock.find((each) => each.lot === lot)!
        expect(quantity).toBeLessThanOrEqual(from.quantity)
        expect((from.expiresOn ?? '9999') >= onDay).toBe(true)
      }
      for (const { kitLot } of covered.open) {
        const lot = request.kits.flatMap(({ lots }) => lots).find((each) => each.lot === kitLot)!
        expect((lot.expiresOn ?? '9999') >= onDay).toBe(true)
        expect(covered.open.filter((each) => each.kitLot === kitLot).length).toBeLessThanOrEqual(lot.quantity)
      }
      // What is left over is what came beyond the need.
      const over = amounts(covered.leftOver)
      for (const name of ['a', 'b', 'c'])
        expect(over[name] ?? 0).toBe(
          Math.max(0, (amounts([...opened, ...bought])[name] ?? 0) - fromKits(covered, request, name)),
        )
    }),
    { numRuns: 400 },
  )
})

/** How much of a part the need takes of what was opened or bought: all that no lot gave. */
function fromKits(covered: Cover, request: CoverRequest, name: string): number {
  const wanted = amounts(request.need)[name] ?? 0
  return wanted - (amounts(covered.take)[name] ?? 0) - (amounts(covered.missing)[name] ?? 0)
}

/** Every way there is, tried one after the other: the cheapest of them, missing as little as can be. */
function exhaustive(request: CoverRequest): { missing: number; cents: number } {
  const good = ({ expiresOn }: { expiresOn: string | null }) => expiresOn === null || expiresOn >= onDay
  const need = amounts(request.need)
  const units = request.kits.flatMap((kit) => [
    ...kit.lots
      .filter(good)
      .flatMap((lot) => Array.from({ length: lot.quantity }, () => ({ kit, expiresOn: lot.expiresOn }))),
    ...(request.prices.kits[kit.kit] === undefined
      ? []
      : Array.from({ length: 4 }, () => ({ kit, expiresOn: null as string | null }))),
  ])
  const loose = (name: string) => request.prices.parts[name]
  // No more of a kit than the part that wants most could use: the rest would be bought for the shelf.
  const atMost = new Map(
    request.kits.map((kit) => [
      kit.kit,
      Math.max(
        0,
        ...Object.entries(amounts(kit.pieces)).map(([name, each]) => Math.ceil((need[name] ?? 0) / each)),
      ),
    ]),
  )
  let best = { missing: Infinity, cents: Infinity }
  for (let subset = 0; subset < 2 ** units.length; subset += 1) {
    const chosen = units.filter((_, at) => subset & (1 << at))
    if (
      request.kits.some(({ kit }) => chosen.filter((each) => each.kit.kit === kit).length > atMost.get(kit)!)
    )
      continue
    let cents = 0
    for (const { kit } of chosen)
      cents +=
        request.prices.kits[kit.kit] ??
        kit.pieces.reduce((sum, piece) => sum + (loose(piece.part)?.cents ?? 0) * piece.quantity, 0)
    let missing = 0
    for (const name of ['a', 'b', 'c']) {
      const price = loose(name)
      const each = chosen.flatMap(({ kit, expiresOn }) =>
        kit.pieces
          .filter((piece) => piece.part === name)
          .flatMap((piece) => Array.from({ length: piece.quantity }, () => expiresOn ?? '9999')),
      )
      each.sort()
      const wanted = need[name] ?? 0
      const rest = each.slice(wanted)
      let left = Math.max(0, wanted - each.length)
      const there = request.stock.filter((lot) => lot.part === name && good(lot))
      const taken = Math.min(
        left,
        there.reduce((sum, lot) => sum + lot.quantity, 0),
      )
      left -= taken
      cents += taken * (price?.cents ?? 0)
      if (price) {
        const pack = price.pack ?? 1
        const bought = Math.ceil(left / pack) * pack
        cents += bought * price.cents
        for (let over = left; over < bought; over += 1) rest.push('9999')
      } else missing += left
      const works = (request.dueWork ?? [])
        .filter((work) => work.part === name)
        .flatMap((work) => Array.from({ length: work.quantity }, () => work.by))
        .sort()
      for (const expiry of rest.sort()) {
        const at = works.findIndex((by) => by <= expiry)
        if (at < 0) continue
        works.splice(at, 1)
        cents -= price?.cents ?? 0
      }
    }
    if (missing < best.missing || (missing === best.missing && cents < best.cents)) best = { missing, cents }
  }
  return best
}

test('law: no cheaper cover exists, by trying every one of a small case', () => {
  assert(
    property(requests, (request) => {
      const covered = coverNeed(request)
      const missing = covered.missing.reduce((sum, { quantity }) => sum + quantity, 0)
      const best = exhaustive(request)
      expect([missing, covered.cents]).toEqual([best.missing, best.cents])
    }),
    { numRuns: 400 },
  )
})
