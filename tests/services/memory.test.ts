import fc from 'fast-check'
import { v7 as uuid } from 'uuid'
import type { UsageFit } from '@/core/hours'
import { problemOf } from '@/core/problem'
import { attempt, companies, database, derived, forget, grown, kept, keptEach, write } from '@/db/house'
import { touchEverything } from '@/db/house/memory'
import { assemblies, dutyShares, fittings, machines, yards } from '@/db/fleet'
import { people } from '@/db/access'
import { loadFits, meterEvents, meters, readings, saveFits, spells } from '@/db/hours'
import { earlyChecks, signs } from '@/db/inspection'
import { pumpModels } from '@/db/models'
import { marks, visits } from '@/db/plan'
import { practiceChoices } from '@/db/practices'
import { sheets, sheetEntries, taskRecords } from '@/db/sheets'
import { offers, orderLines, orders, parts, stockLots, stockMovements, suppliers, vans } from '@/db/stores'
import { duties, limitOverrides, lives } from '@/db/wear'
import { listMachines, moveAssembly, retireMachine } from '@/services/fleet'
import { recordReading, saveSpell, settleReading } from '@/services/hours'
import { listOpenSigns, reportSign, settleSign } from '@/services/inspection'
import { bookVisit, cancelVisit, listMarks, listOpenVisits, orderProposals, snooze } from '@/services/plan'
import { choosePractice } from '@/services/practices'
import {
  countPart,
  getOrder,
  listOrders,
  listStock,
  listSuppliers,
  loadBook,
  moveByHand,
  pickedForNothing,
  pickForVisit,
  receiveDelivery,
  receivePart,
  savePart,
} from '@/services/stores'
import { standsFor } from '@/core/today'
import { getToday } from '@/services/today'
import {
  checksOf,
  forgetFits,
  getWear,
  keepFits,
  listOpenChecks,
  listWear,
  recordRenewal,
  saveDuties,
  saveLimit,
} from '@/services/wear'
import { findingsOf, settledTorques, startSheet } from '@/services/sheets'
import { at, bookedSheet, makeWorkshop, Tablet, workshop, type Workshop } from '../support/bench'
import { madeOnce, removeDatabase } from '../support/database'
import {
  frostWatch,
  getMachineWinter,
  getWinter,
  laidUpMachines,
  recordWinter,
  saveCircuit,
  saveClimate,
  saveProduct,
  seasonReport,
} from '@/services/winter'
import { antifreezes, wetCircuits, winterEvents, winterTerms, yardClimates, yardOutlooks } from '@/db/winter'
import { getRound } from '@/services/round'
import { storesOf } from '../support/stores'

let shop: Workshop
const day = '2026-08-03'
afterAll(removeDatabase)

/** Everything that is kept of the company, as text. */
async function answers(): Promise<Record<string, string>> {
  const actor = shop.coordinator
  const asked = {
    wear: await listWear(actor),
    one: await getWear(actor, shop.pumpId),
    machines: await listMachines(actor),
    visits: await listOpenVisits(actor),
    stock: await listStock(actor),
    signs: await listOpenSigns(actor),
    checks: await listOpenChecks(actor),
    checksOfOne: await checksOf(actor, shop.pumpId),
    findings: await findingsOf(actor, { id: shop.pumpId, number: 'P-04' }, []),
    torques: await settledTorques(),
    marks: await listMarks(actor),
    book: [...(await loadBook()).parts.values()],
    today: await getToday(actor),
    orders: await listOrders(actor),
    suppliers: await listSuppliers(actor),
    proposals: await orderProposals(actor),
    leftOver: await pickedForNothing(actor),
    winter: await getWinter(actor),
    frost: await frostWatch(),
    laidUp: [...(await laidUpMachines())],
    season: await seasonReport(actor),
    round: await getRound(actor),
  }
  return Object.fromEntries(Object.entries(asked).map(([name, value]) => [name, JSON.stringify(value)]))
}

type Act = { what: string; do: (n: number) => Promise<unknown> }

/** What people do, with a number that says how. */
const acts: Act[] = [
  { what: 'look', do: () => answers() },
  {
    what: 'read the meter',
    do: (n) =>
      recordReading(shop.technician, {
        id: uuid(),
        meterId: shop.meterId,
        day,
        time: `${String(6 + (n % 8)).padStart(2, '0')}:00`,
        typed: String(1120 + (n % 60)),
        readBy: '',
        note: '',
        vouched: n % 3 > 0,
      }),
  },
  {
    what: 'withdraw a reading',
    do: async (n) => {
      const rows = await readings.all({ meterId: shop.meterId, status: ['accepted', 'doubted'] })
      const row = rows[n % rows.length]!
      await settleReading(shop.coordinator, {
        decision: n % 2 ? 'withdraw' : 'vouch',
        readingId: row.id,
        reason: 'looked again',
      } as never)
    },
  },
  {
    what: 'lay up or book',
    do: (n) =>
      saveSpell(shop.coordinator, shop.machineId, {
        id: uuid(),
        kind: n % 2 ? 'layUp' : 'job',
        fromDay: `2026-08-${String(4 + (n % 20)).padStart(2, '0')}`,
        toDay: `2026-08-${String(5 + (n % 20)).padStart(2, '0')}`,
        hoursPerDay: n % 2 ? null : 6,
        what: 'a job',
      } as never),
  },
  {
    what: 'book a visit',
    do: (n) =>
      bookVisit(shop.coordinator, {
        id: uuid(),
        items: [
          {
            assemblyId: shop.pumpId,
            task: n % 2 ? 'plungers' : 'outletValves',
            positions: n % 2 ? ['plunger@1'] : ['outletValve@1'],
          },
        ],
        day: `2026-08-${String(3 + (n % 20)).padStart(2, '0')}`,
        startTime: '',
        leadId: shop.technician.id,
        note: '',
      } as never),
  },
  {
    what: 'call a visit off',
    do: async (n) => {
      const rows = await visits.all({ state: 'booked' })
      const row = rows[n % rows.length]!
      await cancelVisit(shop.coordinator, { id: row.id, version: row.version, reason: 'not now' } as never)
    },
  },
  {
    what: 'open a sheet, tick, take a part',
    do: async (n) => {
      const open = await sheets.all({ state: 'open' })
      let sheetId = open[0]?.id
      if (!sheetId) {
        const [visit] = await visits.all({ state: 'booked' })
        sheetId = (await startSheet(shop.technician, { id: uuid(), visitId: visit!.id })).id
      }
      const tablet = new Tablet(shop.technician, sheetId)
      const [part] = await parts.all()
      await tablet.send(
        tablet.entry('remark', { text: 'seen' }),
        tablet.entry('part', {
          partId: part?.id ?? null,
          lotId: null,
          name: 'Seal',
          unit: 'piece',
          quantity: 1 + (n % 3),
          assemblyId: shop.pumpId,
          part: 'hpSeal',
        }),
      )
    },
  },
  {
    what: 'add a part',
    do: (n) =>
      savePart(shop.coordinator, {
        id: uuid(),
        number: `S-${n}`,
        name: 'Seal',
        makersNumber: '',
        unit: 'piece',
        packSize: 1,
        price: '10',
        leadDays: 5 + (n % 30),
        minimum: '2',
        bin: '',
        fits: [{ modelId: shop.modelId, part: n % 2 ? 'hpSeal' : 'valve' }],
        note: '',
      } as never),
  },
  {
    what: 'receive or count a part',
    do: async (n) => {
      const rows = await parts.all()
      const part = rows[n % rows.length]!
      const [lot] = await stockLots.all({ partId: part.id })
      if (n % 2 && lot)
        await countPart(shop.technician, {
          id: uuid(),
          partId: part.id,
          lots: [{ lotId: lot.id, counted: String(n % 9) as never }],
          reason: 'counted',
        })
      else
        await receivePart(shop.technician, {
          id: uuid(),
          partId: part.id,
          quantity: String(1 + (n % 9)) as never,
          code: '',
          receivedOn: day,
          price: '' as never,
          expiresOn: null,
          note: '',
        } as never)
    },
  },
  {
    what: 'order a part, send it and take some of it in',
    do: async (n) => {
      const rows = await parts.all()
      const part = rows[n % rows.length]!
      const stores = storesOf(() => shop, day)
      const supplier = await stores.supplier(`Seller ${uuid()}`, n % 20)
      await stores.offer(supplier, part.id, `S-${n}`, '2.00')
      const id = await stores.order(supplier, [[part.id, 4]])
      if (n % 3 === 0) return
      await stores.send(id)
      if (n % 3 === 1) return
      const { lineList } = await getOrder(shop.coordinator, id)
      await receiveDelivery(shop.technician, {
        id: uuid(),
        orderId: id,
        noteNumber: `N-${n}`,
        receivedOn: day,
        lines: lineList.map((line) => ({
          lotId: uuid(),
          lineId: line.id,
          wrongPart: false,
          ...{ noted: 3, came: 3, damaged: n % 2, code: '', curedOn: null, expiresOn: null },
        })),
      })
    },
  },
  {
    what: 'pick for a visit, or set stock aside',
    do: async (n) => {
      const [visit] = await visits.all({ state: ['booked', 'inWork'] })
      const lots = await stockLots.all()
      const lot = lots[n % lots.length]
      if (!lot) return
      const of = { lotId: lot.id, placeId: shop.yardId, quantity: 1 }
      if (n % 2 && visit)
        await pickForVisit(shop.technician, { id: uuid(), visitId: visit.id, take: [of], open: [] })
      else
        await moveByHand(shop.technician, {
          ...of,
          ...{ id: uuid(), partId: lot.partId, state: 'shelf', visitId: null },
          ...{ act: 'setAside', toPlaceId: '', reason: 'sticky' },
        })
    },
  },
  {
    what: 'report a sign',
    do: (n) =>
      reportSign(shop.technician, {
        id: uuid(),
        machineId: null,
        assemblyId: shop.pumpId,
        symptom: 'weep',
        seenOn: day,
        words: 'wet below',
        dripsPerMinute: 10,
        flow: null,
        task: n % 2 ? 'hpSeals' : '',
        positions: n % 2 ? ['hpSeal@2'] : [],
        by: `2026-08-${String(3 + (n % 20)).padStart(2, '0')}`,
        sheetId: null,
      } as never),
  },
  {
    what: 'settle a sign',
    do: async () => {
      const [row] = await signs.all({ status: 'open' })
      await settleSign(shop.coordinator, {
        id: row!.id,
        version: row!.version,
        outcome: 'nothing',
        words: 'dry',
      } as never)
    },
  },
  {
    what: 'put something off',
    do: async (n) => {
      const { rows } = await getToday(shop.coordinator)
      const [first, ...also] = standsFor(rows[n % rows.length]!).map((each) => ({ id: uuid(), ...each }))
      await snooze(shop.coordinator, {
        ...first!,
        also,
        until: '2026-08-20',
        reason: 'later',
      })
    },
  },
  {
    what: 'renew a part without a sheet',
    do: (n) =>
      recordRenewal(shop.coordinator, {
        id: uuid(),
        assemblyId: shop.pumpId,
        task: 'hpSeals',
        positions: [`hpSeal@${1 + (n % 3)}`],
        day,
        time: '10:00',
        endReason: 'preventive',
        note: '',
        lots: {},
      } as never),
  },
  {
    what: 'rule otherwise',
    do: async (n) =>
      n % 2
        ? saveLimit(shop.coordinator, {
            assemblyId: shop.pumpId,
            task: 'hpSeals',
            id: uuid(),
            seen: (await limitOverrides.all({ status: 'active' }))[0]?.id ?? '',
            hours: String(400 + n),
            days: '',
            firstHours: '',
            firstDays: '',
            early: '10 %',
            late: 5,
            reason: 'hot water',
          } as never)
        : saveDuties(shop.coordinator, {
            assemblyId: shop.pumpId,
            seen: (await duties.all({ status: 'active' })).map(({ id }) => id),
            duties: [{ id: uuid(), key: 'hotInlet', factor: 60 + (n % 30), reason: 'all day' }],
          } as never),
  },
  {
    what: 'decide a practice',
    do: async (n) =>
      choosePractice(shop.coordinator, {
        practice: 'goodValves',
        modelId: null,
        choice: n % 2 ? 'inspect' : 'renew',
        reason: 'ours',
        version: (await practiceChoices.all())[0]?.version ?? 0,
      } as never),
  },
  {
    what: 'move the pump',
    do: async (n) =>
      moveAssembly(shop.coordinator, {
        id: uuid(),
        assemblyId: shop.pumpId,
        version: (await assemblies.byId(shop.pumpId))!.version,
        place: { where: 'shelf', yardId: shop.yardId, bin: `H-${n}` },
        day,
        time: '11:00',
        reason: 'swap',
      } as never),
  },
  {
    what: 'tell of the winter',
    do: async (n) => {
      const kinds = ['protected', 'proof', 'water', 'returned', 'evening', 'left'] as const
      await recordWinter(shop.technician, {
        id: uuid(),
        machineId: shop.machineId,
        kind: kinds[n % kinds.length]!,
        zone: n % 2 ? 'pump' : 'hose',
        method: n % 2 ? 'through' : 'drain',
        day,
        measuredC: null,
        passed: n % 3 > 0,
        litres: null,
        words: 'told',
      })
    },
  },
  {
    what: 'enter the frost of the yard',
    do: async (n) => {
      const [row] = await yardClimates.all({ id: shop.yardId })
      await saveClimate(shop.coordinator, {
        yardId: shop.yardId,
        ...(row && { version: row.version }),
        firstFrost: '2026-11-01',
        firstSpreadDays: 5 + (n % 9),
        lastFrost: '2026-04-01',
        lastSpreadDays: 9,
        designLowC: -8 - (n % 12),
        heatedStandsC: null,
        heatedReason: '',
        hallStandsC: -4,
        hallReason: '',
        outdoorsStandsC: 0,
        outdoorsReason: '',
        heatedSpace: n % 2 === 0,
      })
    },
  },
  {
    what: 'look at the circuit',
    do: async (n) => {
      const page = await getMachineWinter(shop.coordinator, shop.machineId)
      await saveCircuit(shop.coordinator, {
        machineId: shop.machineId,
        ...(page.version !== null && { version: page.version }),
        elements: page.circuit.map((element) =>
          element.kind === 'pressureHose' ? { ...element, lengthM: 10 + (n % 60) } : element,
        ),
        methods: n % 3 === 0 ? { hose: { method: 'toNozzle', reason: 'long' } } : {},
        turning: 'cord',
        fuelTankLitres: null,
        evening: n % 5 === 0 ? 'indoors' : '',
        eveningReason: '',
      })
    },
  },
  {
    what: 'retire the machine',
    do: async () => {
      const row = (await machines.byId(shop.machineId))!
      await retireMachine(shop.coordinator, { id: row.id, version: row.version, reason: 'sold' } as never)
    },
  },
]

/** What the services write, once more without their rules: each table that anything is kept of. */
type Poke = { table: unknown; set: (n: number) => object }
const pokes: [string, Poke][] = [
  ['companies', { table: companies, set: (n) => ({ noticeDays: n % 9 }) }],
  ['yards', { table: yards, set: (n) => ({ name: `Yard ${n}` }) }],
  ['people', { table: people, set: (n) => ({ name: `Person ${n}` }) }],
  ['machines', { table: machines, set: (n) => ({ name: `Rig ${n}`, bay: `${n}` }) }],
  ['assemblies', { table: assemblies, set: (n) => ({ number: `P-${n}` }) }],
  ['fittings', { table: fittings, set: (n) => ({ status: n % 2 ? 'active' : 'superseded' }) }],
  ['duty shares', { table: dutyShares, set: (n) => ({ share: (1 + (n % 4)) / 4 }) }],
  ['meters', { table: meters, set: (n) => ({ name: `Meter ${n}`, readingIntervalDays: 1 + (n % 30) }) }],
  ['meter events', { table: meterEvents, set: (n) => ({ status: n % 2 ? 'active' : 'superseded' }) }],
  ['readings', { table: readings, set: (n) => ({ status: n % 2 ? 'doubted' : 'accepted' }) }],
  ['spells', { table: spells, set: (n) => ({ status: n % 2 ? 'active' : 'withdrawn' }) }],
  ['signs', { table: signs, set: (n) => ({ words: `seen ${n}` }) }],
  ['early checks', { table: earlyChecks, set: (n) => ({ afterHours: 5 + (n % 40) }) }],
  ['pump models', { table: pumpModels, set: (n) => ({ maker: `Maker ${n}` }) }],
  ['visits', { table: visits, set: (n) => ({ day: `2026-08-${String(3 + (n % 20)).padStart(2, '0')}` }) }],
  ['marks', { table: marks, set: (n) => ({ reason: `because ${n}` }) }],
  ['practice choices', { table: practiceChoices, set: (n) => ({ choice: n % 2 ? 'renew' : 'reuse' }) }],
  ['sheets', { table: sheets, set: (n) => ({ state: n % 2 ? 'open' : 'abandoned' }) }],
  ['sheet entries', { table: sheetEntries, set: (n) => ({ late: n % 2 }) }],
  ['task records', { table: taskRecords, set: (n) => ({ status: n % 2 ? 'active' : 'superseded' }) }],
  ['parts', { table: parts, set: (n) => ({ minimum: n % 12, leadDays: n % 40 }) }],
  ['lots', { table: stockLots, set: (n) => ({ expiresOn: n % 2 ? '2026-07-01' : null }) }],
  ['movements', { table: stockMovements, set: (n) => ({ quantity: n % 7 }) }],
  ['suppliers', { table: suppliers, set: (n) => ({ leadDays: n % 30, name: `Seller ${n}` }) }],
  ['offers', { table: offers, set: (n) => ({ unitCents: 100 + n, leadDays: n % 2 ? n % 25 : null }) }],
  ['orders', { table: orders, set: (n) => ({ state: n % 2 ? 'sent' : 'cancelled' }) }],
  ['order lines', { table: orderLines, set: (n) => ({ confirmed: n % 2 ? n % 6 : null, calledOff: n % 3 }) }],
  ['vans', { table: vans, set: (n) => ({ name: `Van ${n}` }) }],
  ['yard climates', { table: yardClimates, set: (n) => ({ heatedSpace: n % 2 }) }],
  ['yard outlooks', { table: yardOutlooks, set: (n) => ({ trouble: `no answer ${n}` }) }],
  ['antifreezes', { table: antifreezes, set: (n) => ({ contentPercent: 60 + (n % 40) }) }],
  ['winter terms', { table: winterTerms, set: (n) => ({ version: n + 1 }) }],
  ['wet circuits', { table: wetCircuits, set: (n) => ({ fuelTankLitres: n % 50 }) }],
  [
    'winter events',
    { table: winterEvents, set: (n) => ({ recordedAt: `2026-08-0${1 + (n % 3)}T10:00:00.000Z` }) },
  ],
  ['lives', { table: lives, set: (n) => ({ carriedUsage: n % 500 }) }],
  ['overrides', { table: limitOverrides, set: (n) => ({ hours: 300 + n }) }],
  ['duties', { table: duties, set: (n) => ({ factor: 0.5 + (n % 5) / 10 }) }],
]
type AnyTable = {
  all: () => Promise<{ id: string }[]>
  update: (where: object, values: object) => Promise<number>
  remove: (where: object) => Promise<number>
  insert: (row: object) => Promise<void>
}
for (const [what, { table, set }] of pokes) {
  const any = table as AnyTable
  acts.push({
    what: `change ${what}`,
    do: async (n) => {
      const rows = await any.all()
      const row = rows[n % rows.length]
      if (row) await write(() => any.update({ id: row.id }, set(n)))
    },
  })
}
acts.push({
  what: 'take a life out and put it in again',
  do: async (n) => {
    const rows = await lives.all()
    const row = rows[n % rows.length]!
    await write(async () => {
      await lives.remove({ id: row.id })
      await lives.insert({ ...row, position: `hpSeal@${1 + (n % 3)}` })
    })
  },
})

/** Something of everything, so that there is something to change. */
async function fill(): Promise<void> {
  const once = (what: string, n: number) => acts.find((each) => each.what === what)!.do(n)
  await once('add a part', 1)
  await once('add a part', 2)
  await once('receive or count a part', 0)
  await once('report a sign', 1)
  await once('lay up or book', 10)
  await once('book a visit', 2)
  await once('rule otherwise', 0)
  await once('rule otherwise', 1)
  await once('decide a practice', 1)
  await once('put something off', 0)
  await once('enter the frost of the yard', 3)
  await once('look at the circuit', 1)
  await saveProduct(shop.coordinator, {
    id: uuid(),
    name: 'Poured',
    fluid: 'propylene',
    sold: 'concentrate',
    contentPercent: 95,
    freezesAtC: null,
    burstsAtC: null,
    packLitres: 20,
    price: '98.00',
    partId: null,
    note: '',
  })
  const [sheet] = await sheets.all()
  const recorded = { recordedAt: `${day}T10:00:00.000Z`, recordedById: shop.technician.id }
  const of = { assemblyId: shop.pumpId, sheetId: sheet!.id, at: '2026-08-02T10:00:00.000Z' }
  await write(async () => {
    await taskRecords.insert({
      id: uuid(),
      ...of,
      task: 'hpSeals',
      position: 'hpSeal@1',
      status: 'active',
      ...recorded,
    })
    await earlyChecks.insert({
      ...{ id: uuid(), ...of, afterHours: 20, status: 'open', words: '', doneAt: null, doneById: null },
      ...{ endSheetId: null, ...recorded, version: 1 },
    })
  })
}

/** The workshop with all that, made once and copied for every run of a law. */
const filledWorkshop = () =>
  madeOnce('filled', async () => {
    shop = await makeWorkshop()
    await at(day, async () => {
      await bookedSheet(shop)
      await fill()
    })
    return shop
  })

/** Does it; what a rule forbids is not done, which is as good. */
async function carryOut({ what, do: act }: Act, n: number): Promise<void> {
  await act(n).catch((error: unknown) => {
    // A row that is not there yet.
    if (problemOf(error) === null && !(error instanceof TypeError)) throw new Error(what, { cause: error })
  })
}

test('law: after any sequence of writes everything that is kept equals what is made from nothing', async () => {
  const step = fc.tuple(fc.nat(acts.length - 1), fc.nat(999))
  await fc.assert(
    fc.asyncProperty(fc.array(step, { minLength: 1, maxLength: 14 }), async (steps) => {
      shop = await filledWorkshop()
      await at(day, async () => {
        await answers()
        for (const [which, n] of steps) {
          await carryOut(acts[which]!, n)
          if (n % 3 === 0) await answers()
        }
      })
      const asKept = await at(day, answers, '16:00')
      forget()
      const fresh = await at(day, answers, '16:00')
      const told = steps.map(([which, n]) => `${acts[which]!.what} ${n}`).join('; ')
      expect({ told, ...asKept }).toEqual({ told, ...fresh })
    }),
    { numRuns: 25, endOnFailure: true },
  )
}, 300_000)

test('law: inside a transaction what is given is what would be made from nothing there', async () => {
  const step = fc.tuple(fc.nat(acts.length - 1), fc.nat(999))
  await fc.assert(
    fc.asyncProperty(fc.array(step, { minLength: 1, maxLength: 6 }), async (steps) => {
      shop = await filledWorkshop()
      const [given, fresh] = await at(day, async () => {
        await answers()
        return write(async () => {
          for (const [which, n] of steps) await carryOut(acts[which]!, n)
          const given = await answers()
          forget()
          return [given, await answers()]
        })
      })
      const told = steps.map(([which, n]) => `${acts[which]!.what} ${n}`).join('; ')
      expect({ told, ...given }).toEqual({ told, ...fresh })
    }),
    { numRuns: 8, endOnFailure: true },
  )
}, 300_000)

describe('what is kept', () => {
  beforeEach(async () => {
    shop = await workshop()
  })
  const counted = () => {
    let made = 0
    return {
      made: () => made,
      make: async () => ((made += 1), (await machines.all()).map(({ name }) => name)),
    }
  }

  test('is made once for all who ask, and anew only after what it read was written', async () => {
    const { made, make } = counted()
    await Promise.all([kept('names', make), kept('names', make)])
    expect(made()).toBe(1)
    await write(() => yards.update({ id: shop.yardId }, { name: 'Elsewhere' }))
    await kept('names', make)
    expect(made()).toBe(1)
    await write(() => machines.update({ id: shop.machineId }, { name: 'Other' }))
    expect(await kept('names', make)).toEqual(['Other'])
    expect(made()).toBe(2)
  })

  test('a write that is taken back touches nothing, and inside it nothing is kept', async () => {
    const { made, make } = counted()
    const before = await kept('names', make)
    await expect(
      write(async () => {
        await machines.update({ id: shop.machineId }, { name: 'Never' })
        expect(await kept('names', make)).toEqual(['Never'])
        throw new Error('no')
      }),
    ).rejects.toThrow('no')
    expect(await kept('names', make)).toBe(before)
    expect(made()).toBe(2)
  })

  test('of one meter stands while another is read, however the write names its rows', async () => {
    const asked: string[][] = []
    const each = () =>
      keptEach('one', [shop.meterId, 'another'], ['readings'], async (ids) => {
        asked.push(ids)
        return new Map(ids.map((id) => [id, id]))
      })
    const [row] = await readings.all()
    await each()
    expect(asked).toEqual([[shop.meterId, 'another']])
    const writes = [
      () => readings.insert({ ...row!, id: uuid() }),
      () => readings.update({ id: row!.id }, { note: 'x' }),
      () => readings.update({ status: 'accepted' }, { note: 'y' }),
      () => readings.remove({ id: row!.id }),
    ]
    for (const one of writes) {
      await write(async () => void (await one()))
      await each()
      expect(asked.at(-1)).toEqual([shop.meterId])
    }
    // One that matches no row writes nothing.
    const before = asked.length
    await write(() => readings.update({ id: 'nothing' }, { note: 'z' }))
    await each()
    expect(asked).toHaveLength(before)
  })

  test('what only grows is read from where it was read to, and what is taken back was never there', async () => {
    const after: (string | undefined)[] = []
    const place = uuid()
    const add = (name: string) =>
      yards.insert({ id: uuid(), name, place, note: '', createdAt: name, version: 1 })
    const names = () =>
      grown<string>(`names in ${place}`, async (last) => {
        after.push(last)
        const rows = await yards.all({ place }, [['name', 'ASC']])
        return rows.map(({ name }) => name).filter((name) => last === undefined || name > last)
      })
    expect(await names()).toEqual([])
    await write(() => add('1'))
    // Whoever asks may add to what they were given.
    ;(await names()).push('their own')
    await write(async () => {
      await add('2')
      expect(await names()).toEqual(['1', '2'])
      await expect(
        attempt(async () => {
          await add('3')
          expect(await names()).toEqual(['1', '2', '3'])
          throw new Error('no')
        }),
      ).rejects.toThrow('no')
      expect(await names()).toEqual(['1', '2'])
    })
    expect(await Promise.all([names(), names()])).toEqual([
      ['1', '2'],
      ['1', '2'],
    ])
    await write(() => add('4'))
    expect(await names()).toEqual(['1', '2', '4'])
    expect(after).toEqual([undefined, undefined, '1', '1', '1', '1', '1', '2'])
    await write(async () => touchEverything())
    expect(await names()).toEqual(['1', '2', '4'])
    expect(after.at(-1)).toBeUndefined()
  })

  test('a write that cannot say what it touches touches everything', async () => {
    const { made, make } = counted()
    await kept('names', make)
    await write(async () => touchEverything())
    await kept('names', make)
    expect(made()).toBe(2)
    const [rows] = await database().query(`SELECT sequence FROM touches WHERE topic = '*'`)
    expect(rows).toHaveLength(1)
  })

  test('is made by reading alone', async () => {
    await expect(
      kept('by writing', () => write(() => yards.update({ id: shop.yardId }, { name: 'Elsewhere' }))),
    ).rejects.toThrow('by reading alone')
  })

  test('is given to a transaction that has written nothing it rests on, even while it is being made', async () => {
    const { made, make } = counted()
    let finish = () => undefined as void
    const isToEnd = new Promise<void>((resolve) => (finish = resolve))
    const meanwhile = kept('names', async () => {
      const names = await make()
      await isToEnd
      return names
    })
    await write(async () => {
      await yards.update({ id: shop.yardId }, { name: 'Elsewhere' })
      while (made() === 0) await new Promise((resolve) => setTimeout(resolve, 5))
      const asked = kept('names', make)
      finish()
      await asked
      expect(made()).toBe(1)
      await machines.update({ id: shop.machineId }, { name: 'Other' })
      expect(await kept('names', make)).toEqual(['Other'])
    })
    await meanwhile
    expect(await kept('names', make)).toEqual(['Other'])
  })

  test('a value that something was made of, and that failed once, is asked for again', async () => {
    let fails = true
    const make = async () => {
      if (fails) throw new Error('not now')
      return 'there'
    }
    await expect(kept('failing', make)).rejects.toThrow('not now')
    fails = false
    expect(await kept('failing', make)).toBe('there')
  })

  test('derived stands as long as what it is from', () => {
    const from = { hours: 3 }
    const first = derived('twice', [from], () => ({ hours: from.hours * 2 }))
    expect(derived('twice', [from], () => ({ hours: 0 }))).toBe(first)
    expect(derived('twice', [{ hours: 3 }], () => ({ hours: 0 }))).toEqual({ hours: 0 })
  })

  test('what was learned of a meter outlives the process, and only of the very readings it was learned from', async () => {
    const asked = () =>
      at(day, async () => (await getWear(shop.coordinator, shop.pumpId))!.clocks.map((each) => each.aboutDay))
    // Of the meters of other tests too.
    forgetFits()
    const before = await asked()
    expect(before.some((each) => each !== null)).toBe(true)
    expect(await keepFits()).toBe(1)
    expect(await keepFits()).toBe(0)
    const restart = () => {
      forget()
      forgetFits()
    }
    restart()
    expect(await asked()).toEqual(before)
    expect(await keepFits()).toBe(0)
    // What was kept is what is used: twice the level halves the days.
    const [row] = await loadFits()
    const fit = row!.fit as UsageFit
    await saveFits([{ ...row!, fit: { ...fit, level: fit.level * 2 } }])
    restart()
    const twice = await asked()
    expect(twice).not.toEqual(before)
    // One more reading, and it is learned anew.
    await saveFits([{ ...row!, from: 'of other readings', fit: { ...fit, level: fit.level * 2 } }])
    restart()
    expect(await asked()).toEqual(before)
    expect(await keepFits()).toBe(1)
  })

  test('another process’s write is seen after a moment, by its note in the table', async () => {
    const { make } = counted()
    await kept('names', make)
    const [{ last }] = (await database()
      .query('SELECT MAX(sequence) AS last FROM touches', {
        plain: false,
        raw: true,
      })
      .then(([rows]) => rows)) as [{ last: number }]
    await database().query(`UPDATE machines SET name = 'By another'`)
    await database().query(
      `INSERT INTO touches (topic, sequence) VALUES ('machines', :next)
       ON CONFLICT (topic) DO UPDATE SET sequence = excluded.sequence`,
      { replacements: { next: last + 1 } },
    )
    await new Promise((resolve) => setTimeout(resolve, 400))
    expect(await kept('names', make)).toEqual(['By another'])
  })
})
