import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { v7 as uuid } from 'uuid'
import { addDays, dayNumber } from '@/core/calendar'
import { toCsv } from '@/core/interchange'
import type { AntifreezeInput, CircuitInput, WinterNoteInput } from '@/core/winter'
import { sheetState } from '@/core/sheets'
import { weatherAnswer } from '@/demo/weather'
import { receivePart, savePart } from '@/services/stores'
import { addPerson } from '@/services/access'
import { bookCampaign, bookVisit, getVisit, listOpenVisits, openDecision, saveCrew } from '@/services/plan'
import { entriesOf, startSheet } from '@/services/sheets'
import { recordReading, spellsOf } from '@/services/hours'
import {
  compareMethods,
  frostWatch,
  getMachineWinter,
  getTerms,
  getWinter,
  importMinima,
  keepOutlook,
  listProducts,
  recordFrost,
  recordWinter,
  saveCircuit,
  saveClimate,
  saveProduct,
  saveTerms,
} from '@/services/winter'
import { problemIn, removeDatabase } from '../support/database'
import { at, signAsPresumed, Tablet, workshop, type Workshop } from '../support/bench'

let shop: Workshop
const day = '2026-10-14'
const now = <T>(work: () => Promise<T>) => at(day, work)
beforeEach(async () => {
  shop = await workshop()
})
afterAll(removeDatabase)

/** Winters at 5 °C with first frost on 20, 25 and 30 October and one night of -14, -15, -16 °C each. */
function minima(): string {
  const rows: [string, number][] = []
  for (const [index, year] of [2022, 2023, 2024].entries())
    for (let number = dayNumber(`${year}-07-01`); number <= dayNumber(`${year + 1}-06-30`); number++) {
      const date = addDays('1970-01-01', number)
      const cold: Record<string, number> = {
        [`${year}-10-${20 + 5 * index}`]: -1,
        [`${year + 1}-01-15`]: -14 - index,
        [`${year + 1}-04-0${2 + index}`]: -2,
      }
      rows.push([date, cold[date] ?? 5])
    }
  return toCsv(['day', 'min °C'], rows)
}
const take = (text = minima(), unit: 'C' | 'F' | null = null) =>
  importMinima(shop.coordinator, { yardId: shop.yardId, fileName: 'minima.csv', text, unit })

const product = (more: Partial<AntifreezeInput> = {}): AntifreezeInput => ({
  id: uuid(),
  name: 'Frostfest',
  fluid: 'propylene',
  sold: 'concentrate',
  contentPercent: '95' as never,
  freezesAtC: '' as never,
  burstsAtC: '' as never,
  packLitres: '20' as never,
  price: '98.00',
  partId: '' as never,
  note: '',
  ...more,
})
const told = (more: Partial<WinterNoteInput>): WinterNoteInput => ({
  id: uuid(),
  machineId: shop.machineId,
  kind: 'protected',
  zone: '',
  method: '',
  day,
  measuredC: '' as never,
  passed: false,
  litres: '' as never,
  words: '',
  ...more,
})
const note = (more: Partial<WinterNoteInput>) => recordWinter(shop.technician, told(more))
const frost = (night: string) =>
  recordFrost(shop.technician, { id: uuid(), yardId: shop.yardId, day: night, minC: '-5' as never })
const stateOf = async () => (await getMachineWinter(shop.coordinator, shop.machineId)).worst

test('minima make a climate, the campaign follows from it, and a faulty file changes nothing', () =>
  now(async () => {
    expect(await problemIn(take('day,min °C\n2022-10-20,-1\n2022-10-20,-3\n'))).toMatchObject({
      fields: { text: expect.stringContaining('line 2 and on line 3') },
    })
    expect(await problemIn(take('day;min\n2022-07-01;41\n2022-07-02;33,5\n'))).toMatchObject({
      fields: { text: expect.stringContaining('look like °F') },
    })
    expect(await problemIn(take('day,min °C\n2022-10-20,-1\n'))).toMatchObject({
      fields: { text: expect.stringContaining('not one whole winter') },
    })
    expect((await getWinter(shop.coordinator)).yards[0]).toMatchObject({ hasClimate: false, finish: null })
    expect(await take()).toEqual({ days: 1096, winters: 3, leftOut: 0, gaps: 0 })
    await saveProduct(shop.coordinator, product())
    const page = await getWinter(shop.coordinator)
    const [yard] = page.yards
    // -15 less 1.8856 · 1 · √(4/3) = -17.2
    expect(yard).toMatchObject({ hasClimate: true, designLowC: -17.2 })
    expect(yard!.rows[0]).toMatchObject({ number: 'T-04', state: 'inUse', day: '2026-10-14' })
    expect(yard!.rows[0]!.risk).toBeGreaterThan(0)
    expect(page.fluid.product).toBe('Frostfest')
    expect(page.fluid.toGoLitres).toBeGreaterThan(0)
    expect(page.whatIf.map(({ name }) => name)).toContain('Everything blown out')
    const blown = page.whatIf.find(({ name }) => name === 'Everything blown out')!
    expect(blown.litres).toBeLessThan(page.whatIf[0]!.litres)
  }))

test('what is protected holds until it runs, and frost on what is void exposes it', () =>
  now(async () => {
    await take()
    await saveProduct(shop.coordinator, product())
    const page = await getMachineWinter(shop.coordinator, shop.machineId)
    const zones = page.plan.zones.map(({ zone }) => zone)
    for (const { zone, method } of page.plan.zones) await note({ kind: 'protected', zone, method })
    expect(await stateOf()).toBe('unproved')
    for (const zone of zones)
      await note({ kind: 'proof', zone, passed: zone !== 'pump', measuredC: '-25' as never })
    expect(await stateOf()).toBe('failed')
    await note({ kind: 'proof', zone: 'pump', passed: true, measuredC: '-25' as never })
    expect(await stateOf()).toBe('protected')
    // Whoever plans other work on it is told what that undoes.
    const heldNow = async () =>
      (await openDecision(shop.coordinator, { machineId: shop.machineId, visitId: null })).held
    expect(await heldNow()).toMatch(/^It is made safe for winter: running it.*undoes that\./)
    expect((await getWinter(shop.coordinator)).counts).toMatchObject({ safe: 1, waiting: 0, atRisk: 0 })
    await at('2026-10-20', async () => {
      await recordReading(shop.technician, {
        id: uuid(),
        meterId: shop.meterId,
        day: '2026-10-20',
        time: '07:00',
        typed: '1160',
        readBy: '',
        note: '',
        vouched: true,
      })
      expect(await stateOf()).toBe('void')
      expect((await frostWatch()).map(({ number }) => number)).toEqual(['T-04'])
      // The frost of the morning before it ran met it protected.
      await frost('2026-10-20')
      expect(await stateOf()).toBe('void')
    })
    await at('2026-10-21', async () => {
      expect(await frost('2026-10-21')).toEqual({ machines: 1 })
      expect(await stateOf()).toBe('exposed')
      const refused = recordWinter(shop.technician, told({ kind: 'returned', day: '2026-10-21' }))
      expect(await problemIn(refused)).toMatchObject({ kind: 'conflict' })
      await recordWinter(
        shop.technician,
        told({ kind: 'thawed', day: '2026-10-21', words: 'manifold whole, tight at 10 bar' }),
      )
      expect(await stateOf()).toBe('inUse')
    })
  }))

test('a circuit is kept as it was looked at; a stale edit and a bore that cannot be are refused', () =>
  now(async () => {
    const page = await getMachineWinter(shop.coordinator, shop.machineId)
    expect(page.isTemplate).toBe(true)
    const input: CircuitInput = {
      machineId: shop.machineId,
      elements: page.circuit.map((element) => ({ ...element })),
      methods: { hose: { method: 'toNozzle', reason: 'a long reel' } },
      turning: 'pulley',
      fuelTankLitres: '40' as never,
      evening: '',
      eveningReason: '',
    }
    await saveCircuit(shop.coordinator, input)
    const kept = await getMachineWinter(shop.coordinator, shop.machineId)
    expect(kept).toMatchObject({ isTemplate: false, version: 1, turning: 'pulley', fuelTankLitres: 40 })
    expect(kept.plan.zones.find(({ zone }) => zone === 'hose')).toMatchObject({
      method: 'toNozzle',
      from: 'this machine: a long reel',
    })
    const bad = { ...input, version: 1, elements: [{ ...input.elements[0]!, boreMm: 5000 }] }
    expect(await problemIn(saveCircuit(shop.coordinator, bad))).toMatchObject({
      kind: 'invalid',
    })
    await saveCircuit(shop.coordinator, { ...input, version: 1, turning: 'cord' })
    expect(
      await problemIn(saveCircuit(shop.coordinator, { ...input, version: 1, turning: 'hub' })),
    ).toMatchObject({ kind: 'conflict' })
    expect(await problemIn(saveCircuit(shop.technician, { ...input, version: 2 }))).toMatchObject({
      kind: 'notAllowed',
    })
  }))

test('products by their sheet, terms, and the methods of the fleet side by side', () =>
  now(async () => {
    await saveProduct(shop.coordinator, product())
    await saveProduct(
      shop.coordinator,
      product({
        name: 'Klarfrost ready',
        sold: 'ready',
        contentPercent: '' as never,
        burstsAtC: '-46' as never,
      }),
    )
    const refused = saveProduct(shop.coordinator, product())
    expect(await problemIn(refused)).toMatchObject({ fields: { name: expect.any(String) } })
    // Two products and no choice: nothing is planned with either.
    expect(
      (await getMachineWinter(shop.coordinator, shop.machineId)).plan.troubles.map(({ why }) => why),
    ).toContain('No antifreeze is chosen.')
    const ready = (await listProducts()).find(({ name }) => name.startsWith('Klarfrost'))!
    await saveTerms(shop.coordinator, { ...(await getTerms(shop.coordinator)), productId: ready.id })
    expect((await getMachineWinter(shop.coordinator, shop.machineId)).plan.troubles[0]!.why).toContain(
      'burst point only',
    )
    const bad = saveTerms(shop.coordinator, {
      ...(await getTerms(shop.coordinator)),
      weatherUrl: 'not an address',
      riskPercent: 99 as never,
    })
    expect(await problemIn(bad)).toMatchObject({
      fields: { weatherUrl: expect.any(String), riskPercent: expect.any(String) },
    })
    const methods = await compareMethods(shop.coordinator)
    expect(methods.zones.find(({ zone }) => zone === 'pump')!.methods.map(({ method }) => method)).toContain(
      'blowOut',
    )
    await saveClimate(shop.coordinator, {
      yardId: shop.yardId,
      firstFrost: '2026-11-05',
      firstSpreadDays: '10' as never,
      lastFrost: '2026-04-02',
      lastSpreadDays: '9' as never,
      designLowC: '-14' as never,
      heatedStandsC: '' as never,
      heatedReason: '',
      hallStandsC: '-4' as never,
      hallReason: 'thick walls',
      outdoorsStandsC: '0' as never,
      outdoorsReason: '',
      heatedSpace: false,
    })
    expect((await getWinter(shop.coordinator)).yards[0]).toMatchObject({
      designLowC: -14,
      climateSays: 'First and last frost as entered.',
    })
  }))

/** Antifreeze on the shelf, poured by the company. */
async function stocked(litres: number): Promise<string> {
  const partId = uuid()
  await savePart(shop.coordinator, {
    id: partId,
    number: 'AF-20',
    name: 'Antifreeze',
    makersNumber: '',
    unit: 'L',
    packSize: 20,
    price: '4.90',
    leadDays: 4,
    minimum: '0',
    bin: 'W-01',
    fits: [],
    note: '',
  } as never)
  await receivePart(shop.coordinator, {
    id: uuid(),
    partId,
    quantity: litres,
    code: '',
    receivedOn: day,
    price: '' as never,
    expiresOn: null,
    note: '',
  })
  await saveProduct(shop.coordinator, product({ partId }))
  return partId
}
const winterVisit = (
  winter: 'lay' | 'return',
  on: string,
  items: Parameters<typeof bookVisit>[1]['items'] = [],
) => ({
  id: uuid(),
  items,
  winter,
  machineId: shop.machineId,
  day: on,
  startTime: '',
  leadId: shop.technician.id,
  note: '',
})

test('a winter visit reserves what it pours; its sheet runs, makes safe, drains and fills in that order, and a failed proof is measured again', () =>
  now(async () => {
    await take()
    const partId = await stocked(10)
    const visit = winterVisit('lay', '2026-10-15')
    await bookVisit(shop.coordinator, visit)
    expect(await problemIn(bookVisit(shop.coordinator, winterVisit('lay', '2026-10-16')))).toMatchObject({
      kind: 'conflict',
    })
    const [line] = await listOpenVisits(shop.coordinator)
    expect(line).toMatchObject({ winter: 'lay', services: [{ name: 'Make safe for winter' }] })
    const poured = (await getVisit(shop.coordinator, visit.id)).parts.find(
      ({ name }) => name === 'Frostfest',
    )!
    expect(poured.stock).toMatchObject({ partId, missing: 0 })

    const { id: sheetId } = await startSheet(shop.technician, { id: uuid(), visitId: visit.id })
    const work = new Tablet(shop.technician, sheetId)
    await work.send(
      work.entry('reading', { meterId: shop.meterId, typed: '1130', unreadable: '', vouched: true }),
    )
    await work.tickAll('winter/protect/pump/proof')
    const state = async () => sheetState(await entriesOf(sheetId))!
    const done = (await state()).steps.filter((each) => each.state === 'done').map(({ step }) => step.key)
    const first = (part: string) => done.findIndex((key) => key.startsWith(part))
    expect(first('winter/run')).toBe(0)
    expect(first('winter/run')).toBeLessThan(first('winter/stop'))
    expect(first('winter/stop')).toBeLessThan(first('winter/drain'))
    expect(first('winter/drain')).toBeLessThan(first('winter/protect'))

    // Nothing is run any more, and a proof that falls short is none whatever the reason.
    const key = 'winter/protect/pump/proof'
    const proof = (value: number, reason = '') =>
      work.entry('done', { measure: { value, unit: '°C' }, torque: null, answer: '', reason }, key)
    const tooWarm = await work.send(proof(-11))
    expect(tooWarm.refused[0]!.message).toContain('measure again')
    expect((await work.send(proof(-11, 'it will do'))).refused).toHaveLength(1)
    await work.send(
      work.entry(
        'measured',
        {
          assemblyId: shop.machineId,
          position: null,
          what: 'freezing point',
          value: -11,
          unit: '°C',
          how: 'refractometer',
          words: 'failed',
        },
        key,
      ),
    )
    expect((await work.send(proof(-25))).refused).toEqual([])
    await work.tickAll()
    await signAsPresumed(shop.technician, sheetId)
    const page = await getMachineWinter(shop.coordinator, shop.machineId)
    expect(page.worst).toBe('protected')
    const proofs = page.history.flatMap(({ event }) =>
      event.kind === 'proof' && event.zone === 'pump' ? [event.passed] : [],
    )
    expect(proofs).toEqual([true, false])
    // Read again as it closed: nothing ran. Half an hour more, and it is void.
    const reading = (typed: string) =>
      recordReading(shop.technician, {
        id: uuid(),
        meterId: shop.meterId,
        day: '2026-10-20',
        time: '07:00',
        typed,
        readBy: '',
        note: '',
        vouched: true,
      })
    await at('2026-10-20', async () => {
      await reading('1130.1')
      expect((await getMachineWinter(shop.coordinator, shop.machineId)).worst).toBe('protected')
    })
    await at('2026-10-21', async () => {
      await recordReading(shop.technician, {
        id: uuid(),
        meterId: shop.meterId,
        day: '2026-10-21',
        time: '07:00',
        typed: '1130.6',
        readBy: '',
        note: '',
        vouched: true,
      })
      expect((await getMachineWinter(shop.coordinator, shop.machineId)).worst).toBe('void')
    })
  }))

test('other services come first on the sheet, and spring brings it back', () =>
  now(async () => {
    await take()
    await saveProduct(shop.coordinator, product())
    const items = [{ assemblyId: shop.pumpId, task: 'hpSeals', positions: ['hpSeal@1'] }]
    const visit = winterVisit('lay', '2026-10-15', items)
    await bookVisit(shop.coordinator, visit)
    const { id: sheetId } = await startSheet(shop.technician, { id: uuid(), visitId: visit.id })
    const work = new Tablet(shop.technician, sheetId)
    await work.send(
      work.entry('reading', { meterId: shop.meterId, typed: '1130', unreadable: '', vouched: true }),
    )
    await work.tickAll()
    const keys = sheetState(await entriesOf(sheetId))!.steps.map(({ step }) => step.phase)
    expect(keys.lastIndexOf('prove')).toBeLessThan(keys.indexOf('run'))
    await signAsPresumed(shop.technician, sheetId)
    expect(await stateOf()).toBe('protected')
    // A sheet that proves its work runs the machine: what was made safe is so no more.
    await at('2026-11-02', async () => {
      const service = { ...winterVisit('lay', '2026-11-02', items), winter: '' as const }
      await bookVisit(shop.coordinator, service)
      expect((await getVisit(shop.technician, service.id)).held).toMatch(/undoes that/)
      const { id } = await startSheet(shop.technician, { id: uuid(), visitId: service.id })
      const tablet = new Tablet(shop.technician, id)
      await tablet.send(
        tablet.entry('reading', { meterId: shop.meterId, typed: '1130', unreadable: '', vouched: true }),
      )
      await tablet.tickAll()
      await signAsPresumed(shop.technician, id)
      const [pump] = Object.values((await getMachineWinter(shop.coordinator, shop.machineId)).zones)
      expect(pump).toMatchObject({ state: 'void', says: expect.stringContaining('It ran on sheet') })
    })
    // The forecast knows that it stands from tomorrow on.
    expect((await spellsOf(shop.coordinator, shop.machineId))[0]).toMatchObject({
      kind: 'layUp',
      fromDay: '2026-10-15',
      toDay: null,
    })

    await at('2027-04-20', async () => {
      const spring = winterVisit('return', '2027-04-20')
      await bookVisit(shop.coordinator, spring)
      const { id } = await startSheet(shop.technician, { id: uuid(), visitId: spring.id })
      const back = new Tablet(shop.technician, id)
      await back.send(
        back.entry('reading', { meterId: shop.meterId, typed: '1130', unreadable: '', vouched: true }),
      )
      await back.tickAll()
      await signAsPresumed(shop.technician, id)
      expect(await stateOf()).toBe('returned')
      expect((await spellsOf(shop.coordinator, shop.machineId))[0]).toMatchObject({ toDay: '2027-04-19' })
      expect((await getWinter(shop.coordinator)).counts.waiting).toBe(0)
    })
    // The next autumn it waits again.
    await at('2027-10-10', async () => {
      expect(await stateOf()).toBe('inUse')
      expect((await getWinter(shop.coordinator)).counts.waiting).toBe(1)
    })
  }))

test('left open who does it, the order of work is handed to whoever has the time', () =>
  now(async () => {
    await take()
    await stocked(10)
    const other = { id: uuid(), name: 'N. Vale', role: 'technician' as const, signInName: 'vale' }
    await addPerson(shop.coordinator, { ...other, password: 'long enough to pass' })
    const own = { personId: shop.technician.id, yardId: shop.yardId, skills: [], leave: [] }
    // Of the yard, but not there on a Wednesday.
    await saveCrew(shop.coordinator, { ...own, days: [1, 2, 4, 5], minutes: 480 })
    await bookCampaign(shop.coordinator, { id: uuid(), yardId: shop.yardId, leadId: '', withDue: false })
    expect(await listOpenVisits(shop.coordinator)).toMatchObject([{ day: '2026-10-14', lead: 'N. Vale' }])
  }))

test('the order of work of a yard is booked in one go, once', () =>
  now(async () => {
    await take()
    const partId = await stocked(10)
    const ask = { id: uuid(), yardId: shop.yardId, leadId: shop.technician.id, withDue: true }
    expect(await bookCampaign(shop.coordinator, ask)).toEqual({ booked: 1, left: [] })
    expect(await listOpenVisits(shop.coordinator)).toMatchObject([{ winter: 'lay', day: '2026-10-14' }])
    expect((await getWinter(shop.coordinator)).yards[0]!.rows[0]!.booked).not.toBeNull()
    expect(await problemIn(bookCampaign(shop.coordinator, { ...ask, id: uuid() }))).toMatchObject({
      kind: 'conflict',
    })
    expect(await problemIn(bookCampaign(shop.technician, ask))).toMatchObject({ kind: 'notAllowed' })
    expect(
      (await getVisit(shop.coordinator, (await listOpenVisits(shop.coordinator))[0]!.id)).parts.map(
        ({ stock }) => stock?.partId,
      ),
    ).toContain(partId)
  }))

test('the server asks for the outlook by itself, and again only once it is three hours old', async () => {
  let asked = 0
  const service = createServer((_request, response) => {
    asked++
    response.end(JSON.stringify(weatherAnswer('coldSnap', '', day, `${day}T05:00:00.000Z`)))
  }).listen(0)
  try {
    await at(day, async () => {
      expect(await keepOutlook()).toBe(false)
      const { port } = service.address() as AddressInfo
      await saveTerms(shop.coordinator, {
        ...(await getTerms(shop.coordinator)),
        weatherUrl: `http://127.0.0.1:${port}/outlook`,
      })
      expect(await keepOutlook()).toBe(true)
      expect((await getWinter(shop.coordinator)).yards[0]!.outlook).toHaveLength(10)
      expect(await keepOutlook()).toBe(false)
      expect(asked).toBe(1)
    })
    await at(addDays(day, 1), async () => expect(await keepOutlook()).toBe(true))
    expect(asked).toBe(2)
  } finally {
    service.close()
  }
})
