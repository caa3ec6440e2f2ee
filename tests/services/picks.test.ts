import { v7 as uuid } from 'uuid'
import type { MoveInput } from '@/core/stores'
import { bookVisit, cancelVisit, getVisit, pickListOfVisit, pickListsOfDay } from '@/services/plan'
import {
  extendLot,
  getPart,
  keepStocktake,
  listBenchParts,
  listPlaces,
  listToCount,
  moveByHand,
  openBottle,
  openKit,
  pickedForNothing,
  pickForVisit,
  retirePart,
  savePart,
  saveVan,
} from '@/services/stores'
import { saveYard } from '@/services/fleet'
import { at, workshop, type Workshop } from '../support/bench'
import { problemIn, removeDatabase } from '../support/database'
import { storesOf } from '../support/stores'

let shop: Workshop
const day = '2026-08-03'
const now = <T>(work: () => Promise<T>) => at(day, work)
const stores = storesOf(() => shop, day)
beforeEach(async () => {
  shop = await workshop()
})
afterAll(removeDatabase)

/** A visit that renews the high-pressure seals of some cylinders: so many pieces of `hpSeal`. */
async function visit(on: string, cylinders: number[]): Promise<string> {
  const id = uuid()
  await bookVisit(shop.coordinator, {
    id,
    items: [
      { assemblyId: shop.pumpId, task: 'hpSeals', positions: cylinders.map((each) => `hpSeal@${each}`) },
    ],
    day: on,
    startTime: '',
    leadId: shop.technician.id,
    note: '',
  })
  return id
}
/** How many seals one cylinder takes, by the list itself. */
const perCylinder = async (visitId: string, partId: string) => {
  const list = await pickListOfVisit(shop.viewer, visitId)
  return (
    list.take.filter((line) => line.partId === partId).reduce((sum, { quantity }) => sum + quantity, 0) +
    list.short.filter((line) => line.partId === partId).reduce((sum, { quantity }) => sum + quantity, 0)
  )
}
const takeAll = async (visitId: string) => {
  const list = await pickListOfVisit(shop.viewer, visitId)
  return {
    id: uuid(),
    visitId,
    take: list.take.map(({ lotId, placeId, quantity }) => ({ lotId, placeId, quantity })),
    open: list.open.map(({ lotId, placeId, pieces }) => ({
      lotId,
      placeId,
      pieces: pieces.map(({ partId, quantity }) => ({ partId, quantity })),
    })),
  }
}

test('what is picked is bound to its visit, comes off at its bench first, and goes back when it is called off', () =>
  now(async () => {
    const seal = await stores.part('HP-1', 'hpSeal')
    const old = await stores.lot(seal, 40, { code: 'old' })
    const id = await visit('2026-08-10', [1])
    const each = await perCylinder(id, seal)
    expect(each).toBeGreaterThan(0)
    const input = await takeAll(id)
    await pickForVisit(shop.technician, input)
    // Sent again, it is picked once.
    await pickForVisit(shop.technician, input)
    const page = await getPart(shop.viewer, 'HP-1')
    expect(page).toMatchObject({ onHand: 40 - each, elsewhere: [{ state: 'picked', quantity: each }] })
    // Nothing more is wanted for it, and it is not counted twice.
    expect(page.visits).toEqual([])
    expect(await pickListOfVisit(shop.viewer, id)).toMatchObject({
      take: [],
      short: [],
      picked: [{ quantity: each }],
    })
    const reach = async (visitId: string | null) =>
      (await listBenchParts(shop.technician, visitId))[0]!.lots.map(({ id: lotId, onHand }) => [
        lotId,
        onHand,
      ])
    expect(await reach(id)).toEqual([[old, 40]])
    expect(await reach(null)).toEqual([[old, 40 - each]])
    await cancelVisit(shop.coordinator, { id, version: 1, reason: 'rain' })
    const [left] = await pickedForNothing(shop.viewer)
    expect(left).toMatchObject({ number: 'HP-1', quantity: each, state: 'picked' })
    const back: MoveInput = {
      id: uuid(),
      partId: seal,
      lotId: old,
      placeId: left!.placeId,
      state: 'picked',
      visitId: id,
      act: 'shelve',
      quantity: each,
      toPlaceId: '',
      reason: '',
    }
    await moveByHand(shop.technician, back)
    await moveByHand(shop.technician, back)
    expect((await getPart(shop.viewer, 'HP-1')).onHand).toBe(40)
  }))

test('an earlier visit’s pieces are not picked for a later one, and it is said whose they are', () =>
  now(async () => {
    const seal = await stores.part('HP-1', 'hpSeal')
    const probe = await visit('2026-08-10', [1])
    const each = await perCylinder(probe, seal)
    const lot = await stores.lot(seal, each)
    const later = await visit('2026-08-20', [2])
    const list = await pickListOfVisit(shop.viewer, later)
    expect(list.take).toEqual([])
    expect(list.short).toMatchObject([{ quantity: each, earliestDay: '2026-08-17', inTime: true }])
    expect(list.short[0]!.elsewhere.join()).toContain('reserved for visit')
    const [place] = await listPlaces(shop.viewer)
    const refused = await problemIn(
      pickForVisit(shop.technician, {
        id: uuid(),
        visitId: later,
        take: [{ lotId: lot, placeId: place!.id, quantity: each }],
        open: [],
      }),
    )
    expect(refused.kind).toBe('conflict')
    expect(refused.message).toContain('reserved for visit')
  }))

test('two people after the last piece: one gets it, the other is told who, when and for what', () =>
  now(async () => {
    const seal = await stores.part('HP-1', 'hpSeal')
    const probe = await visit('2026-08-10', [1])
    const each = await perCylinder(probe, seal)
    await stores.lot(seal, each)
    const input = await takeAll(probe)
    const outcomes = await Promise.allSettled([
      pickForVisit(shop.technician, { ...input, id: uuid() }),
      pickForVisit(shop.coordinator, { ...input, id: uuid() }),
    ])
    expect(outcomes.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
    const refused = outcomes.find(({ status }) => status === 'rejected') as PromiseRejectedResult
    const { message } = (refused.reason as { problem: { message: string } }).problem
    expect(message).toMatch(/Visit 0001 wants no more of HP-1: (M\. Osei|H\. Lindqvist) laid \d+ ready/)
    // For another visit, what is gone from the shelf is told with who took it, when and for what.
    const later = await visit('2026-08-11', [2])
    const { message: gone } = await problemIn(
      pickForVisit(shop.coordinator, { ...input, id: uuid(), visitId: later }),
    )
    expect(gone).toMatch(/(M\. Osei|H\. Lindqvist) took .* on 3\sAug\s2026 at \d\d:\d\d, picked for visit/)
    expect((await getPart(shop.viewer, 'HP-1')).onHand).toBe(0)
    // What is laid ready for it is there: nothing is missing on the visit, and no parts are waited for.
    const page = await getVisit(shop.viewer, probe)
    expect(page.parts.find((each) => each.stock?.number === 'HP-1')!.stock).toMatchObject({
      missing: 0,
      inTime: true,
    })
  }))

test('a kit is opened for a visit: its pieces are stock, at their share of its price, good as long as it', () =>
  now(async () => {
    const seal = await stores.part('HP-1', 'hpSeal', { price: '3.00' })
    const ring = await stores.part('OR-1', '', { price: '1.00' })
    const probe = await visit('2026-08-10', [1])
    const each = await perCylinder(probe, seal)
    const kit = await stores.part('K-1', '', {
      price: '10.00',
      contents: [
        { partId: seal, quantity: each + 1 },
        { partId: ring, quantity: 2 },
      ],
    })
    await stores.lot(kit, 1, { expiresOn: '2027-01-31' })
    // Unopened, it covers the visit already.
    expect((await getPart(shop.viewer, 'HP-1')).visits).toMatchObject([{ missing: 0 }])
    const list = await pickListOfVisit(shop.viewer, probe)
    expect(list).toMatchObject({
      take: [],
      short: [],
      open: [{ number: 'K-1', pieces: [{ number: 'HP-1', quantity: each }] }],
    })
    await pickForVisit(shop.technician, await takeAll(probe))
    expect((await getPart(shop.viewer, 'K-1')).onHand).toBe(0)
    const page = await getPart(shop.viewer, 'HP-1')
    expect(page).toMatchObject({
      onHand: 1,
      elsewhere: [{ state: 'picked', quantity: each }],
      inClosedKits: 0,
    })
    expect(page.lotList[0]).toMatchObject({ expiresOn: '2027-01-31', kitLot: 1, openedOn: day })
    expect((await getPart(shop.viewer, 'OR-1')).onHand).toBe(2)
    expect(
      await problemIn(
        openKit(shop.technician, { id: uuid(), lotId: list.open[0]!.lotId, placeId: list.open[0]!.placeId }),
      ),
    ).toMatchObject({
      kind: 'conflict',
      message: expect.stringContaining('No unopened kit'),
    })
    // A kit that holds itself, or a piece twice, is no kit.
    const form = await getPart(shop.coordinator, 'K-1')
    const change = (contents: { partId: string; quantity: number }[]) =>
      problemIn(
        savePart(shop.coordinator, {
          id: kit,
          version: form.version,
          number: 'K-1',
          name: 'Kit',
          makersNumber: '',
          unit: 'piece',
          packSize: 1,
          price: '10.00',
          leadDays: 1,
          minimum: 0,
          bin: '',
          fits: [],
          note: '',
          contents,
        }),
      )
    expect(await change([{ partId: kit, quantity: 1 }])).toMatchObject({
      fields: { contents: expect.stringContaining('itself') },
    })
    expect(await change([{ partId: seal, quantity: 1.5 }])).toMatchObject({
      fields: { 'contents.0.quantity': 'Pieces come whole.' },
    })
  }))

test('stock goes between yard and van, into quarantine and out of the stores; less than is there is refused', () =>
  now(async () => {
    const ring = await stores.part('OR-1', '', { shelfGroup: 'B' })
    const lot = await stores.lot(ring, 6, { curedOn: '2018-01-01', note: 'old stock of the other workshop' })
    const vanId = uuid()
    await saveVan(shop.coordinator, { id: vanId, name: 'Van 2', yardId: shop.yardId })
    const move = (act: MoveInput['act'], quantity: number, more: Partial<MoveInput> = {}) =>
      moveByHand(shop.technician, {
        id: uuid(),
        partId: ring,
        lotId: lot,
        placeId: shop.yardId,
        state: 'shelf',
        visitId: null,
        act,
        quantity,
        toPlaceId: '',
        reason: '',
        ...more,
      })
    await move('transfer', 2, { toPlaceId: vanId })
    expect(await problemIn(move('setAside', 1))).toMatchObject({ fields: { reason: expect.any(String) } })
    await move('setAside', 1, { reason: 'sticky' })
    expect(await problemIn(move('transfer', 4, { toPlaceId: vanId }))).toMatchObject({ kind: 'conflict' })
    expect(await problemIn(move('transfer', 1))).toMatchObject({ fields: { toPlaceId: expect.any(String) } })
    expect(await problemIn(move('sendBack', 1, { reason: 'x' }))).toMatchObject({
      fields: { act: expect.any(String) },
    })
    await move('sendBack', 1, { state: 'quarantine', reason: 'by agreement' })
    // What is left has expired.
    expect(await getPart(shop.viewer, 'OR-1')).toMatchObject({ onHand: 0, expired: 5, elsewhere: [] })
    // Cured in 2018, group B: expired on 1 January 2025, and lengthened once by three years.
    expect(
      await extendLot(shop.coordinator, { id: uuid(), lotId: lot, reason: 'looked at, no cracks' }),
    ).toEqual({ until: '2028-01-01' })
    expect(
      await problemIn(extendLot(shop.coordinator, { id: uuid(), lotId: lot, reason: 'again' })),
    ).toMatchObject({ kind: 'conflict' })
    expect(await getPart(shop.viewer, 'OR-1')).toMatchObject({ onHand: 5, expired: 0 })
    const locker = await stores.part('TL-1', '', {
      unit: 'mL',
      shelfGroup: 'own',
      keepsMonths: 24,
      openedMonths: 6,
    })
    const bottle = await stores.lot(locker, 50)
    await openBottle(shop.technician, { id: uuid(), lotId: bottle })
    expect((await getPart(shop.viewer, 'TL-1')).lotList[0]).toMatchObject({
      openedOn: day,
      expiresOn: '2027-02-03',
    })
  }))

test('a stocktake sets a yard’s bins right all at once, asks about what is doubted, and keeps nothing of a faulty one', () =>
  now(async () => {
    const seal = await stores.part('HP-1', 'hpSeal', { packSize: 3, bin: 'H-10' })
    const ring = await stores.part('OR-1', '', { bin: 'H-2' })
    const seals = await stores.lot(seal, 18)
    const rings = await stores.lot(ring, 5)
    const { placeId, lines } = await listToCount(shop.technician, '')
    // Bins in the order one walks them: H-2 before H-10.
    expect(lines.map(({ number }) => number)).toEqual(['OR-1', 'HP-1'])
    const count = (counted: [string, string, string | null, boolean?][], id = uuid()) =>
      keepStocktake(shop.technician, {
        id,
        placeId,
        reason: 'Stocktake',
        lines: counted.map(([partId, lotId, found, sure = false]) => ({
          partId,
          lotId,
          counted: found as never,
          sure,
        })),
      })
    expect(
      await problemIn(
        count([
          [ring, rings, '4'],
          [seal, seals, '6'],
        ]),
      ),
    ).toMatchObject({
      fields: { 'lines.1.counted': 'Are these packs? 6 of 3 are 18.' },
    })
    expect((await getPart(shop.viewer, 'OR-1')).onHand).toBe(5)
    const id = uuid()
    expect(
      await count(
        [
          [ring, rings, '4'],
          [seal, seals, '6', true],
        ],
        id,
      ),
    ).toEqual({
      counted: 2,
      changed: 2,
      // One ring and twelve seals at 10.00.
      cents: -13_000,
    })
    await count(
      [
        [ring, rings, '4'],
        [seal, seals, '6', true],
      ],
      id,
    )
    expect((await getPart(shop.viewer, 'OR-1')).onHand).toBe(4)
    expect((await getPart(shop.viewer, 'HP-1')).onHand).toBe(6)
    expect(await problemIn(count([[ring, seals, '4']]))).toMatchObject({
      fields: { 'lines.0.counted': 'This lot is not of this part.' },
    })
    expect(await problemIn(count([[ring, rings, null]]))).toMatchObject({
      fields: { lines: expect.any(String) },
    })
  }))

test('the lists of a day serve the earlier booked first, out of what is left', () =>
  now(async () => {
    const seal = await stores.part('HP-1', 'hpSeal')
    const one = await visit('2026-08-10', [1])
    const each = await perCylinder(one, seal)
    const two = await visit('2026-08-10', [2])
    await stores.lot(seal, each)
    const lists = await pickListsOfDay(shop.viewer, '2026-08-10')
    const of = (id: string) => lists.find((list) => list.visitId === id)!
    const [first, second] = [one, two].sort()
    expect(of(first!).short).toEqual([])
    expect(of(second!).take).toEqual([])
    expect(of(second!).short).toMatchObject([{ quantity: each }])
  }))

test('what is approved in a part’s place is named where that is short, and takes its place once it is retired', () =>
  now(async () => {
    const old = await stores.part('HP-1', 'hpSeal')
    const later = await stores.part('HP-2', '', {
      insteadOf: [
        {
          partId: old,
          kind: 'supersedes',
          modelId: shop.modelId,
          positions: [],
          approval: 'the maker, letter of May',
        },
      ],
    })
    await stores.lot(later, 40)
    const id = await visit('2026-08-10', [1])
    const list = await pickListOfVisit(shop.viewer, id)
    expect(list.take).toEqual([])
    expect(list.short[0]!.elsewhere).toContain('40 of HP-2, which supersedes it, by the maker, letter of May')
    expect((await getPart(shop.viewer, 'HP-1')).replacedBy).toMatchObject([{ number: 'HP-2' }])
    await retirePart(shop.coordinator, { id: old, version: 1, reason: 'superseded' })
    expect(await pickListOfVisit(shop.viewer, id)).toMatchObject({ take: [{ number: 'HP-2' }], short: [] })
  }))

test('an approval for one place of a model says so, and only a place where the other part serves', () =>
  now(async () => {
    const old = await stores.part('HP-1', 'hpSeal')
    const stands = (positions: string[]) => ({
      insteadOf: [
        {
          partId: old,
          kind: 'alternative' as const,
          modelId: shop.modelId,
          positions,
          approval: 'the foreman',
        },
      ],
    })
    await expect(stores.part('HP-2', '', stands(['nowhere']))).rejects.toThrow('does not serve there')
    await stores.lot(await stores.part('HP-2', '', stands(['hpSeal'])), 40)
    const [by] = (await getPart(shop.viewer, 'HP-1')).replacedBy
    expect(by).toMatchObject({ number: 'HP-2' })
    expect(by!.words).toMatch(/^does as well on the .+, .+, by the foreman$/)
    await retirePart(shop.coordinator, { id: old, version: 1, reason: 'gone' })
    const { take } = await pickListOfVisit(shop.viewer, await visit('2026-08-10', [1]))
    expect(take).toMatchObject([{ number: 'HP-2' }])
  }))

test('what lies in another yard is brought over in time, and then picked', () =>
  now(async () => {
    const upland = uuid()
    await saveYard(shop.coordinator, { id: upland, name: 'Upland yard', place: '', note: '' })
    const seal = await stores.part('HP-1', 'hpSeal')
    const id = await visit('2026-08-10', [1])
    const each = await perCylinder(id, seal)
    const lot = await stores.lot(seal, 40, { placeId: upland })
    const [short] = (await pickListOfVisit(shop.viewer, id)).short
    expect(short).toMatchObject({
      quantity: each,
      inTime: true,
      transfers: [{ lotId: lot, place: 'Upland yard', quantity: each }],
    })
    await moveByHand(shop.technician, {
      ...{ id: uuid(), partId: seal, lotId: lot, placeId: upland, state: 'shelf', visitId: null },
      ...{ act: 'transfer', quantity: each, toPlaceId: short!.toPlaceId, reason: '' },
    })
    expect(await pickListOfVisit(shop.viewer, id)).toMatchObject({
      short: [],
      take: [{ lotId: lot, quantity: each }],
    })
    // A visit of tomorrow is served first, out of what was brought: from Upland it would take two days.
    const tomorrow = await visit('2026-08-04', [2])
    expect(await pickListOfVisit(shop.viewer, tomorrow)).toMatchObject({ short: [], take: [{ lotId: lot }] })
    expect((await pickListOfVisit(shop.viewer, id)).short).toMatchObject([
      { transfers: [{ place: 'Upland yard', quantity: each }] },
    ])
    const day3 = await visit('2026-08-04', [3])
    const lists = [tomorrow, day3].sort()
    expect((await pickListOfVisit(shop.viewer, lists[1]!)).short).toMatchObject([
      { transfers: [], inTime: false },
    ])
  }))

test('bottles and tubes stand with the one that is there, and with whether it is enough', () =>
  now(async () => {
    const id = await visit('2026-08-10', [1])
    const [need] = (await pickListOfVisit(shop.viewer, id)).consumables
    expect(need).toMatchObject({ there: '', short: false })
    const bottle = await stores.part('LB-1', '', { unit: 'mL', means: need!.name.toUpperCase() })
    const of = async () => (await pickListOfVisit(shop.viewer, id)).consumables[0]!
    expect(await of()).toMatchObject({ there: 'LB-1: none there', short: true })
    await stores.lot(bottle, 0.01)
    expect((await of()).short).toBe(true)
    await stores.lot(bottle, 500)
    expect(await of()).toMatchObject({ there: expect.stringContaining('LB-1, lot 1'), short: false })
  }))
