import { v7 as uuid } from 'uuid'
import type { DeliveryInput } from '@/core/stores'
import { orderProposals } from '@/services/plan'
import { exportOrder } from '@/services/interchange'
import {
  confirmOrder,
  endOrder,
  getOrder,
  getPart,
  listOrders,
  listSuppliers,
  loadOffers,
  partStockOn,
  receiveDelivery,
  saveOffer,
  saveOrder,
  storesValue,
  takeConfirmation,
  takePriceList,
} from '@/services/stores'
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

const delivery = async (
  orderId: string,
  noteNumber: string,
  lines: Partial<DeliveryInput['lines'][number]>[],
  receivedOn = day,
): Promise<DeliveryInput> => {
  const { lineList } = await getOrder(shop.coordinator, orderId)
  return {
    id: uuid(),
    orderId,
    noteNumber,
    receivedOn,
    lines: lines.map((line, index) => ({
      lotId: uuid(),
      lineId: lineList[index]!.id,
      wrongPart: false,
      noted: line.came ?? 0,
      came: 0,
      damaged: 0,
      code: '',
      curedOn: '',
      expiresOn: null,
      ...line,
    })),
  }
}

test('an order is written, sent, confirmed short, received in part with damage, and closed', () =>
  now(async () => {
    const seal = await stores.part('HP-1', 'hpSeal', { shelfGroup: 'B' })
    const supplier = await stores.supplier('Saltmarsh Seals')
    await stores.offer(supplier, seal, 'S-1', '8.00', { packSize: 6 })
    // Packs hold: seven cannot be ordered, twelve can.
    expect(await problemIn(stores.order(supplier, [[seal, 7]]))).toMatchObject({
      fields: { 'lines.0.quantity': expect.stringContaining('12 instead') },
    })
    const id = await stores.order(supplier, [[seal, 12]])
    expect((await getPart(shop.viewer, 'HP-1')).onTheWay).toBe(0)
    await stores.send(id)
    expect((await getPart(shop.viewer, 'HP-1')).onTheWay).toBe(12)
    const sent = await getOrder(shop.viewer, id)
    expect(sent).toMatchObject({ state: 'sent', sentOn: day, cents: 9600, comesOn: '2026-08-17' })
    await confirmOrder(shop.coordinator, {
      id,
      version: sent.version,
      lines: [{ id: sent.lineList[0]!.id, confirmed: 9, promisedOn: '2026-08-20', answer: '' }],
    })
    expect(await getOrder(shop.viewer, id)).toMatchObject({
      state: 'confirmed',
      comesOn: '2026-08-20',
      chase: { why: 'short', quantity: 3 },
    })
    // Six came, one of them torn: it is set aside and still owed.
    const first = await delivery(id, 'N-1', [{ noted: 6, came: 6, damaged: 1, curedOn: '2Q26' }])
    expect(await receiveDelivery(shop.technician, first)).toEqual({
      lots: [1, 2],
      differences: ['HP-1: 1 damaged, set aside'],
      closed: false,
    })
    // Sent once more by a tablet that did not hear the answer: nothing comes twice.
    expect((await receiveDelivery(shop.technician, first)).lots).toEqual([1, 2])
    const page = await getPart(shop.viewer, 'HP-1')
    expect(page).toMatchObject({ onHand: 5, onTheWay: 4, elsewhere: [{ state: 'quarantine', quantity: 1 }] })
    // Group B: seven years from 1 April 2026.
    expect(page.lotList[0]).toMatchObject({ expiresOn: '2033-04-01', expiryAssumed: false })
    expect(await getOrder(shop.viewer, id)).toMatchObject({ inPart: true, state: 'confirmed' })
    // The same note is not taken in twice.
    expect(
      await problemIn(receiveDelivery(shop.technician, await delivery(id, 'N-1', [{ came: 1 }]))),
    ).toMatchObject({
      fields: { noteNumber: expect.stringContaining('already') },
    })
    expect(await receiveDelivery(shop.technician, await delivery(id, 'N-2', [{ came: 7 }]))).toMatchObject({
      differences: ['HP-1: 3 more than was to come'],
      closed: true,
    })
    expect(await getOrder(shop.viewer, id)).toMatchObject({ state: 'closed', comesOn: null })
    expect((await getPart(shop.viewer, 'HP-1')).onHand).toBe(12)
    expect(await partStockOn(shop.viewer, seal, '2026-08-02')).toMatchObject({ total: 0 })
    // 12 good and one set aside, at 8.00 each.
    expect(await storesValue(shop.viewer)).toMatchObject({ cents: 13 * 800 })
  }))

test('the supplier’s file confirms; a faulty one changes nothing', () =>
  now(async () => {
    const seal = await stores.part('HP-1', 'hpSeal')
    const ring = await stores.part('OR-1', '')
    const supplier = await stores.supplier('Saltmarsh Seals')
    await stores.offer(supplier, seal, 'S-1', '8.00')
    await stores.offer(supplier, ring, 'S-2', '0.50')
    const id = await stores.order(supplier, [
      [seal, 4],
      [ring, 10],
    ])
    await stores.send(id)
    const { version } = await getOrder(shop.viewer, id)
    const take = (text: string) => takeConfirmation(shop.coordinator, { id, version, text })
    for (const text of ['order,line,quantity\n0001,1,4\n0001,2', 'order,line,quantity\n0002,1,4\n', 'hello'])
      expect(await problemIn(take(text))).toMatchObject({ fields: { text: expect.any(String) } })
    expect((await getOrder(shop.viewer, id)).state).toBe('sent')
    expect(
      await take('order,line,quantity,promised,substitute\n0001,1,3,2026-08-12,\n0001,2,0,,S-9\nEND,2,,,\n'),
    ).toEqual({ answered: 2, less: 2, substitutes: ['line 2: S-9'] })
    expect((await getOrder(shop.viewer, id)).lineList).toMatchObject([
      { confirmed: 3, promisedOn: '2026-08-12', open: 3 },
      { confirmed: 0, open: 0, answer: 'offers S-9 instead' },
    ])
    // Read with an old version: refused, and nothing is changed.
    expect(await problemIn(take('order,line,quantity\n0001,1,4\n'))).toMatchObject({ kind: 'conflict' })
    const csv = await exportOrder(shop.viewer, '0001', 'csv')
    expect(new TextDecoder().decode(csv.body)).toContain('0001,1,S-1,HP-1,,Part HP-1,4,piece,8.00,EUR,')
    const book = await exportOrder(shop.viewer, '0001', 'xlsx')
    // A spreadsheet is a zip.
    expect([...book.body.slice(0, 2)]).toEqual([0x50, 0x4b])
  }))

test('what is called off does not come; a draft is thrown away; what is ended cannot be taken in', () =>
  now(async () => {
    const seal = await stores.part('HP-1', 'hpSeal')
    const supplier = await stores.supplier('Saltmarsh Seals')
    await stores.offer(supplier, seal, 'S-1', '8.00')
    const id = await stores.order(supplier, [[seal, 4]])
    await stores.send(id)
    await endOrder(shop.coordinator, { id, version: 2, reason: 'sold the pump' })
    expect(await getOrder(shop.viewer, id)).toMatchObject({ state: 'cancelled', endReason: 'sold the pump' })
    expect((await getPart(shop.viewer, 'HP-1')).onTheWay).toBe(0)
    expect(
      await problemIn(receiveDelivery(shop.technician, await delivery(id, 'N-1', [{ came: 1 }]))),
    ).toMatchObject({
      kind: 'conflict',
    })
    expect(await problemIn(stores.send(id))).toMatchObject({ kind: 'conflict' })
    expect(
      await problemIn(
        saveOrder(shop.technician, {
          id: uuid(),
          supplierId: supplier,
          yardId: shop.yardId,
          note: '',
          lines: [],
        }),
      ),
    ).toMatchObject({ kind: 'notAllowed' })
  }))

test('five deliveries say how long it takes, and orders go by them', async () => {
  const ids = await now(async () => {
    const seal = await stores.part('HP-1', 'hpSeal', { leadDays: 30 })
    const supplier = await stores.supplier('Saltmarsh Seals', 14)
    await stores.offer(supplier, seal, 'S-1', '8.00')
    return { seal, supplier }
  })
  // Ordered every ten days, they took 2, 3, 8, 4 and 5 days.
  const took = [2, 3, 8, 4, 5]
  for (const [index, days] of took.entries()) {
    const sent = `2026-09-${String(1 + index * 5).padStart(2, '0')}`
    const came = `2026-09-${String(1 + index * 5 + days).padStart(2, '0')}`
    const id = await at(sent, async () => {
      const order = await stores.order(ids.supplier, [[ids.seal, 1]])
      await stores.send(order)
      return order
    })
    await at(came, async () =>
      receiveDelivery(shop.technician, await delivery(id, `N-${index}`, [{ came: 1 }], came)),
    )
    if (index === 3)
      await at(came, async () =>
        expect((await loadOffers()).get(ids.seal)![0]!.lead).toEqual({
          days: 14,
          from: 'supplier',
          deliveries: 4,
        }),
      )
  }
  await at('2026-10-01', async () => {
    expect((await loadOffers()).get(ids.seal)![0]!.lead).toEqual({
      days: 8,
      from: 'deliveries',
      deliveries: 5,
    })
    expect((await getPart(shop.viewer, 'HP-1')).comesWithin).toBe(8)
  })
})

test('what wants to be ordered is proposed by supplier with why; a kit that costs less than its pieces goes instead', () =>
  now(async () => {
    // 820 h on seals of 800 h: three cylinders want theirs now.
    const seal = await stores.part('HP-1', 'hpSeal')
    const supplier = await stores.supplier('Saltmarsh Seals', 3, '500.00')
    await stores.offer(supplier, seal, 'S-1', '8.00')
    const before = await orderProposals(shop.viewer)
    expect(before.proposals).toMatchObject([
      {
        supplier: 'Saltmarsh Seals',
        lines: [{ number: 'HP-1', late: true, why: expect.stringContaining('short on') }],
      },
    ])
    const [line] = before.proposals[0]!.lines
    expect(before.proposals[0]!.belowLeast).toBe(50_000 - line!.quantity * 800)
    // A kit of three for 15.00 is less than three for 24.00.
    const kit = await stores.part('K-3', '', { contents: [{ partId: seal, quantity: 3 }] })
    await stores.offer(supplier, kit, 'S-K', '15.00')
    const after = await orderProposals(shop.viewer)
    expect(after.proposals[0]!.lines.find(({ number }) => number === 'K-3')).toMatchObject({
      quantity: Math.floor(line!.quantity / 3),
    })
    // Written as proposed, it is on the way, and nothing is proposed any more.
    const id = await stores.order(
      supplier,
      after.proposals[0]!.lines.map(({ partId, quantity }) => [partId, quantity] as [string, number]),
    )
    await stores.send(id)
    expect((await listOrders(shop.viewer))[0]).toMatchObject({ number: 1, state: 'sent' })
  }))

test('a price list is looked at before it is taken; doubtful prices are left unless asked for', () =>
  now(async () => {
    const seal = await stores.part('HP-1', 'hpSeal')
    const ring = await stores.part('OR-1', '')
    const supplier = await stores.supplier('Saltmarsh Seals')
    await stores.offer(supplier, seal, 'S-1', '8.00')
    await stores.offer(supplier, ring, 'S-2', '0.50')
    const text = 'Number;Price\nS-1;8,40\nS-2;50,00\nX-1;1,00\n'
    const list = (take: boolean, doubtful = false) =>
      takePriceList(shop.coordinator, { supplierId: supplier, text, take, doubtful })
    const prices = async () => (await listSuppliers(shop.viewer))[0]!.offers.map(({ unitCents }) => unitCents)
    expect(await list(false)).toMatchObject({
      taken: 0,
      foreign: ['X-1'],
      doubtful: [{ supplierNumber: 'S-2' }],
    })
    expect(await prices()).toEqual([800, 50])
    expect(await list(true)).toMatchObject({ taken: 1 })
    expect(await prices()).toEqual([840, 50])
    expect(await list(true, true)).toMatchObject({ taken: 1 })
    expect(await prices()).toEqual([840, 5000])
    expect(
      await problemIn(
        takePriceList(shop.coordinator, {
          supplierId: supplier,
          text: 'number,price\nS-1,9\nS-1,8\n',
          take: true,
          doubtful: false,
        }),
      ),
    ).toMatchObject({ fields: { text: expect.stringContaining('line 2') } })
    expect(await prices()).toEqual([840, 5000])
    // One supplier sells one part under one number.
    expect(
      await problemIn(
        saveOffer(shop.coordinator, {
          id: uuid(),
          supplierId: supplier,
          partId: await stores.part('Z-1', ''),
          supplierNumber: 'S-1',
          price: '1.00',
          packSize: 1,
          minimumOrder: 0,
          leadDays: null,
        }),
      ),
    ).toMatchObject({ fields: { supplierNumber: expect.any(String) } })
  }))
