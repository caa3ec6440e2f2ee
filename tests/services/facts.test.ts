import { v7 as uuid } from 'uuid'
import { parsePumpModel } from '@/core/models'
import { factsOf, sayFact } from '@/services/composing'
import { addAssembly } from '@/services/fleet'
import { choosePractice } from '@/services/practices'
import { getWear, renewalRates } from '@/services/wear'
import {
  at,
  bookedSheet,
  ostrelModel,
  signAsPresumed,
  Tablet,
  workshop,
  type Workshop,
} from '../support/bench'
import { problemIn, removeDatabase } from '../support/database'

/** A triplex whose shaft may stick out on either side, which its drain-down hangs on. */
function handed(): Record<string, unknown> {
  const model = ostrelModel() as { facts: object[]; makeSafe: object[] }
  model.facts.push({
    key: 'hand',
    name: 'Hand',
    question: 'On which side is the shaft?',
    answers: ['left', 'right'],
  })
  for (const hand of ['left', 'right'])
    model.makeSafe.push({
      key: `tilt${hand}`,
      text: `Tilt it to the ${hand} until it is dry.`,
      phase: 'makeSafe',
      fact: { key: 'hand', is: [hand] },
    })
  return model
}

let shop: Workshop
const now = <T>(work: () => Promise<T>) => at('2026-08-03', work)

beforeEach(async () => {
  shop = await workshop(handed())
})
afterAll(removeDatabase)

const read = (tablet: Tablet) =>
  tablet.send(
    tablet.entry('reading', { meterId: shop.meterId, typed: '1126.5', unreadable: '', vouched: true }),
  )

const sign = (sheetId: string) => signAsPresumed(shop.technician, sheetId)

const said = async () =>
  (await factsOf(shop.viewer, shop.pumpId)).map(({ key, answer, from }) => [key, answer, from])

test('a sheet asks what nobody knows of the unit, once; signed, it is known and asked no more', () =>
  now(async () => {
    expect(await said()).toEqual([
      ['drive', 'diesel', 'machine'],
      ['hand', null, null],
    ])
    const { sheetId, tablet } = await bookedSheet(shop)
    const keys = async () => (await tablet.state()).steps.map(({ step }) => step.step.key)
    // The machine knows its drive; the hand is asked before anything else, and both ways wait for it.
    expect((await keys())[0]).toBe('hand')
    expect(await keys()).toContain('turnDiesel')
    expect(await keys()).not.toContain('turnPetrol')
    await read(tablet)
    await tablet.tickAll()
    const states = (await tablet.state()).steps
      .filter(({ step }) => step.step.key.startsWith('tilt'))
      .map(({ step, state }) => [step.step.key, state])
    expect(states).toEqual([
      ['tiltleft', 'done'],
      ['tiltright', 'notNeeded'],
    ])
    await sign(sheetId)
    expect(await said()).toContainEqual(['hand', 'left', 'unit'])
    const second = await bookedSheet(shop, [{ task: 'lpSeals', positions: ['lpSeal@1'] }])
    const asked = (await second.tablet.state()).steps.map(({ step }) => step.step.key)
    expect(asked[0]).toBe('lockOut')
    expect(asked.filter((key) => key.startsWith('tilt'))).toEqual(['tiltleft'])
  }))

test('said on its page: only what its model asks, by who may, and never over what another has said meanwhile', () =>
  now(async () => {
    const say = (more: object) =>
      sayFact(shop.coordinator, {
        assemblyId: shop.pumpId,
        fact: 'hand',
        answer: 'right',
        before: '',
        ...more,
      })
    expect(
      (
        await problemIn(
          sayFact(shop.viewer, { assemblyId: shop.pumpId, fact: 'hand', answer: 'left', before: '' }),
        )
      ).kind,
    ).toBe('notAllowed')
    expect(await problemIn(say({ answer: 'both' }))).toMatchObject({
      fields: { answer: 'Its model never asks this.' },
    })
    expect(await problemIn(say({ fact: 'wings' }))).toMatchObject({ kind: 'invalid' })
    expect((await problemIn(say({ fact: 'drive', answer: 'petrol' }))).message).toMatch(/change it there/)
    await say({})
    expect(await said()).toContainEqual(['hand', 'right', 'unit'])
    expect((await problemIn(say({ answer: 'left' }))).message).toMatch(/said meanwhile: right/)
    await say({ answer: 'left', before: 'right' })
    expect(await said()).toContainEqual(['hand', 'left', 'unit'])
  }))

test('on condition: looking restarts its own clock, only what was bad begins a life, and findings say how likely it is', () =>
  now(async () => {
    const model = parsePumpModel(handed())
    const plungers = ['plunger@1', 'plunger@2', 'plunger@3']
    const { sheetId, tablet } = await bookedSheet(shop, [{ task: 'plungerCheck', positions: plungers }])
    expect((await tablet.state()).content.parts).toEqual([])
    await read(tablet)
    await tablet.tickAll('plunger@1/verdict')
    const verdict = (position: string) => `${shop.pumpId}/manifold/plungerCheck/${position}/verdict`
    const judge = (position: string, answer: string) =>
      tablet.send(tablet.entry('done', { answer, reason: '' }, verdict(position)))
    await judge('plunger@1', 'smooth: stays')
    await judge('plunger@2', 'scored, chipped or cracked: renew')
    await judge('plunger@3', 'smooth: stays')
    await tablet.tickAll()
    await sign(sheetId)
    const wear = (await getWear(shop.coordinator, shop.pumpId))!
    const used = (task: string) =>
      wear.clocks
        .filter((clock) => clock.task === task)
        .map(({ where, hoursUsed }) => [where, Math.round(hoursUsed)])
        .sort()
    expect(used('plungerCheck')).toEqual([['all cylinders', 0]])
    // 700 h when it was taken over at 1 000 on the meter, 126.5 since.
    expect(used('plungers')).toEqual([
      ['cylinder 2', 0],
      ['cylinders 1 and 3', 827],
    ])
    expect((await renewalRates(shop.modelId, model)).get('plungerCheck')).toEqual({ looked: 3, renewed: 1 })
  }))

test('an engine’s model is no pump’s: kind and model go together, and what has a model needs no name', () =>
  now(async () => {
    const engine = (more: object) =>
      addAssembly(shop.coordinator, {
        id: uuid(),
        number: 'E-1',
        kind: 'engine',
        modelId: null,
        name: '',
        serial: '',
        usageScale: 'h',
        openingKind: 'new',
        openingUsage: 0,
        takenOverOn: '2026-08-03',
        note: '',
        place: { where: 'shelf', yardId: shop.yardId, bin: '' },
        ...more,
      } as never)
    expect(await problemIn(engine({}))).toMatchObject({
      fields: { name: expect.stringContaining('Say what it is') },
    })
    expect(await problemIn(engine({ modelId: shop.modelId }))).toMatchObject({
      fields: { modelId: 'This is a model of another kind: pump. Choose that kind, or another model.' },
    })
    await engine({ name: 'two-cylinder diesel' })
  }))

test('a product’s label is kept with the choice, and nothing is put where a choice puts nothing', () =>
  now(async () => {
    const product = { product: 'blue', amount: 'two drops', setsMinutes: 8, curesMinutes: 300, takesMl: 0.2 }
    const choose = (more: object) =>
      choosePractice(shop.coordinator, {
        practice: 'capThreads',
        modelId: null,
        choice: 'threadlocker',
        reason: '',
        product,
        version: 0,
        ...more,
      })
    expect(await problemIn(choose({ product: { ...product, curesMinutes: -1 } }))).toMatchObject({
      fields: { 'product.curesMinutes': 'Enter the minutes until it has cured, 0 for none.' },
    })
    expect((await problemIn(choose({ choice: 'asManual' }))).message).toMatch(/puts nothing on a thread/)
    await choose({})
    const { tablet } = await bookedSheet(shop, [{ task: 'outletValves', positions: ['outletValve@1'] }])
    const { content } = await tablet.state()
    expect(
      content.torques!.find(({ fastener }) => fastener.key === 'valveCap')!.fastener.treatment,
    ).toMatchObject({
      kind: 'threadlocker',
      product: 'blue',
      amount: 'two drops',
      curesMinutes: 300,
    })
    expect(content.steps.find(({ step }) => step.key === 'cured')!.step.timer!.minutes).toBe(300)
    expect(content.consumables).toContainEqual({
      name: 'blue threadlocker',
      quantity: 0.2,
      unit: 'mL',
      applications: 1,
    })
  }))
