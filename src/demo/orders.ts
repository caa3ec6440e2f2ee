import { addDays } from '@/core/calendar'
import type { DeliveryInput } from '@/core/stores'
import { type Actor, instantOf, runAt } from '@/services/house'
import { listOpenVisits, pickListOfVisit } from '@/services/plan'
import {
  confirmOrder,
  getOrder,
  keepOldPart,
  listPlaces,
  listStock,
  listToCount,
  moveByHand,
  openBottle,
  openKit,
  pickForVisit,
  receiveDelivery,
  receivePart,
  saveOffer,
  saveOrder,
  savePart,
  saveSupplier,
  saveVan,
  sendOrder,
} from '@/services/stores'
import { listSheets } from '@/services/sheets'
import { idOf } from './random'

type Seller = { name: string; leadDays: number; least: string; contact: string; dearer: number }

/** Invented sellers: one for rubber, one for what is machined, one round the corner that is quick and dear. */
const sellers = {
  rubber: {
    name: 'Saltmarsh Seals',
    leadDays: 14,
    least: '60.00',
    contact: 'orders desk, weekdays until four',
    dearer: 1,
  },
  metal: {
    name: 'Corrin Pump Parts',
    leadDays: 21,
    least: '80.00',
    contact: 'the parts counter, ask for the waterjet bench',
    dearer: 1,
  },
  corner: {
    name: 'Lockgate Trade Counter',
    leadDays: 2,
    least: '',
    contact: 'round the corner, open Saturdays',
    dearer: 1.6,
  },
} satisfies Record<string, Seller>

const isRubber = (name: string) => /seal|o-ring|ring|rope|gasket|hose|insert|clamp/i.test(name)

/**
 * Who sells what, orders in all states, a kit of unlike pieces with one opened, something in quarantine, a
 * van with stock, pieces laid ready, and an old part that is kept for a claim.
 */
export async function tellOrders(coordinator: Actor, today: string, timeZone: string): Promise<void> {
  const on = <T>(daysAgo: number, work: () => Promise<T>, time = '10:30') =>
    runAt(instantOf(addDays(today, -daysAgo), time, timeZone), work)
  await sellersOf(coordinator, on)
  const [home] = await listPlaces(coordinator)
  const order = (
    key: string,
    seller: keyof typeof sellers,
    lines: [string, number, (string | null)?][],
    daysAgo: number,
  ) =>
    on(daysAgo, () =>
      saveOrder(coordinator, {
        id: idOf(`order ${key}`),
        supplierId: idOf(`supplier ${seller}`),
        yardId: home!.id,
        note: '',
        lines: lines.map(([number, quantity, neededBy = null]) => ({
          id: idOf(`order ${key} ${number}`),
          partId: idOf(`part ${number}`),
          quantity,
          neededBy,
        })),
      }),
    )
  const send = (key: string, daysAgo: number, hurry = '') =>
    on(
      daysAgo,
      async () => {
        const { id, version } = await getOrder(coordinator, idOf(`order ${key}`))
        await sendOrder(coordinator, { id, version, hurry })
      },
      '11:00',
    )
  const receive = (
    key: string,
    note: string,
    daysAgo: number,
    lines: { number: string; noted: number; came: number; damaged?: number; curedOn?: string }[],
  ) =>
    on(
      daysAgo,
      () =>
        receiveDelivery(coordinator, {
          id: idOf(`delivery ${note}`),
          orderId: idOf(`order ${key}`),
          noteNumber: note,
          receivedOn: addDays(today, -daysAgo),
          lines: lines.map(
            ({ number, noted, came, damaged = 0, curedOn = '' }): DeliveryInput['lines'][number] => ({
              lotId: idOf(`lot ${note} ${number}`),
              lineId: idOf(`order ${key} ${number}`),
              wrongPart: false,
              ...{ noted, came, damaged, curedOn },
              code: `${note}-${number}`,
              expiresOn: null,
            }),
          ),
        }),
      '15:00',
    )
  // Five deliveries of filter elements: how long they take is known by them, not by the counter's word.
  for (const [at, [daysAgo, took]] of (
    [
      [420, 4],
      [340, 6],
      [250, 3],
      [170, 9],
      [80, 5],
    ] as const
  ).entries()) {
    const key = `filters ${at}`
    await order(key, 'corner', [['FE-10', 4]], daysAgo)
    await send(key, daysAgo)
    await receive(key, `LG-${1040 + at * 7}`, daysAgo - took, [{ number: 'FE-10', noted: 4, came: 4 }])
  }
  // Rubber: short by two, one packet torn; the rest is promised.
  await order(
    'rubber',
    'rubber',
    [
      ['HP-20', 12],
      ['LP-20', 6],
      ['OR-9', 12],
    ],
    19,
  )
  await send('rubber', 19)
  await on(17, async () => {
    const page = await getOrder(coordinator, idOf('order rubber'))
    await confirmOrder(coordinator, {
      id: page.id,
      version: page.version,
      lines: page.lineList.map((line) => ({
        id: line.id,
        confirmed: line.quantity,
        promisedOn: line.number === 'OR-9' ? addDays(today, 6) : addDays(today, -4),
        answer: line.number === 'OR-9' ? 'follows from the works' : '',
      })),
    })
  })
  await receive('rubber', 'SM-88213', 3, [
    { number: 'HP-20', noted: 12, came: 12, damaged: 2, curedOn: '2Q26' },
    { number: 'LP-20', noted: 6, came: 6, curedOn: '2026-03' },
  ])
  // Machined pieces that should have been here by now.
  await order(
    'late',
    'metal',
    [
      ['PB-8', 6],
      ['NZ-055', 4],
    ],
    30,
  )
  await send('late', 30)
  // In a hurry, paid for coming the next day.
  await order('hurry', 'corner', [['TL-M', 50, addDays(today, -21)]], 22)
  await send('hurry', 22, '18.50')
  await receive('hurry', 'LG-1102', 21, [{ number: 'TL-M', noted: 50, came: 50, curedOn: '2026-08' }])
  await kitStory(coordinator, home!.id, today, on)
  await vanStory(coordinator, home!.id, on)
  await bottles(coordinator, home!.id, today, on)
  await layReady(coordinator, today, timeZone)
  await on(6, async () => {
    const sheet = (await listSheets(coordinator)).closed.lines.find((each) => each.state === 'signed')
    if (sheet)
      await keepOldPart(coordinator, {
        id: idOf('old part claim'),
        sheetId: sheet.id,
        name: 'High-pressure seal 20, split lip',
        place: 'cylinder 2',
        quantity: 1,
        until: 'claim',
        reason: 'Second one of lot that split early: the seller wants to see it',
      })
  })
}

type On = <T>(daysAgo: number, work: () => Promise<T>, time?: string) => Promise<T>

async function sellersOf(coordinator: Actor, on: On): Promise<void> {
  await on(700, async () => {
    for (const [key, { name, leadDays, least, contact }] of Object.entries(sellers))
      await saveSupplier(coordinator, {
        id: idOf(`supplier ${key}`),
        name,
        leadDays,
        least,
        contact,
        note: '',
      })
    for (const [at, line] of (await listStock(coordinator)).entries()) {
      const own = isRubber(line.name) ? 'rubber' : 'metal'
      await saveOffer(coordinator, {
        id: idOf(`offer ${own} ${line.number}`),
        supplierId: idOf(`supplier ${own}`),
        partId: line.id,
        supplierNumber: `${own === 'rubber' ? 'SM' : 'CP'}${40100 + at * 3}`,
        price: (line.priceCents / 100).toFixed(2),
        packSize: line.packSize,
        minimumOrder: 0,
        leadDays: line.leadDays,
      })
      // What every counter has stands there ready, at its price.
      if (['FE-10', 'DS-14', 'CW-8', 'TL-M', 'OIL-1', 'OR-24', 'OR-31'].includes(line.number))
        await saveOffer(coordinator, {
          id: idOf(`offer corner ${line.number}`),
          supplierId: idOf('supplier corner'),
          partId: line.id,
          supplierNumber: `L-${300 + at}`,
          price: ((line.priceCents * sellers.corner.dearer) / 100).toFixed(2),
          packSize: 1,
          minimumOrder: 0,
          leadDays: null,
        })
    }
  })
}

/** A kit of unlike pieces for the cutting pump: two came, one was opened. */
async function kitStory(coordinator: Actor, placeId: string, today: string, on: On): Promise<void> {
  const pieces = (await listStock(coordinator)).filter(
    (line) => line.number.startsWith('C5-') && line.unit === 'piece',
  )
  const kitId = idOf('part C5-KIT')
  await on(200, () =>
    savePart(coordinator, {
      id: kitId,
      number: 'C5-KIT',
      name: 'Wet-end kit, C5',
      makersNumber: 'TW-C5-K1',
      unit: 'piece',
      packSize: 1,
      price: '96.00',
      leadDays: 18,
      minimum: 0,
      bin: 'U-1',
      fits: [],
      contents: pieces.slice(0, 4).map(({ id }, at) => ({ partId: id, quantity: [3, 3, 2, 1][at]! })),
      note: 'Invented, like everything here',
    }),
  )
  await on(200, () =>
    saveOffer(coordinator, {
      id: idOf('offer rubber C5-KIT'),
      supplierId: idOf('supplier rubber'),
      partId: kitId,
      supplierNumber: 'SM40999',
      price: '96.00',
      packSize: 1,
      minimumOrder: 0,
      leadDays: 18,
    }),
  )
  await on(150, () =>
    receivePart(coordinator, {
      id: idOf('lot C5-KIT'),
      partId: kitId,
      quantity: 2,
      code: 'K1-2611',
      receivedOn: addDays(today, -150),
      price: '' as never,
      expiresOn: null,
      placeId,
      note: '',
    }),
  )
  await on(60, () => openKit(coordinator, { id: idOf('open C5-KIT'), lotId: idOf('lot C5-KIT'), placeId }))
}

/** A few pieces ride in the van, some lie in the other yard. */
async function vanStory(coordinator: Actor, home: string, on: On): Promise<void> {
  const vanId = idOf('van 2')
  await on(300, () => saveVan(coordinator, { id: vanId, name: 'Van 2', yardId: home }))
  const other = (await listPlaces(coordinator)).find((place) => place.kind === 'yard' && place.id !== home)
  const { lines } = await listToCount(coordinator, home)
  const take = async (number: string, quantity: number, toPlaceId: string) => {
    const lot = lines.find((line) => line.number === number && line.onHand >= quantity && !line.expired)
    if (!lot) return
    await on(12, () =>
      moveByHand(coordinator, {
        id: idOf(`move ${number} ${toPlaceId}`),
        partId: lot.partId,
        lotId: lot.lotId,
        placeId: home,
        state: 'shelf',
        visitId: null,
        act: 'transfer',
        quantity,
        toPlaceId,
        reason: '',
      }),
    )
  }
  await take('CW-8', 6, vanId)
  await take('FE-10', 2, vanId)
  for (const [number, quantity] of [
    ['C5-05', 2],
    ['X2-01', 2],
    ['OIL-1', 10],
    ['OR-31', 6],
  ] as const)
    if (other) await take(number, quantity, other.id)
}

/** Lubricants by the bottle: one open, one nearly empty. */
async function bottles(coordinator: Actor, placeId: string, today: string, on: On): Promise<void> {
  for (const [number, means, quantity, minimum] of [
    ['LB-A', 'assembly lubricant', 240, 40],
    ['LB-T', 'thread lubricant', 2, 30],
  ] as const) {
    const id = idOf(`part ${number}`)
    await on(90, () =>
      savePart(coordinator, {
        id,
        number,
        name: `${means[0]!.toUpperCase()}${means.slice(1)}, bottle`,
        makersNumber: '',
        unit: 'mL',
        packSize: 1,
        price: '0.08',
        leadDays: 4,
        minimum,
        bin: 'cupboard',
        fits: [],
        means,
        shelfGroup: 'own',
        keepsMonths: 36,
        openedMonths: 12,
        note: '',
      }),
    )
    await on(90, () =>
      saveOffer(coordinator, {
        id: idOf(`offer corner ${number}`),
        supplierId: idOf('supplier corner'),
        partId: id,
        supplierNumber: `L-9${quantity}`,
        price: '0.08',
        packSize: 120,
        minimumOrder: 0,
        leadDays: null,
      }),
    )
    await on(90, () =>
      receivePart(coordinator, {
        id: idOf(`lot ${number}`),
        partId: id,
        quantity,
        code: '',
        receivedOn: addDays(today, -90),
        price: '' as never,
        expiresOn: null,
        curedOn: addDays(today, -120),
        placeId,
        note: '',
      }),
    )
  }
  await on(50, () => openBottle(coordinator, { id: idOf('open LB-A'), lotId: idOf('lot LB-A') }))
}

/** For the next visit some of it is laid ready. */
async function layReady(coordinator: Actor, today: string, timeZone: string): Promise<void> {
  const [next] = (await listOpenVisits(coordinator)).filter(
    (visit) => visit.day >= today && visit.sheet === null,
  )
  if (!next) return
  await runAt(instantOf(addDays(today, -1), '16:20', timeZone), async () => {
    const list = await pickListOfVisit(coordinator, next.id)
    const take = list.take.slice(0, 2).map(({ lotId, placeId, quantity }) => ({ lotId, placeId, quantity }))
    if (take.length > 0)
      await pickForVisit(coordinator, { id: idOf('pick next'), visitId: next.id, take, open: [] })
  })
}
