import { readFileSync } from 'node:fs'
import path from 'node:path'
import { addDays, type Day } from '@/core/calendar'
import { usualPlaces, type Zone } from '@/core/winter'
import { type Actor, instantOf, runAt } from '@/services/house'
import { saveSpell } from '@/services/hours'
import { getMachine } from '@/services/fleet'
import { listPlaces, receivePart, savePart } from '@/services/stores'
import {
  getMachineWinter,
  getTerms,
  importMinima,
  loadYards,
  recordWinter,
  saveCircuit,
  saveClimate,
  saveProduct,
  saveTerms,
} from '@/services/winter'
import { idOf } from './random'

/** Done already in Upland and Harbour yard, and how it was proved. */
const safe: [number: string, measured: string][] = [
  ['T-14', '−22'],
  ['V-24', '−26'],
  ['V-11', '−20'],
  ['V-12', '−21'],
]

/**
 * A campaign half done in mid-October: ten winters of minima for each yard, fluid that will not do, machines
 * safe and proved, one that ran again, one whose proof failed, one out on a job and one that works on.
 */
export async function tellWinter(
  coordinator: Actor,
  technicians: Actor[],
  today: Day,
  timeZone: string,
): Promise<void> {
  const on = <T>(daysAgo: number, work: () => Promise<T>, time = '10:00') =>
    runAt(instantOf(addDays(today, -daysAgo), time, timeZone), work)
  const [technician = coordinator] = technicians
  await on(30, async () => {
    for (const { yard } of await loadYards()) {
      const file = `${yard.name.toLowerCase().replace(' ', '-')}.csv`
      const text = readFileSync(path.join(process.cwd(), 'src/demo/minima', file), 'utf8')
      await importMinima(coordinator, { yardId: yard.id, fileName: file, text, unit: null })
      const upland = yard.name.startsWith('Upland')
      await saveClimate(coordinator, {
        yardId: yard.id,
        version: 1,
        firstFrost: null,
        firstSpreadDays: null,
        lastFrost: null,
        lastSpreadDays: null,
        designLowC: null,
        heatedStandsC: null,
        heatedReason: usualPlaces.heated.reason,
        hallStandsC: upland ? -3 : -4,
        hallReason: upland
          ? 'Its north door does not close: 1 °C sooner than ours.'
          : usualPlaces.indoorsUnheated.reason,
        outdoorsStandsC: 0,
        outdoorsReason: usualPlaces.outdoors.reason,
        heatedSpace: !upland,
      })
    }
  })
  await fluids(coordinator, today, on)
  await saveSpell(coordinator, idOf('V-25'), {
    id: idOf('V-25 autumn job'),
    kind: 'job',
    fromDay: addDays(today, -2),
    toDay: addDays(today, 9),
    hoursPerDay: 6,
    what: 'Underpass tiles, ring road',
  })
  await on(14, () =>
    lookAt(coordinator, 'V-15', { evening: 'indoors', eveningReason: 'Depot nights all winter' }),
  )
  await on(14, () =>
    lookAt(coordinator, 'T-12', {
      methods: { hose: { method: 'toNozzle', reason: '80 m of hose on the reel' } },
    }),
  )
  for (const [number, measured] of safe) await protect(number, 1, measured, true)
  // It went out again the week after: a reading says so.
  await protect('V-22', 9, '−24', true)
  await protect('V-21', 1, '−11', false)

  async function protect(number: string, daysAgo: number, measured: string, passed: boolean): Promise<void> {
    const machine = await getMachine(coordinator, idOf(number))
    const { plan } = await getMachineWinter(coordinator, machine.id)
    const day = addDays(today, -daysAgo)
    const note = (
      kind: 'protected' | 'proof',
      zone: Zone,
      time: string,
      more: Partial<Parameters<typeof recordWinter>[1]>,
    ) =>
      on(
        daysAgo,
        () =>
          recordWinter(technician, {
            id: idOf(`${number} ${kind} ${zone}`),
            machineId: machine.id,
            kind,
            zone,
            method: '',
            day,
            measuredC: null,
            passed: false,
            litres: null,
            words: '',
            ...more,
          }),
        time,
      )
    for (const { zone, method, recipe } of plan.zones) {
      const poured = recipe?.ok ? recipe.concentrateLitres + recipe.waterLitres : null
      await note('protected', zone, '16:10', {
        method,
        litres: poured === null ? null : Math.round(poured * 10) / 10,
      })
      const isPump = zone === 'pump'
      await note('proof', zone, '16:40', {
        passed: isPump ? passed : true,
        measuredC: recipe?.ok ? (measured as never) : null,
        words: recipe?.ok ? '' : 'nothing came any more',
      })
    }
  }

  async function lookAt(
    actor: Actor,
    number: string,
    more: Partial<Parameters<typeof saveCircuit>[1]>,
  ): Promise<void> {
    const page = await getMachineWinter(actor, idOf(number))
    await saveCircuit(actor, {
      machineId: page.machineId,
      elements: page.circuit,
      methods: {},
      turning: page.turning,
      fuelTankLitres: 25,
      evening: '',
      eveningReason: '',
      ...more,
    })
  }
}

/** What is poured, two products that plan nothing here, and too little of the first. */
async function fluids(
  coordinator: Actor,
  today: Day,
  on: <T>(daysAgo: number, work: () => Promise<T>, time?: string) => Promise<T>,
): Promise<void> {
  const partId = idOf('part AF-20')
  await on(40, () =>
    savePart(coordinator, {
      id: partId,
      number: 'AF-20',
      name: 'Antifreeze, propylene glycol concentrate',
      makersNumber: '',
      unit: 'L',
      packSize: 20,
      price: '4.90',
      leadDays: 4,
      minimum: '0',
      bin: 'W-01',
      fits: [],
      note: '',
    } as never),
  )
  const [home] = (await listPlaces(coordinator)).filter(({ kind }) => kind === 'yard')
  await on(38, () =>
    receivePart(coordinator, {
      id: idOf('lot AF-20'),
      partId,
      quantity: 26,
      code: 'AF-2609',
      receivedOn: addDays(today, -38),
      price: '' as never,
      expiresOn: null,
      note: '',
      ...(home && { placeId: home.id }),
    } as never),
  )
  const product = (name: string, more: object) =>
    on(35, () =>
      saveProduct(coordinator, {
        id: idOf(`antifreeze ${name}`),
        name,
        fluid: 'propylene',
        sold: 'concentrate',
        contentPercent: null,
        freezesAtC: null,
        burstsAtC: null,
        packLitres: 20,
        price: '98.00',
        partId: null,
        note: '',
        ...more,
      }),
    )
  await product('Greywell PG concentrate', {
    contentPercent: 94,
    partId,
    note: 'Dyed blue; its own refractometer scale is on the card in the box.',
  })
  await product('Greywell PG ready', { sold: 'ready', contentPercent: 43, freezesAtC: -24, price: '61.00' })
  await product('Pipe guard −50', {
    sold: 'ready',
    burstsAtC: -50,
    price: '34.00',
    note: 'States a burst point only.',
  })
  await product('Tolm screen blend', {
    fluid: 'alcohol',
    sold: 'ready',
    freezesAtC: -30,
    packLitres: 5,
    price: '12.50',
  })
  await on(35, async () => {
    const terms = await getTerms(coordinator)
    const yards = await loadYards()
    await saveTerms(coordinator, {
      ...terms,
      productId: idOf('antifreeze Greywell PG concentrate'),
      weatherUrl: 'http://localhost:4010/outlook',
      crews: yards.map(({ yard }) => ({
        yardId: yard.id,
        people: 1,
        minutes: yard.name.startsWith('Upland') ? 150 : 180,
        days: [1, 2, 3, 4, 5],
      })),
    })
  })
}
