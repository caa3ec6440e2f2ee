import { mkdirSync, readFileSync } from 'node:fs'
import path from 'node:path'
import sharp from 'sharp'
import { v7 as uuid } from 'uuid'
import { locksOf, type Finding, type SheetQuery } from '@/core/sheets'
import { dataFolder } from '@/db/house'
import { publishPumpModel, withLookedUp } from '@/services/models'
import { getPumpModel } from '@/services/models'
import { listOpenChecks } from '@/services/wear'
import { exportRecord } from '@/services/interchange'
import { addWork, offersOn } from '@/services/sheets'
import { addSheetPhoto, readSheetPhoto } from '@/services/sheets'
import { appendEntries } from '@/services/sheets'
import { sheetDigests } from '@/db/sheets'
import { correctSheet, entriesOf, findSheets, prepareDigests, sheetChoices } from '@/services/sheets'
import { getSheet, listSheets, startUnplannedSheet } from '@/services/sheets'
import { listOpenSigns } from '@/services/inspection'
import { getVisit } from '@/services/plan'
import { checksOf } from '@/services/wear'
import { recordReading } from '@/services/hours'
import { runAt } from '@/services/house'
import { problemIn, removeDatabase } from '../support/database'
import { plainFinding } from '../support/finding'
import {
  at,
  bookedSheet as openBooked,
  ostrelModel,
  signAsPresumed,
  Tablet,
  workshop,
  type Workshop,
} from '../support/bench'

let shop: Workshop
const day = '2026-08-03'
const now = <T>(work: () => Promise<T>) => at(day, work)

beforeEach(async () => {
  shop = await workshop()
})
afterAll(removeDatabase)

const bookedSheet = (items?: { task: string; positions: string[] }[]) => openBooked(shop, items)

const read = (tablet: Tablet, typed = '1126.5') =>
  tablet.send(tablet.entry('reading', { meterId: shop.meterId, typed, unreadable: '', vouched: true }))

const finding = (tablet: Tablet, position: string, more: Partial<Finding> = {}) =>
  tablet.entry('finding', plainFinding(shop.pumpId, position, more))

const sign = (sheetId: string, more?: object) => signAsPresumed(shop.technician, sheetId, more)

test('a photo is made smaller, turned upright, cleared of place and device, and kept once', () =>
  now(async () => {
    const { sheetId, tablet } = await bookedSheet()
    const id = uuid()
    const taken = await sharp({ create: { width: 3000, height: 2000, channels: 3, background: '#557' } })
      .withExif({ IFD0: { Make: 'SecretCam', Model: 'X' }, IFD3: { GPSLatitude: '51/1 30/1 0/1' } })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer()
    for (const _ of [1, 2]) await addSheetPhoto(shop.technician, sheetId, { id, name: 'IMG 1.jpg' }, taken)
    const { bytes } = await readSheetPhoto(shop.viewer, id)
    const kept = await sharp(bytes).metadata()
    expect([kept.width, kept.height, kept.exif]).toEqual([1067, 1600, undefined])
    expect(bytes.includes('SecretCam')).toBe(false)
    const entry = tablet.entry('photo', {
      photoId: id,
      caption: 'as it was',
      assemblyId: null,
      position: null,
    })
    expect((await tablet.send(entry, entry)).refused).toEqual([])
    expect((await tablet.state()).photos).toHaveLength(1)
    expect(readFileSync(path.join(dataFolder(), 'photos', id)).length).toBe(bytes.length)
  }))

test('a photo of 40 MB, a text, a PDF or half a photo is refused with what is wrong; its entry waits for it', () =>
  now(async () => {
    const { sheetId, tablet } = await bookedSheet()
    mkdirSync(dataFolder(), { recursive: true })
    const put = (bytes: Buffer, name = 'a.jpg') =>
      problemIn(addSheetPhoto(shop.technician, sheetId, { id: uuid(), name }, bytes))
    const jpeg = Buffer.concat([Buffer.from([0xff, 0xd8, 0xff]), Buffer.alloc(40_000_000)])
    expect(await put(jpeg)).toMatchObject({ fields: { file: '“a.jpg” has 40 MB; at most 25 MB.' } })
    expect(await put(Buffer.from('hello'), 'notes.txt')).toMatchObject({
      fields: { file: expect.stringContaining('“notes.txt” is neither a photo') },
    })
    expect(await put(Buffer.from('%PDF-1.7 x'))).toMatchObject({
      fields: { file: expect.stringContaining('is a PDF, not a photo') },
    })
    expect(await put(jpeg.subarray(0, 400))).toMatchObject({
      fields: { file: expect.stringContaining('damaged') },
    })
    const { refused } = await tablet.send(
      tablet.entry('photo', { photoId: uuid(), caption: '', assemblyId: null, position: null }),
    )
    expect(refused[0]!.message).toMatch(/has not come in/)
    expect(
      await problemIn(addSheetPhoto(shop.viewer, sheetId, { id: uuid(), name: 'a.jpg' }, Buffer.from('x'))),
    ).toMatchObject({ kind: 'notAllowed' })
  }))

test('a tablet whose clock is a day off: timers and times go by how long things waited, never by its clock', () =>
  now(async () => {
    const { sheetId, tablet } = await bookedSheet()
    const wrong = '2026-08-04T15:00:00.000Z'
    const later = '2026-08-04T15:20:00.000Z'
    const [first, second] = [
      { ...tablet.entry('timer', { kind: 'own', name: 'bath', minutes: 30 }), deviceTime: wrong },
      // Its clock was put right in between: it reads earlier than what was written before.
      { ...tablet.entry('remark', { text: 'second' }), deviceTime: '2026-08-01T00:00:00.000Z' },
    ]
    await runAt('2026-08-03T15:30:00.000Z', () =>
      appendEntries(shop.technician, sheetId, [first, second], later),
    )
    const { timers, remarks } = await tablet.state()
    // Written twenty minutes before it was sent: 15:10 on our clock.
    expect(timers[0]!.at.slice(0, 16)).toBe('2026-08-03T15:10')
    expect(remarks[0]!.at >= timers[0]!.at).toBe(true)
  }))

test('what was right by what a tablet had seen is kept, though another took its gate back meanwhile', () =>
  now(async () => {
    const { tablet } = await bookedSheet()
    await read(tablet)
    await tablet.tickAll('manifold/open/runOut')
    const other = new Tablet(shop.technician, tablet.sheetId)
    const state = await tablet.state()
    other.seenUpTo = state.upTo
    const gate = state.steps.find(({ step }) => step.key.endsWith('manifold/open/crank'))!
    const screws = state.steps.find(({ step }) => step.key.endsWith('manifold/open/runOut'))!
    tablet.seenUpTo = state.upTo
    const tick = tablet.entry('done', { reason: '' }, screws.step.key)
    await other.send(other.entry('takeBack', { of: gate.by!.id, reason: 'turned again' }))
    expect((await tablet.send(tick)).refused).toEqual([])
    // Whoever knows of it has to do the gate first.
    const fresh = (await tablet.state()).steps.find(({ step }) => step.key.endsWith('manifold/open/pins'))!
    tablet.seenUpTo = (await tablet.state()).upTo
    const { refused } = await tablet.send(tablet.entry('done', {}, fresh.step.key))
    expect(refused[0]!.message).toMatch(/^First: Turn the shaft/)
  }))

test('extra work: what is done stays, the rest is composed anew, parts and minutes follow, the visit grows', () =>
  now(async () => {
    const { sheetId, visitId, tablet } = await bookedSheet()
    await read(tablet)
    // Everything is open and looked at; closing has not begun.
    await tablet.tickAll('sealStack@3/close')
    const before = await tablet.state()
    const offers = await offersOn(shop.technician, sheetId)
    const lp = offers.find(({ task }) => task === 'lpSeals')!
    expect(lp.openAlready).toContain('Seal stack out')
    expect(lp.now).toBeLessThan(lp.alone / 3)
    const input = {
      sheetId,
      seenUpTo: before.upTo,
      items: [{ assemblyId: shop.pumpId, task: 'lpSeals', positions: ['lpSeal@2'] }],
      reason: 'lip is torn',
    }
    expect(await problemIn(addWork(shop.technician, { ...input, reason: '' }))).toMatchObject({
      fields: { reason: 'Say what was found.' },
    })
    expect(
      await problemIn(
        addWork(shop.technician, { ...input, items: [{ ...input.items[0]!, task: 'gearbox' }] }),
      ),
    ).toMatchObject({ fields: { items: expect.stringContaining('no task “gearbox”') } })
    expect((await problemIn(addWork(shop.technician, { ...input, seenUpTo: 3 }))).message).toMatch(
      /Something new has come in/,
    )
    expect(await problemIn(addWork(shop.viewer, input))).toMatchObject({ kind: 'notAllowed' })
    await addWork(shop.technician, input)
    const after = await tablet.state()
    const doneKeys = (state: typeof after) =>
      state.steps.filter(({ state: is }) => is === 'done').map(({ step }) => step.key)
    expect(doneKeys(after)).toEqual(doneKeys(before))
    expect(after.content.parts.map(({ part }) => part)).toContain('lpSeal')
    expect(after.content.minutes).toBe(before.content.minutes + 2)
    expect(after.content.extra).toMatchObject([
      { services: 'Renew low-pressure seals, cylinder 2', reason: 'lip is torn', byName: 'M. Osei' },
    ])
    const visit = await getVisit(shop.coordinator, visitId)
    expect(visit.services.map(({ name }) => name)).toEqual([
      'Renew high-pressure seals',
      'Renew low-pressure seals',
    ])
    expect((await listSheets(shop.coordinator)).open[0]!.extra).toHaveLength(1)
    await tablet.tickAll()
    const view = await sign(sheetId)
    expect(view.ending.map(({ position }) => position)).toContain('lpSeal@2')
    expect((await problemIn(addWork(shop.technician, input))).message).toMatch(/closed already/)
  }))

test('what was closed already is opened once more, and what opening destroys is needed again', () =>
  now(async () => {
    const { sheetId, tablet } = await bookedSheet()
    await read(tablet)
    await tablet.tickAll('manifold/close/cleanFaces')
    const before = await tablet.state()
    const rings = (state: typeof before) =>
      state.content.parts.find(({ part }) => part === 'retainerOring')!.quantity
    await addWork(shop.technician, {
      sheetId,
      seenUpTo: before.upTo,
      items: [{ assemblyId: shop.pumpId, task: 'lpSeals', positions: ['lpSeal@3'] }],
      reason: 'nicked going in',
    })
    const after = await tablet.state()
    expect(rings(after)).toBe(rings(before) + 1)
    expect(after.steps.some(({ step }) => step.key.includes('sealStack@3~2/open'))).toBe(true)
    await tablet.tickAll()
    await sign(sheetId)
    expect((await listSheets(shop.coordinator)).closed.lines[0]!.state).toBe('signed')
  }))

test('work added after it was energised: it is made safe and locked once more, and proved once more', () =>
  now(async () => {
    const { sheetId, tablet } = await bookedSheet()
    await read(tablet)
    await tablet.tickAll('prove/pressure')
    const before = await tablet.state()
    expect(before.energised).toBe(true)
    await addWork(shop.technician, {
      sheetId,
      seenUpTo: before.upTo,
      items: [{ assemblyId: shop.pumpId, task: 'lpSeals', positions: ['lpSeal@3'] }],
      reason: 'it leaks at the weep hole',
    })
    const after = await tablet.state()
    expect(after.madeSafe).toBeNull()
    expect(after.energised).toBe(true)
    expect(after.content.minutes - before.content.minutes).toBeGreaterThan(30)
    const opening = after.steps.find(({ step }) => step.key.includes('manifold~2/open'))!.step.key
    const send = async (kind: 'done' | 'madeSafe', payload: object, key: string | null) =>
      (await tablet.send(tablet.entry(kind as never, payload as never, key))).refused[0]?.message
    const done = { measure: null, torque: null, answer: '', reason: '' }
    expect(await send('done', done, opening)).toMatch(/^Make safe first/)
    // The first confirmation, or one more of the first making safe, does not hold for the second.
    expect(await send('madeSafe', { name: 'M. Osei', round: 1 }, null)).toMatch(/^Not yet/)
    await tablet.tickAll()
    const end = await tablet.state()
    expect(end.madeSafe!.payload.round).toBe(2)
    expect(end.energised).toBe(true)
    expect(locksOf(end).map(({ offAt }) => offAt !== null)).toEqual([true, true])
    expect(end.steps.filter(({ step }) => step.step.key === 'pressure').map((each) => each.state)).toEqual([
      'done',
    ])
    await sign(sheetId)
    const { text } = await exportRecord(shop.coordinator, { sheet: sheetId }, 'json')
    const entries = JSON.parse(text).sheets[0].entries as { kind: string }[]
    expect(entries.filter(({ kind }) => kind === 'madeSafe')).toHaveLength(2)
  }))

test('swap or strip is chosen once: before it is begun it can be changed, after that not', () =>
  now(async () => {
    const valves = ['outletValve@1', 'outletValve@2', 'outletValve@3']
    const { sheetId, tablet } = await bookedSheet([{ task: 'outletValves', positions: valves }])
    await read(tablet)
    await tablet.tickAll('outletValve@1/draw')
    const way = async (path: string) =>
      addWork(shop.technician, {
        sheetId,
        seenUpTo: (await tablet.state()).upTo,
        items: [{ assemblyId: shop.pumpId, task: 'outletValves', positions: valves, path }],
        reason: 'nearly new',
      })
    expect((await tablet.state()).content.assemblies[0]!.tasks[0]).toMatchObject({ way: 'swap' })
    await way('strip')
    const { content, steps } = await tablet.state()
    expect(content.assemblies[0]!.tasks).toMatchObject([{ way: 'strip', positions: valves }])
    expect(steps.some(({ step }) => step.key.includes('/strip/'))).toBe(true)
    expect(steps.some(({ step }) => step.key.includes('/swap/'))).toBe(false)
    await tablet.tickAll('outletValve@2/strip/verdict')
    expect((await problemIn(way('swap'))).message).toMatch(/begun in the other way/)
  }))

test('the record tells positions, causes, time, hands, what is due next, and goes out as open JSON', () =>
  now(async () => {
    const { sheetId, tablet } = await bookedSheet()
    await read(tablet)
    await tablet.tickAll('hpSeal@1/fit')
    await tablet.send(
      finding(tablet, 'hpSeal@1', { damages: ['extrusion'], extent: 'severe' }),
      finding(tablet, 'hpSeal@2', { damages: ['extrusion'] }),
      tablet.entry('measured', {
        assemblyId: shop.pumpId,
        position: null,
        what: 'drip rate',
        value: 12,
        unit: 'drips/min',
      }),
      tablet.entry('left', {
        toId: shop.coordinator.id,
        toName: shop.coordinator.name,
        words: 'cylinder 3 next',
      }),
    )
    expect((await listSheets(shop.coordinator)).open[0]!.left).toMatchObject({ words: 'cylinder 3 next' })
    const colleague = new Tablet(shop.coordinator, sheetId)
    await colleague.send(colleague.entry('joined', {}))
    await colleague.tickAll('visit/prove/clear')
    await tablet.tickAll()
    await sign(sheetId, { earlyCheckHours: '8' })
    const { text } = await exportRecord(shop.coordinator, { sheet: sheetId }, 'json')
    const [record] = JSON.parse(text).sheets
    expect(record.positions[0]).toMatchObject({
      name: 'High-pressure seal, cylinder 1',
      seen: 'Extruded (severe)',
      done: 'renewed',
      reached: 826.5,
    })
    expect(record.causes[0].causes[0]).toMatchObject({ cause: 'overPressure', says: 'speaks strongly for' })
    expect(record.workedBy).toEqual(['M. Osei', shop.coordinator.name])
    expect(record.earlyCheckHours).toBe(8)
    expect(record.next.map(({ service }: { service: string }) => service).join()).toContain('crankcase oil')
    const kinds = record.lines.map(({ kind }: { kind: string }) => kind)
    for (const kind of ['finding', 'cause', 'measure', 'torque', 'handOver', 'lock', 'notUsed'])
      expect(kinds).toContain(kind)
    expect(await listOpenChecks(shop.coordinator)).toMatchObject([{ afterHours: 8 }])
    // What was measured is there to compare the next one with.
    const next = await bookedSheet([{ task: 'oilChange', positions: ['oil'] }])
    const { earlier } = await getSheet(shop.technician, next.sheetId)
    expect(earlier.map(({ what }) => what)).toEqual(expect.arrayContaining(['drip rate', 'pressure']))
  }))

test('a part that fails within the hours of its early check is linked to the service it was fitted on', async () => {
  const first = await now(async () => {
    const { sheetId, tablet } = await bookedSheet()
    await read(tablet)
    await tablet.tickAll()
    await sign(sheetId)
    return sheetId
  })
  await at('2026-08-05', async () => {
    await recordReading(shop.coordinator, {
      id: uuid(),
      meterId: shop.meterId,
      day: '2026-08-05',
      time: '12:00',
      typed: '1133.5',
      readBy: 'crew',
      note: '',
      vouched: true,
    })
    const { id } = await startUnplannedSheet(shop.technician, {
      id: uuid(),
      items: [{ assemblyId: shop.pumpId, task: 'hpSeals', positions: ['hpSeal@2'] }],
      trouble: 'water again',
    })
    const tablet = new Tablet(shop.technician, id)
    await read(tablet, '1133.5')
    await tablet.tickAll()
    await sign(id)
    const checks = await checksOf(shop.coordinator, shop.pumpId)
    expect(checks.find((check) => check.sheet.id === first)!.result).toMatchObject({
      kind: 'found',
      words: 'A part failed 7 h after this service: sheet 0002',
    })
    expect(checks.filter((check) => check.result === null)).toHaveLength(1)
  })
})

test('what was found bad and is no position stops the signature until it is decided, then stands open as a sign', () =>
  now(async () => {
    const { sheetId, tablet } = await bookedSheet()
    await read(tablet)
    await tablet.tickAll()
    const manifold = (more: Partial<Finding>) =>
      finding(tablet, '', {
        position: null,
        what: 'Manifold, outlet side',
        sort: 'manifold',
        damages: ['crack'],
        ...more,
      })
    await tablet.send(manifold({ disposition: 'stop' }))
    expect((await problemIn(sign(sheetId))).message).toContain('Manifold, outlet side: stopped to ask.')
    await tablet.send(manifold({ disposition: 'renew', words: 'a new one is ordered' }))
    await sign(sheetId)
    const open = await listOpenSigns(shop.coordinator)
    expect(open).toMatchObject([
      {
        assemblyId: shop.pumpId,
        symptom: 'other',
        words: 'Manifold, outlet side: cracked; a new one is ordered',
        by: '2026-08-06',
      },
    ])
    const { text } = await exportRecord(shop.coordinator, { sheet: sheetId }, 'json')
    expect(JSON.parse(text).sheets[0].positions.at(-1)).toMatchObject({
      name: 'Manifold, outlet side',
      decided: 'Renew',
      done: 'looked at',
    })
  }))

test('a torque that was looked up is offered on the next sheet of the same model version, and told with the model', async () => {
  shop = await workshop(ostrelModel())
  await now(async () => {
    const valves = [{ task: 'outletValves', positions: ['outletValve@1'] }]
    const { sheetId, tablet } = await bookedSheet(valves)
    await read(tablet)
    await tablet.tickAll()
    // Another value was typed after it and taken back: it counts nowhere.
    const slip = tablet.entry('torqueSet', {
      assemblyId: shop.pumpId,
      fastener: 'valveCap',
      value: 60,
      unit: 'N·m',
      page: 'page 90',
    })
    expect((await tablet.send(slip)).refused).toEqual([])
    await expect(sign(sheetId)).rejects.toThrow(/pulled to 80\u00a0N·m, and 60\u00a0N·m stands now/)
    await tablet.send(tablet.entry('takeBack', { of: slip.id, reason: 'the wrong line' }))
    await sign(sheetId)
    const next = await bookedSheet([{ task: 'inletValves', positions: ['inletValve@1'] }])
    expect((await getSheet(shop.technician, next.sheetId)).settled).toMatchObject([
      { fastener: 'valveCap', value: 80, unit: 'N·m', page: 'manual page 9', sheet: '0001' },
    ])
    const told = async () => (await getPumpModel(shop.coordinator, shop.modelId)).shown!.lookedUp
    expect(await told()).toMatchObject([
      { fastener: 'valveCap', value: 80, page: 'manual page 9', byName: 'M. Osei', sheet: '0001' },
    ])
    // It is taken into the model as its next version, which has its own word on it from then on.
    await expect(withLookedUp(shop.technician, shop.modelId)).rejects.toThrow(/Technicians cannot/)
    const taken = await withLookedUp(shop.coordinator, shop.modelId)
    expect(taken.news).toBe('Looked up at the bench: Valve caps 80 N·m (M. Osei, sheet 0001)')
    await publishPumpModel(shop.coordinator, taken)
    const after = await getPumpModel(shop.coordinator, shop.modelId)
    expect(after.shown).toMatchObject({ version: 2, lookedUp: [] })
    expect(after.shown!.model.fasteners.find(({ key }) => key === 'valveCap')!.torque).toMatchObject({
      value: 80,
      source: 'manual page 9',
      verified: true,
    })
    expect(after.versions[0]!.changes.map(({ path }) => path).sort()).toEqual([
      'fasteners.valveCap.torque.source',
      'fasteners.valveCap.torque.verified',
    ])
    await expect(withLookedUp(shop.coordinator, shop.modelId)).rejects.toThrow(/Nothing was looked up/)
    expect((await getPumpModel(shop.coordinator, shop.modelId, 1)).shown!.lookedUp).toHaveLength(1)
  })
})

test('a closed sheet is found by what was seen on it and by whom, an open one by nothing', () =>
  now(async () => {
    const { sheetId, tablet } = await bookedSheet()
    await read(tablet)
    const look = (query: Partial<SheetQuery>) =>
      findSheets(
        shop.viewer,
        { words: '', person: '', month: '', damage: '', cause: '', breakdown: false, ...query },
        0,
      ).then(({ lines, total }) => [total, ...lines.map(({ id }) => id)])
    // A list was drawn meanwhile: what it kept of the open sheet does not stay.
    expect((await listSheets(shop.viewer)).open.map(({ id }) => id)).toEqual([sheetId])
    await tablet.tickAll('renew')
    await tablet.send(finding(tablet, 'hpSeal@2', { damages: ['torn'] }))
    await tablet.send(tablet.entry('remark', { text: 'Glazed on one side' }))
    await tablet.tickAll()
    expect(await look({ words: 'glazed' })).toEqual([0])
    await sign(sheetId)
    // The start makes what is missing; what it made is what a search would have made.
    await prepareDigests()
    expect((await sheetDigests.byId(sheetId))!.digest.damages).toEqual(['torn'])
    for (const query of [
      { words: 'GLAZED t-04' },
      { damage: 'torn' },
      { person: 'M. Osei', month: day.slice(0, 7) },
      { words: 'high-pressure seals torn' },
    ])
      expect([query, await look(query)]).toEqual([query, [1, sheetId]])
    expect(await look({ breakdown: true })).toEqual([0])
    expect(await look({ month: '2026-07' })).toEqual([0])
    expect(await sheetChoices(shop.viewer)).toMatchObject({ damages: ['torn'], months: [day.slice(0, 7)] })
    const [entry] = (await entriesOf(sheetId)).filter(({ kind }) => kind === 'remark')
    await correctSheet(shop.technician, {
      id: uuid(),
      sheetId,
      of: entry!.id,
      about: 'words',
      text: 'Polished on one side',
      reason: 'looked again',
    } as never)
    expect(await look({ words: 'polished' })).toEqual([1, sheetId])
    // Known ones are skipped.
    expect(
      await findSheets(
        shop.viewer,
        { words: '', person: '', month: '', damage: '', cause: '', breakdown: false },
        1,
      ),
    ).toEqual({ lines: [], total: 1 })
  }))
