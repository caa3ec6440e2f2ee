import { readings } from '@/db/hours'
import { v7 as uuid } from 'uuid'
import type { EndedLife } from '@/core/sheets'
import { exportParts, exportRecord } from '@/services/interchange'
import { getMachine } from '@/services/fleet'
import { correctSheet } from '@/services/sheets'
import { appendEntries, entriesSince } from '@/services/sheets'
import { getSigning, signSheet } from '@/services/sheets'
import {
  abandonSheet,
  getSheet,
  listSheets,
  sheetsOf,
  startSheet,
  startUnplannedSheet,
} from '@/services/sheets'
import { getPart, listStock, receivePart, savePart } from '@/services/stores'
import { cancelVisit, getVisit, listOpenVisits } from '@/services/plan'
import { getWear } from '@/services/wear'
import { lives } from '@/db/wear'
import { problemIn, removeDatabase } from '../support/database'
import { at, bookedSheet as openBooked, ostrelModel, Tablet, workshop, type Workshop } from '../support/bench'

let shop: Workshop
const day = '2026-08-03'
const now = <T>(work: () => Promise<T>) => at(day, work)
const seals = ['hpSeal@1', 'hpSeal@2', 'hpSeal@3']

beforeEach(async () => {
  shop = await workshop()
})
afterAll(removeDatabase)

const bookedSheet = (items?: { task: string; positions: string[] }[]) => openBooked(shop, items)

async function stocked(quantity: number, minimum = '3') {
  const partId = uuid()
  await savePart(shop.coordinator, {
    id: partId,
    number: 'HP-20',
    name: 'High-pressure seal 20',
    makersNumber: '',
    unit: 'piece',
    packSize: 3,
    price: '12.40',
    leadDays: 21,
    minimum: minimum as never,
    bin: 'H-09',
    fits: [{ modelId: shop.modelId, part: 'hpSeal' }],
    note: '',
  })
  const lotId = uuid()
  const { lot } = await receivePart(shop.coordinator, {
    id: lotId,
    partId,
    quantity,
    code: 'A77',
    receivedOn: day,
    price: null,
    expiresOn: null,
    note: '',
  })
  return { partId, lotId, lot }
}

const read = (tablet: Tablet, typed = '1126.5') =>
  tablet.send(tablet.entry('reading', { meterId: shop.meterId, typed, unreadable: '', vouched: false }))

const reasons = (ending: { assemblyId: string; position: string; presumed: EndedLife['endReason'] }[]) =>
  ending.map(({ assemblyId, position, presumed }) => ({
    assemblyId,
    position,
    endReason: presumed,
    seenFailingOn: null,
  }))

async function sign(sheetId: string, id = uuid()) {
  const view = await getSigning(shop.technician, sheetId)
  await signSheet(shop.technician, {
    id,
    sheetId,
    seenUpTo: view.upTo,
    ended: reasons(view.ending),
    note: '',
  })
  return view
}

test('a sheet is worked from its reading to its signature: lives, stock, visit and record follow together', () =>
  now(async () => {
    const { partId, lotId } = await stocked(6)
    const { visitId, sheetId, tablet } = await bookedSheet()
    expect((await getVisit(shop.coordinator, visitId)).state).toBe('inWork')
    await read(tablet)
    await tablet.tickAll()
    await tablet.send(
      tablet.entry('part', {
        partId,
        lotId,
        name: 'High-pressure seal 20',
        unit: 'piece',
        quantity: 3,
        assemblyId: shop.pumpId,
        part: 'hpSeal',
      }),
      tablet.entry('remark', { text: 'Bores look good.' }),
    )
    const view = await sign(sheetId)
    expect(view.notReady).toEqual([])
    // 700 h when taken over at 1 000 h on the meter; the sheet was read at 1 126.5 h.
    expect(
      view.ending.map((life) => [life.position, Math.round(life.reached * 10) / 10, life.presumed]),
    ).toEqual(seals.map((position) => [position, 826.5, 'preventive']))
    expect(view.notUsed.map((part) => part.name)).toEqual(['Retainer O-ring'])

    const wear = (await getWear(shop.coordinator, shop.pumpId))!
    const clock = wear.clocks.find((each) => each.task === 'hpSeals')!
    expect(clock).toMatchObject({ hoursUsed: 0, state: 'healthy', positions: seals })
    expect(wear.clocks.find((each) => each.task === 'lpSeals')!.hoursUsed).toBeCloseTo(826.5)
    expect((await getPart(shop.coordinator, partId)).onHand).toBe(3)
    expect((await getVisit(shop.coordinator, visitId)).state).toBe('done')
    expect(await listOpenVisits(shop.coordinator)).toEqual([])
    const begun = await lives.all({ sheetId, status: 'active' })
    expect(begun.map((life) => [life.position, life.lotId]).sort()).toEqual(
      seals.map((position) => [position, lotId]),
    )
    const [machineRecord] = await sheetsOf(shop.coordinator, { machineId: shop.machineId })
    expect(machineRecord).toMatchObject({ state: 'signed', signedBy: 'M. Osei', signedOn: day })
    expect((await sheetsOf(shop.coordinator, { assemblyId: shop.pumpId }))[0]!.id).toBe(sheetId)
    const machine = await getMachine(shop.coordinator, 'T-04')
    expect(machine.changes.map((change) => change.summary).join('\n')).toMatch(
      /Sheet 0001 signed\. P-04: Renew high-pressure seals/,
    )
    const [newest] = machine.meters[0]!.readings
    expect(newest!.value).toBe(1126.5)
    expect((await readings.byId(newest!.id))!.source).toBe('sheet')
  }))

test('entries sent again are kept once, and a killed tablet finds everything it had sent', () =>
  now(async () => {
    const { sheetId, tablet } = await bookedSheet()
    const entry = tablet.entry('reading', {
      meterId: shop.meterId,
      typed: '1126.5',
      unreadable: '',
      vouched: false,
    })
    await tablet.send(entry)
    const again = await tablet.send(entry)
    expect(again.taken).toEqual([entry.id])
    expect((await getSheet(shop.technician, sheetId)).entries).toHaveLength(2)
    const machine = await getMachine(shop.coordinator, 'T-04')
    expect(machine.meters[0]!.readings.filter((reading) => reading.value === 1126.5)).toHaveLength(1)
    await tablet.tickAll('stage1')
    const other = new Tablet(shop.technician, sheetId)
    const state = await other.state()
    expect(state.steps.filter((each) => each.state === 'done').length).toBeGreaterThan(15)
    expect((await entriesSince(shop.technician, sheetId, 0)).entries.length).toBe(state.upTo)
  }))

test('one bad entry among good ones is refused with its sentence; the others are kept', () =>
  now(async () => {
    const { tablet } = await bookedSheet()
    await read(tablet)
    const state = await tablet.state()
    const lockOut = state.steps[0]!.step.key
    const answer = await tablet.send(
      tablet.entry('lock', { name: 'M. Osei', goes: 'on', reason: '' }, lockOut),
      tablet.entry('done', {}, lockOut),
      tablet.entry('skipped', { reason: '' }, state.steps[1]!.step.key),
      tablet.entry('done', {}, 'no/such/step'),
      tablet.entry('part', { partId: uuid(), lotId: null, name: 'x', unit: 'piece', quantity: 1 }),
      tablet.entry('part', { partId: null, lotId: null, name: 'shim', unit: 'piece', quantity: 0.5 }),
      tablet.entry('remark', { text: 'kept' }),
    )
    expect(answer.taken).toHaveLength(3)
    expect(answer.refused.map((each) => each.message)).toEqual([
      'Say why this step is skipped.',
      'This sheet has no such step.',
      'This part is not in the stores.',
      'Pieces are used whole.',
    ])
    expect((await tablet.state()).remarks).toHaveLength(1)
    expect(await problemIn(appendEntries(shop.technician, tablet.sheetId, 'no list', null))).toMatchObject({
      kind: 'invalid',
    })
    expect(
      await problemIn(appendEntries(shop.technician, uuid(), [tablet.entry('remark', { text: 'a' })], null)),
    ).toMatchObject({ kind: 'notFound' })
    expect(
      await problemIn(
        appendEntries(shop.viewer, tablet.sheetId, [tablet.entry('remark', { text: 'a' })], null),
      ),
    ).toMatchObject({ kind: 'notAllowed' })
  }))

test('a reading before the last one is kept in doubt and drives nothing; taken back, it is read again', () =>
  now(async () => {
    const { sheetId, tablet } = await bookedSheet()
    await read(tablet, '1012.0')
    const [reading] = (await tablet.state()).readings
    expect(reading!.payload).toMatchObject({ status: 'doubted', shown: '1\u00a0012.0\u00a0h' })
    expect(reading!.payload.reason).toMatch(/^Runs backwards/)
    await tablet.send(tablet.entry('takeBack', { of: reading!.id, reason: 'misread' }))
    expect((await tablet.state()).unread).toHaveLength(1)
    const machine = await getMachine(shop.coordinator, 'T-04')
    expect(machine.meters[0]!.readings.map((each) => each.status)).not.toContain('doubted')
    await read(tablet)
    await tablet.tickAll()
    expect((await sign(sheetId)).ending[0]!.reached).toBeCloseTo(826.5)
  }))

test('signed in doubt, lives stand at the last good hours and move when the reading is settled', () =>
  now(async () => {
    const { sheetId, tablet } = await bookedSheet()
    await read(tablet, '11265')
    await tablet.tickAll()
    await sign(sheetId)
    const used = async () =>
      (await getWear(shop.coordinator, shop.pumpId))!.clocks.find((each) => each.task === 'lpSeals')!
        .hoursUsed
    // The reading of 1 August: 820 h.
    expect(await used()).toBeCloseTo(820)
  }))

test('a sheet is signed once: sent twice it signs once, from a second tab it is refused with who and when', () =>
  now(async () => {
    const { partId, lotId } = await stocked(6)
    const { sheetId, tablet } = await bookedSheet()
    await read(tablet)
    await tablet.tickAll()
    await tablet.send(tablet.entry('part', { partId, lotId, name: 'HP seal', unit: 'piece', quantity: 3 }))
    const view = await getSigning(shop.technician, sheetId)
    const input = (id: string) => ({
      id,
      sheetId,
      seenUpTo: view.upTo,
      ended: reasons(view.ending),
      note: '',
    })
    const first = input(uuid())
    const results = await Promise.allSettled([
      signSheet(shop.technician, first),
      signSheet(shop.technician, first),
      signSheet(shop.coordinator, input(uuid())),
    ])
    expect(results.map((result) => result.status)).toEqual(['fulfilled', 'fulfilled', 'rejected'])
    expect(await problemIn(signSheet(shop.coordinator, input(uuid())))).toMatchObject({
      kind: 'conflict',
      message: expect.stringMatching(/^M\. Osei signed this sheet on 3\u00a0Aug 2026 already\./),
    })
    expect((await getPart(shop.coordinator, partId)).onHand).toBe(3)
    expect(await lives.count({ sheetId })).toBe(3)
  }))

test('what comes in after the signing is kept as late and moves nothing', () =>
  now(async () => {
    const { partId, lotId } = await stocked(6)
    const { sheetId, tablet } = await bookedSheet()
    await read(tablet)
    await tablet.tickAll()
    await sign(sheetId)
    const late = await tablet.send(
      tablet.entry('part', { partId, lotId, name: 'HP seal', unit: 'piece', quantity: 2 }),
    )
    expect(late).toMatchObject({ state: 'signed', refused: [] })
    expect((await tablet.state()).late).toHaveLength(1)
    expect((await getPart(shop.coordinator, partId)).onHand).toBe(6)
  }))

test('a sheet that is not finished cannot be signed, nor one that changed since it was looked at', () =>
  now(async () => {
    const { sheetId, tablet } = await bookedSheet()
    await read(tablet)
    await tablet.tickAll('visit/prove')
    const view = await getSigning(shop.technician, sheetId)
    // Seven of proving, and three for the screws that are pulled once more after the first run.
    expect(view.notReady).toEqual([
      '10 steps are neither done nor skipped.',
      'Say what was seen on the old part: High-pressure seal, cylinder 1 and 2 more.',
    ])
    const input = { id: uuid(), sheetId, seenUpTo: view.upTo, ended: reasons(view.ending), note: '' }
    expect((await problemIn(signSheet(shop.technician, input))).message).toContain('10 steps are neither')
    await tablet.tickAll()
    expect((await problemIn(signSheet(shop.technician, input))).message).toContain(
      'Something new has come in',
    )
    const after = await getSigning(shop.technician, sheetId)
    expect(
      await problemIn(signSheet(shop.technician, { ...input, seenUpTo: after.upTo, ended: [] })),
    ).toMatchObject({
      kind: 'invalid',
      fields: { ended: expect.stringContaining('High-pressure seal, cylinder 1') },
    })
  }))

test('more used than the lot held is not refused: the bin wants counting', () =>
  now(async () => {
    const { partId, lotId } = await stocked(2)
    const { sheetId, tablet } = await bookedSheet()
    await read(tablet)
    await tablet.tickAll()
    await tablet.send(tablet.entry('part', { partId, lotId, name: 'HP seal', unit: 'piece', quantity: 3 }))
    await sign(sheetId)
    expect((await tablet.state()).signed!.payload.toCount).toEqual([
      { partId, name: 'HP-20 High-pressure seal 20', short: 1, unit: 'piece' },
    ])
    const [line] = await listStock(shop.coordinator)
    expect(line).toMatchObject({ onHand: 0, short: 1, below: true })
  }))

test('corrections are entries that name what they correct, and put right what it had done', () =>
  now(async () => {
    const { partId, lotId } = await stocked(6)
    const { sheetId, tablet } = await bookedSheet()
    await read(tablet)
    await tablet.tickAll()
    const use = tablet.entry('part', { partId, lotId, name: 'HP seal', unit: 'piece', quantity: 3 })
    await tablet.send(use)
    expect(
      await problemIn(
        correctSheet(shop.technician, {
          id: uuid(),
          sheetId,
          about: 'words',
          of: use.id,
          text: 'x',
          reason: 'y',
        }),
      ),
    ).toMatchObject({ kind: 'conflict' })
    await sign(sheetId)
    const signedId = (await tablet.state()).signed!.id
    const correction = { sheetId, reason: 'counted again' }
    await correctSheet(shop.technician, { ...correction, id: uuid(), about: 'part', of: use.id, quantity: 2 })
    expect((await getPart(shop.coordinator, partId)).onHand).toBe(4)
    const position = { assemblyId: shop.pumpId, of: signedId }
    await correctSheet(shop.technician, {
      ...correction,
      ...position,
      id: uuid(),
      about: 'endReason',
      position: 'hpSeal@2',
      endReason: 'failed',
    })
    await correctSheet(shop.technician, {
      ...correction,
      ...position,
      id: uuid(),
      about: 'notRenewed',
      position: 'hpSeal@3',
    })
    const wear = (await getWear(shop.coordinator, shop.pumpId))!
    const clocks = wear.clocks.filter((each) => each.task === 'hpSeals')
    expect(clocks.map((each) => [each.positions, Math.round(each.hoursUsed)])).toEqual([
      [['hpSeal@3'], 827],
      [['hpSeal@1', 'hpSeal@2'], 0],
    ])
    const ended = await lives.all({ assemblyId: shop.pumpId, endSheetId: sheetId }, [['position', 'ASC']])
    expect(ended.map((life) => [life.position, life.endReason])).toEqual([
      ['hpSeal@1', 'preventive'],
      ['hpSeal@2', 'failed'],
    ])
    expect(
      await problemIn(
        correctSheet(shop.technician, {
          ...correction,
          ...position,
          id: uuid(),
          about: 'notRenewed',
          position: 'hpSeal@3',
        }),
      ),
    ).toMatchObject({ kind: 'invalid' })
    expect(
      await problemIn(
        correctSheet(shop.technician, { ...correction, id: uuid(), about: 'words', of: uuid(), text: 'x' }),
      ),
    ).toMatchObject({ fields: { of: 'Name the entry that this corrects.' } })
    const { text } = await exportRecord(shop.coordinator, { sheet: sheetId }, 'csv')
    expect(text).toContain('Correction')
    expect(text).toContain('corrected from 3')
  }))

test('a breakdown is worked without a visit; what it was opened for is presumed to have failed', () =>
  now(async () => {
    const { id } = await startUnplannedSheet(shop.technician, {
      id: uuid(),
      items: [{ assemblyId: shop.pumpId, task: 'lpSeals', positions: ['lpSeal@2'] }],
      trouble: 'water from the weep hole of cylinder 2',
    })
    const tablet = new Tablet(shop.technician, id)
    await read(tablet)
    await tablet.tickAll()
    await tablet.send(
      tablet.entry('renewed', {
        assemblyId: shop.pumpId,
        position: 'oilSeal@2',
        reason: 'water got past it',
      }),
      tablet.entry('finding', {
        assemblyId: shop.pumpId,
        position: 'oilSeal@2',
        what: '',
        sort: 'oilSeal',
        damages: ['torn'],
        extent: '',
        disposition: 'renew',
        words: '',
      }),
    )
    const view = await sign(id)
    expect(view.ending.map((life) => [life.position, life.presumed])).toEqual([
      ['lpSeal@2', 'failed'],
      ['oilSeal@2', 'disturbed'],
    ])
    expect((await listSheets(shop.coordinator)).closed.lines[0]).toMatchObject({
      trigger: 'breakdown',
      visitId: null,
    })
    expect(
      await problemIn(startUnplannedSheet(shop.technician, { id: uuid(), items: [], trouble: '' })),
    ).toMatchObject({ fields: { items: 'Choose at least one service.', trouble: 'Say what happened.' } })
    expect(
      await problemIn(
        startUnplannedSheet(shop.technician, {
          id: uuid(),
          items: [{ assemblyId: shop.pumpId, task: 'gearbox', positions: ['x'] }],
          trouble: 'noise',
        }),
      ),
    ).toMatchObject({ fields: { items: 'Ostrel P3-200 has no task “gearbox”.' } })
  }))

test('a visit has one sheet; given up, it stands again, and while it is open the visit is not cancelled', () =>
  now(async () => {
    const { visitId, sheetId } = await bookedSheet()
    expect(await startSheet(shop.coordinator, { id: uuid(), visitId })).toEqual({ id: sheetId })
    const visit = await getVisit(shop.coordinator, visitId)
    expect(
      (
        await problemIn(
          cancelVisit(shop.coordinator, { id: visitId, version: visit.version, reason: 'rain' }),
        )
      ).message,
    ).toMatch(/^Sheet 0001 was opened for this visit/)
    const { version } = await getSheet(shop.technician, sheetId)
    await abandonSheet(shop.technician, { id: sheetId, version, reason: 'wrong machine' })
    expect((await getVisit(shop.coordinator, visitId)).state).toBe('booked')
    const next = await startSheet(shop.technician, { id: uuid(), visitId })
    expect(next.id).not.toBe(sheetId)
    expect(await problemIn(startSheet(shop.viewer, { id: uuid(), visitId }))).toMatchObject({
      kind: 'notAllowed',
    })
  }))

test('looking restarts the clock of looking and leaves the life alone', async () => {
  const model = ostrelModel() as { tasks: Record<string, unknown>[] }
  model.tasks.push({
    key: 'look',
    name: 'Look at the plungers',
    kind: 'inspect',
    at: null,
    positions: ['plunger'],
    limit: { hours: 200 },
    minutes: 5,
    steps: [{ key: 'see', text: 'Look at it.', phase: 'inspect' }],
  })
  shop = await workshop(model)
  await now(async () => {
    const plungers = ['plunger@1', 'plunger@2', 'plunger@3']
    const { sheetId, tablet } = await bookedSheet([{ task: 'look', positions: plungers }])
    await read(tablet)
    await tablet.tickAll()
    await sign(sheetId)
    const { clocks } = (await getWear(shop.coordinator, shop.pumpId))!
    expect(clocks.find((each) => each.task === 'look')!.hoursUsed).toBe(0)
    expect(clocks.find((each) => each.task === 'plungers')!.hoursUsed).toBeCloseTo(826.5)
  })
})

test('the record and the parts list go out as CSV and JSON; text that would run as a formula does not', () =>
  now(async () => {
    await stocked(6)
    const { sheetId, tablet } = await bookedSheet()
    await read(tablet)
    await tablet.tickAll()
    await tablet.send(tablet.entry('remark', { text: '=HYPERLINK("x")' }))
    await sign(sheetId)
    const csv = await exportRecord(shop.coordinator, { pump: 'P-04' }, 'csv')
    expect(csv).toMatchObject({ name: 'record-P-04.csv' })
    expect(csv.text.split('\r\n')[0]).toBe(
      'sheet,state,machine,pump,day,time,kind,item,where,value,unit,detail,by',
    )
    expect(csv.text).toContain('"\'=HYPERLINK(""x"")"')
    expect(csv.text).toMatch(
      /0001,signed,T-04,P-04,2026-08-03,\d\d:\d\d,Renewed,"High-pressure seal, cylinder 1",,826.5,h,Renewed in time,M. Osei/,
    )
    const json = JSON.parse((await exportRecord(shop.coordinator, { machine: 'T-04' }, 'json')).text)
    expect(json.sheets[0].lines.filter((line: { kind: string }) => line.kind === 'renewed')).toHaveLength(3)
    expect(json.sheets[0].entries[0].kind).toBe('composed')
    const parts = await exportParts(shop.coordinator, 'csv')
    expect(parts.text.split('\r\n')[1]).toBe(
      'HP-20,High-pressure seal 20,,H-09,piece,6,0,3,0,21,12.4,3,Ostrel P3-200',
    )
    expect(JSON.parse((await exportParts(shop.coordinator, 'json')).text).parts[0].onHand).toBe(6)
  }))
