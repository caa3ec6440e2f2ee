import { readFileSync } from 'node:fs'
import { v7 as uuid } from 'uuid'
import { assemblies } from '@/db/fleet'
import { lives } from '@/db/wear'
import { exportPumpModel, previewPumpModel, publishPumpModel } from '@/services/models'
import { choosePractice, companyPractices, getPractices } from '@/services/practices'
import { deletePumpModel, getPumpModel, listPumpModels, settleDoubt } from '@/services/models'
import { getSigning, signSheet } from '@/services/sheets'
import { startSheet, startUnplannedSheet } from '@/services/sheets'
import { getTools, listWrenches, retireTool, saveTool } from '@/services/tools'
import { bookVisit, getVisit } from '@/services/plan'
import { problemIn, removeDatabase } from '../support/database'
import { at, Tablet, workshop, type Workshop } from '../support/bench'

type Json = Record<string, any> // eslint-disable-line @typescript-eslint/no-explicit-any -- changed on purpose below
const data = (file: string): Json => JSON.parse(readFileSync(`src/demo/models/${file}.json`, 'utf8'))
/** Another kind of pump under the workshop's model name. */
const asWorkshops = (file: string): Json => ({ ...data(file), maker: 'Ostrel', name: 'P3-200' })

let shop: Workshop
const now = <T>(work: () => Promise<T>) => at('2026-08-03', work)
afterAll(removeDatabase)

async function book(items: { task: string; positions: string[]; path?: string }[], day = '2026-08-03') {
  const id = uuid()
  await bookVisit(shop.coordinator, {
    id,
    items: items.map((item) => ({ assemblyId: shop.pumpId, ...item })),
    day,
    startTime: '',
    leadId: shop.technician.id,
    note: '',
  })
  return id
}

async function work(visitId: string, until?: string) {
  const { id } = await startSheet(shop.technician, { id: uuid(), visitId })
  const tablet = new Tablet(shop.technician, id)
  await tablet.send(
    tablet.entry('reading', { meterId: shop.meterId, typed: '1125', unreadable: '', vouched: true }),
  )
  await tablet.tickAll(until)
  return { sheetId: id, tablet }
}

describe('publishing', () => {
  beforeEach(async () => {
    shop = await workshop()
  })

  test('a family becomes one model for each size, and goes out again as the one file', () =>
    now(async () => {
      const family = data('ostrel-p3-500')
      const preview = await previewPumpModel(shop.coordinator, JSON.stringify(family))
      expect(preview.models.map(({ title, newest }) => [title, newest])).toEqual([
        ['Ostrel P3-500', 0],
        ['Ostrel P3-700', 0],
      ])
      const { published } = await publishPumpModel(shop.coordinator, { text: JSON.stringify(family) })
      const [small, large] = await Promise.all(published.map(({ id }) => getPumpModel(shop.coordinator, id)))
      const oil = (model: typeof small) => model!.shown!.model.fluids[0]!.litres
      expect([oil(small), oil(large)]).toEqual([2.6, 3.4])
      expect(small!.family.map(({ name }) => name)).toEqual(['P3-700'])
      const out = await exportPumpModel(shop.coordinator, large!.id)
      expect(out.name).toBe('ostrel-p3-500-and-p3-700-version-1.json')
      expect((await previewPumpModel(shop.coordinator, JSON.stringify(out.data))).models[1]!.changes).toEqual(
        [],
      )
    }))

  test('a version says what changed; a visit keeps the one it was booked with; nobody overwrites another', () =>
    now(async () => {
      const visitId = await book([{ task: 'hpSeals', positions: ['hpSeal@1'] }])
      const before = (await getVisit(shop.coordinator, visitId)).minutes
      const slower = data('ostrel-p3-200')
      slower.access.find(({ key }: Json) => key === 'manifold').openMinutes = 60
      const text = JSON.stringify(slower)
      const preview = await previewPumpModel(shop.coordinator, text)
      expect(preview.models).toEqual([
        {
          title: 'Ostrel P3-200',
          newest: 1,
          pumps: 1,
          openVisits: 1,
          changes: [{ path: 'access.manifold.openMinutes', before: '12', after: '60' }],
        },
      ])
      await publishPumpModel(shop.coordinator, { text, seen: { 'Ostrel P3-200': 1 }, news: 'Slower' })
      expect((await getVisit(shop.coordinator, visitId)).minutes).toBe(before)
      const stale = publishPumpModel(shop.coordinator, { text, seen: { 'Ostrel P3-200': 1 } })
      expect(await problemIn(stale)).toMatchObject({
        kind: 'conflict',
        message: expect.stringContaining('Version 2 of Ostrel P3-200 was published while you were at it.'),
      })
      const { versions, shown } = await getPumpModel(shop.coordinator, shop.modelId)
      expect(versions.map(({ version, news }) => [version, news])).toEqual([
        [2, 'Slower'],
        [1, ''],
      ])
      expect(versions[0]!.changes).toHaveLength(1)
      expect(shown!.version).toBe(2)
      expect((await getPumpModel(shop.coordinator, shop.modelId, 1)).shown!.version).toBe(1)
      expect((await problemIn(getPumpModel(shop.coordinator, shop.modelId, 9))).kind).toBe('notFound')
    }))

  test('what cannot be read is told by its path, and 10,000 steps are refused without a wait', () =>
    now(async () => {
      const model = data('ostrel-p3-200')
      model.tasks[0].minutes = -3
      model.positions[0].part = 'lid'
      const { faults } = await previewPumpModel(shop.coordinator, JSON.stringify(model))
      expect(faults).toEqual([{ path: 'tasks.0.minutes', words: 'Enter 0 or more.' }])
      const many = data('ostrel-p3-200')
      many.prove = Array.from({ length: 10_000 }, (_, key) => ({ key: `s${key}`, text: 'x', phase: 'prove' }))
      expect((await previewPumpModel(shop.coordinator, JSON.stringify(many))).faults[0]!.path).toBe('steps')
      expect((await problemIn(previewPumpModel(shop.technician, '{}'))).kind).toBe('notAllowed')
    }))

  test('a model in use stays; one that nobody has goes, with what hung on it', () =>
    now(async () => {
      const row = (await listPumpModels(shop.coordinator)).find(({ id }) => id === shop.modelId)!
      expect(await problemIn(deletePumpModel(shop.coordinator, row))).toMatchObject({
        kind: 'conflict',
        message: 'Ostrel P3-200 is in use: P-04 is of it. It stays.',
      })
      const { published } = await publishPumpModel(shop.coordinator, {
        text: JSON.stringify(data('tarnwick-k4')),
      })
      const id = published[0]!.id
      await choosePractice(shop.coordinator, {
        practice: 'goodValves',
        modelId: id,
        choice: 'inspect',
        reason: '',
        version: 0,
      })
      await deletePumpModel(shop.coordinator, { id, version: 1 })
      expect((await listPumpModels(shop.coordinator)).map(({ name }) => name)).toEqual(['P3-200'])
      expect((await companyPractices()).models).toEqual({})
    }))

  test('a model that a sheet was composed from stays, even when its pump is of another model by now', () =>
    now(async () => {
      await startUnplannedSheet(shop.technician, {
        id: uuid(),
        items: [{ assemblyId: shop.pumpId, task: 'oilChange', positions: ['oil'] }],
        trouble: 'Milky oil',
      })
      await assemblies.update({ id: shop.pumpId }, { modelId: null, modelVersionId: null })
      const row = (await listPumpModels(shop.coordinator)).find(({ id }) => id === shop.modelId)!
      expect((await problemIn(deletePumpModel(shop.coordinator, row))).message).toContain(
        'A sheet was composed from Ostrel P3-200.',
      )
    }))

  test('a doubt stays flagged until somebody settles it, and the answer outlives the version', () =>
    now(async () => {
      const words = 'Valve caps: Page 12 says 80 N·m, the table on page 30 says 75 N·m for the same cap.'
      const open = async () =>
        (await listPumpModels(shop.coordinator)).find(({ id }) => id === shop.modelId)!.doubts
      expect(await open()).toBe(2)
      const answer = { id: uuid(), modelId: shop.modelId, words, answer: '80 N·m: edition 3' }
      await settleDoubt(shop.coordinator, answer)
      await settleDoubt(shop.coordinator, answer)
      await publishPumpModel(shop.coordinator, { text: JSON.stringify(data('ostrel-p3-200')) })
      expect(await open()).toBe(1)
      const { shown } = await getPumpModel(shop.coordinator, shop.modelId)
      expect(shown!.checks.find((check) => check.words === words)!.settled).toMatchObject({
        answer: '80 N·m: edition 3',
      })
      const blank = settleDoubt(shop.coordinator, { ...answer, id: uuid(), answer: ' ' })
      expect((await problemIn(blank)).fields).toEqual({ answer: 'Say what was found out, and where.' })
    }))
})

describe('practices', () => {
  beforeEach(async () => {
    shop = await workshop()
  })
  const choose = (choice: string | null, version: number, modelId: string | null = null) =>
    choosePractice(shop.coordinator, { practice: 'goodValves', modelId, choice, reason: 'ours', version })

  test('what is chosen changes what is composed; an open sheet keeps what it was composed with', () =>
    now(async () => {
      const visitId = await book([{ task: 'outletValves', positions: ['outletValve@1'] }])
      const parts = async () => (await getVisit(shop.coordinator, visitId)).parts.map(({ part }) => part)
      expect(await parts()).toEqual(['capOring', 'valve'])
      const { tablet } = await work(visitId, 'outletCap@1/open')
      await choose('inspect', 0)
      expect(await parts()).toEqual(['capOring'])
      expect((await getVisit(shop.coordinator, visitId)).spares.map(({ part }) => part)).toEqual(['valve'])
      expect((await tablet.state()).content.parts.map(({ part }) => part)).toEqual(['capOring', 'valve'])
      // One model may have its own, and lose it again.
      await choose('renew', 0, shop.modelId)
      expect(await parts()).toEqual(['capOring', 'valve'])
      await choose(null, 1, shop.modelId)
      expect(await parts()).toEqual(['capOring'])
    }))

  test('a choice made meanwhile is not overwritten, nonsense is refused, and only who may choose does', () =>
    now(async () => {
      await choose('inspect', 0)
      expect((await problemIn(choose('renew', 0))).message).toContain('Somebody chose here meanwhile.')
      await choose('renew', 1)
      const { practices } = await getPractices(shop.coordinator)
      expect(practices.find(({ key }) => key === 'goodValves')!.chosen).toMatchObject({
        choice: 'renew',
        version: 2,
        day: '2026-08-03',
      })
      expect((await problemIn(choose('polish', 2))).kind).toBe('invalid')
      expect((await problemIn(choose(null, 2))).kind).toBe('invalid')
      expect((await problemIn(choose('renew', 0, uuid()))).kind).toBe('notFound')
      const technician = choosePractice(shop.technician, {
        practice: 'goodValves',
        modelId: null,
        choice: 'inspect',
        reason: '',
        version: 2,
      })
      expect((await problemIn(technician)).kind).toBe('notAllowed')
    }))
})

describe('what the sheet does with it', () => {
  test('a valve that is inspected and goes back keeps its life; one found worn begins a new one', async () => {
    shop = await workshop()
    await now(async () => {
      const visitId = await book([
        { task: 'outletValves', positions: ['outletValve@1', 'outletValve@2'], path: 'strip' },
      ])
      expect((await getVisit(shop.coordinator, visitId)).services[0]!.name).toBe(
        'Renew outlet valves: strip, inspect and rebuild',
      )
      const { sheetId, tablet } = await work(visitId, 'outletValve@2/strip/verdict')
      const verdict = (await tablet.state()).steps.find(({ step }) =>
        step.key.endsWith('outletValve@2/strip/verdict'),
      )!
      await tablet.send(
        tablet.entry(
          'done',
          { measure: null, torque: null, answer: 'worn, cracked or pitted: renew', reason: '' },
          verdict.step.key,
        ),
      )
      await tablet.tickAll()
      const state = await tablet.state()
      const steps = (position: string) =>
        state.steps
          .filter(({ step }) => step.position === position && /fit(New|Back)$/.test(step.key))
          .map(({ step, state: is }) => `${step.step.key} ${is}`)
      expect(steps('outletValve@1')).toEqual(['fitNew notNeeded', 'fitBack done'])
      expect(steps('outletValve@2')).toEqual(['fitNew done', 'fitBack notNeeded'])
      const { ending, upTo } = await getSigning(shop.technician, sheetId)
      expect(ending.map(({ position }) => position)).toEqual(['outletValve@2'])
      await signSheet(shop.technician, {
        id: uuid(),
        sheetId,
        seenUpTo: upTo,
        ended: ending.map(({ assemblyId, position }) => ({
          assemblyId,
          position,
          endReason: 'failed',
          seenFailingOn: null,
        })),
        note: '',
      })
      const running = await lives.all({ assemblyId: shop.pumpId, status: 'active', endedAt: null })
      const began = (position: string) => running.find((life) => life.position === position)!.sheetId
      expect([began('outletValve@1'), began('outletValve@2')]).toEqual([null, sheetId])
    })
  })

  test('a seal that opening the pump disturbs is planned, renewed, and its life ends as disturbed', async () => {
    shop = await workshop(asWorkshops('tarnwick-k4'))
    await now(async () => {
      const visitId = await book([{ task: 'plungers', positions: ['plunger@2'] }])
      const visit = await getVisit(shop.coordinator, visitId)
      expect(visit.implied).toEqual([
        { name: 'Renew seal rings', where: 'head 2', why: 'the plunger is pulled through its lip' },
      ])
      const { sheetId } = await work(visitId)
      const { ending } = await getSigning(shop.technician, sheetId)
      expect(ending.map(({ position, presumed }) => [position, presumed]).sort()).toEqual([
        ['plunger@2', 'preventive'],
        ['sealRing@2', 'disturbed'],
      ])
    })
  })
})

describe('tools', () => {
  beforeEach(async () => {
    shop = await workshop()
  })
  const tool = (number: string, more: object = {}) => ({
    id: uuid(),
    number,
    name: number,
    kind: 'torqueWrench' as const,
    count: 1,
    rangeFrom: 10,
    rangeTo: 60,
    rangeUnit: 'N·m',
    leverMm: null,
    calibrationDue: '2026-08-02',
    yardId: shop.yardId,
    place: '',
    serves: [],
    note: '',
    ...more,
  })

  test('the register knows what is out of calibration, retired, or wrong', () =>
    now(async () => {
      const first = tool('W-1')
      await saveTool(shop.coordinator, first)
      const [line] = (await getTools(shop.viewer)).tools
      expect(line).toMatchObject({ number: 'W-1', outOfCalibration: true, yard: 'Harbour yard' })
      const wrong = async (more: object) =>
        (await problemIn(saveTool(shop.coordinator, tool('W-2', more)))).fields
      expect(await wrong({ rangeTo: 5 })).toEqual({ rangeTo: 'This must be more than where it begins.' })
      expect(await wrong({ rangeFrom: null })).toEqual({ rangeFrom: 'Enter the least it measures.' })
      expect(await wrong({ number: 'W-1' })).toEqual({ number: 'There is a tool W-1 already.' })
      expect((await problemIn(saveTool(shop.viewer, tool('W-3')))).kind).toBe('notAllowed')
      await saveTool(shop.coordinator, { ...first, version: 1, calibrationDue: '2027-08-02' })
      const stale = saveTool(shop.coordinator, { ...first, version: 1, name: 'x' })
      expect((await problemIn(stale)).kind).toBe('conflict')
      expect((await listWrenches()).map(({ number }) => number)).toEqual(['W-1'])
      await retireTool(shop.coordinator, { id: first.id, version: 2, reason: 'dropped' })
      expect(await listWrenches()).toEqual([])
    }))

  test('one tool for two visits of a day is told, and so is what nobody has', () =>
    now(async () => {
      await book([{ task: 'outletValves', positions: ['outletValve@1'] }], '2026-08-05')
      await book([{ task: 'inletValves', positions: ['inletValve@1'] }], '2026-08-05')
      expect((await getTools(shop.coordinator)).missing).toEqual([
        { name: 'Valve puller', visits: ['0001', '0002'] },
        { name: 'Valve seat extractor', visits: ['0001', '0002'] },
      ])
      const puller = tool('S-1', {
        kind: 'special',
        name: 'Puller',
        serves: ['Valve puller', 'Valve seat extractor'] as never,
      })
      await saveTool(shop.coordinator, puller)
      const page = await getTools(shop.coordinator)
      expect(page.missing).toEqual([])
      expect(page.clashes).toEqual([{ tool: 'Puller', day: '2026-08-05', have: 1, visits: ['0001', '0002'] }])
      await saveTool(shop.coordinator, { ...puller, version: 1, count: 2 })
      expect((await getTools(shop.coordinator)).clashes).toEqual([])
    }))
})
