import { v7 as uuid } from 'uuid'
import type { MovePartInput, TakeOverInput } from '@/core/wear'
import { getAssembly } from '@/services/fleet'
import { movePart, startingLives, takeOverLives } from '@/services/wear'
import { livesAt } from '@/services/wear'
import { recordRenewal } from '@/services/wear'
import { receivePart, savePart } from '@/services/stores'
import { getWear } from '@/services/wear'
import { at, workshop, type Workshop } from '../support/bench'
import { problemIn, removeDatabase } from '../support/database'

let shop: Workshop
/** 1120 h on the meter on 1 August: 120 h since the pump was taken over with 700 h. */
const now = <T>(work: () => Promise<T>) => at('2026-08-03', work)
beforeEach(async () => {
  shop = await workshop()
})
afterAll(removeDatabase)

const move = (more: Partial<MovePartInput> = {}): MovePartInput => ({
  id: uuid(),
  assemblyId: shop.pumpId,
  from: 'inletValve@1',
  to: 'outletValve@3',
  day: '2026-08-02',
  other: 'swap',
  endReason: '',
  note: 'sound, put where the load is less',
  ...more,
})
const cellOf = async (position: string) => {
  const view = (await getWear(shop.coordinator, shop.pumpId))!
  return view.grid
    .flatMap((zone) => zone.rows.flatMap((row) => row.cells))
    .find((cell) => cell.position === position)!
}
const at3 = () => livesAt(shop.viewer, { assemblyId: shop.pumpId, position: 'outletValve@3' })

const renew = (positions: string[], day: string, more = {}) =>
  recordRenewal(shop.coordinator, {
    id: uuid(),
    assemblyId: shop.pumpId,
    task: 'outletValves',
    positions,
    day,
    runSince: 0,
    endReason: 'preventive',
    note: '',
    ...more,
  })

test('two valves change places: each takes its hours along, and the chain says from where to where', () =>
  now(async () => {
    await renew(['outletValve@3'], '2026-07-01')
    const [before, young] = [await cellOf('inletValve@1'), await cellOf('outletValve@3')]
    expect([Math.round(before.used), Math.round(young.used)]).toEqual([820, 60])
    const input = move()
    await movePart(shop.coordinator, input)
    await movePart(shop.coordinator, input)
    const [after, other] = [await cellOf('outletValve@3'), await cellOf('inletValve@1')]
    expect([Math.round(after.used), Math.round(other.used)]).toEqual([820, 60])
    // It is not told as renewed early.
    expect(after.was).toBeNull()
    const { lives } = await at3()
    expect(lives.map(({ endReason, cameFrom, wentTo }) => [endReason, cameFrom, wentTo])).toEqual([
      [null, 'Inlet valve, cylinder 1', null],
      ['Moved to inlet valve, cylinder 1', null, 'Inlet valve, cylinder 1'],
      ['Renewed in time', null, null],
    ])
    expect(lives[0]).toMatchObject({ from: '2026-06-01', hours: expect.closeTo(820, 0) })
    const { changes } = await getAssembly(shop.viewer, 'P-04')
    expect(changes[0]?.summary).toContain('changed places')
  }))

test('a part goes to another bore, what was there is done with, and a new one goes in', () =>
  now(async () => {
    await movePart(shop.coordinator, move({ other: 'out', endReason: 'failed' }))
    expect(Math.round((await cellOf('outletValve@3')).used)).toBe(820)
    expect(Math.round((await cellOf('inletValve@1')).used)).toBeLessThan(5)
    const { lives } = await at3()
    expect(lives[1]).toMatchObject({ endReason: 'It had failed', failed: true, to: '2026-08-02' })
  }))

test.each<[string, Partial<MovePartInput>, string, string]>([
  [
    'a seal in a valve bore',
    { to: 'hpSeal@1' },
    'to',
    'The part of inlet valve does not fit high-pressure seal.',
  ],
  ['the bore it is in', { to: 'inletValve@1' }, 'to', 'Choose another bore than the one it is in.'],
  ['a day to come', { day: '2026-08-04' }, 'day', 'This day is still to come.'],
  [
    'before the pump was here',
    { day: '2026-05-01' },
    'day',
    'Outlet valve, cylinder 3 has had its part only since 1 Jun 2026.',
  ],
  ['no word on the other part', { other: 'out', endReason: '' }, 'endReason', 'Say why it came out.'],
])('%s is refused and nothing moves', (_what, more, field, message) =>
  now(async () => {
    const problem = await problemIn(movePart(shop.coordinator, move(more)))
    expect(
      problem.fields?.[field]
        ?.replaceAll('\u00a0', ' ')
        .replace('Inlet valve, cylinder 1 has', 'Outlet valve, cylinder 3 has'),
    ).toBe(message)
    expect((await at3()).lives).toHaveLength(1)
  }),
)

test('a part cannot have been fitted before its lot came in', () =>
  now(async () => {
    const [partId, lotId] = [uuid(), uuid()]
    await savePart(shop.coordinator, {
      id: partId,
      number: 'VK-3',
      name: 'Valve kit',
      makersNumber: '',
      unit: 'piece',
      packSize: 3,
      price: '40',
      leadDays: 10,
      minimum: 0,
      bin: '',
      fits: [{ modelId: shop.modelId, part: 'valve' }],
      note: '',
    })
    const { lot } = await receivePart(shop.coordinator, {
      id: lotId,
      partId,
      quantity: 3,
      code: '',
      receivedOn: '2026-07-20',
      price: null,
      expiresOn: null,
      note: '',
    })
    const refused = await problemIn(renew(['outletValve@3'], '2026-07-01', { lotId }))
    expect(refused.fields?.lotId).toContain(`Lot ${lot} came in on`)
    expect((await at3()).lives).toHaveLength(1)
    await renew(['outletValve@3'], '2026-07-21', { lotId })
    expect((await at3()).lives[0]?.lot).toBe(`VK-3, lot ${lot}`)
  }))

describe('taken over mid-life', () => {
  const lineOf = (lives: Awaited<ReturnType<typeof startingLives>>, name: string, more = {}) => {
    const life = lives.find((each) => each.name === name)!
    return { lifeId: life.lifeId, hours: life.hours, day: life.day, assumed: life.assumed, ...more }
  }
  const save = (lines: TakeOverInput['lines']) =>
    takeOverLives(shop.coordinator, { assemblyId: shop.pumpId, lines })

  test('what is known is entered part by part; the rest stays assumed', () =>
    now(async () => {
      const lives = await startingLives(shop.viewer, shop.pumpId)
      expect(lives.find((life) => life.name === 'High-pressure seal, cylinder 2')).toMatchObject({
        hours: 700,
        day: null,
        assumed: true,
      })
      const known = lineOf(lives, 'High-pressure seal, cylinder 2', {
        hours: '250',
        day: '2026-02-10',
        assumed: 'known',
      })
      await save([known, lineOf(lives, 'High-pressure seal, cylinder 1')] as never)
      expect(await cellOf('hpSeal@2')).toMatchObject({ used: expect.closeTo(370, 0), assumed: false })
      expect(await cellOf('hpSeal@1')).toMatchObject({ used: expect.closeTo(820, 0), assumed: true })
      const clocks = (await getWear(shop.viewer, shop.pumpId))!.clocks.filter(
        (clock) => clock.task === 'hpSeals',
      )
      expect(clocks.map((clock) => clock.where).sort()).toEqual(['cylinder 2', 'cylinders 1 and 3'])
      const { changes } = await getAssembly(shop.viewer, 'P-04')
      expect(changes[0]?.summary).toBe('P-04 was taken over with: High-pressure seal, cylinder 2 250 h')
      // Somebody else with the form still open is told, and loses nothing.
      expect(await problemIn(save([known] as never))).toMatchObject({ kind: 'conflict' })
    }))

  test('older than the pump, or fitted after it came, is refused beside its line', () =>
    now(async () => {
      const lives = await startingLives(shop.viewer, shop.pumpId)
      const name = 'High-pressure seal, cylinder 2'
      expect(
        await problemIn(
          save([
            lineOf(lives, name, { hours: '900' }),
            lineOf(lives, 'Plunger, cylinder 1', { day: '2026-07-01' }),
          ] as never),
        ),
      ).toMatchObject({
        fields: {
          'lines.0.hours': 'The pump itself had 700 h when it was taken over.',
          'lines.1.day': expect.stringContaining('later renewals are recorded as such'),
        },
      })
      expect(await cellOf('hpSeal@2')).toMatchObject({ used: expect.closeTo(820, 0) })
    }))

  test('a part renewed since is no longer asked for', () =>
    now(async () => {
      const before = await startingLives(shop.viewer, shop.pumpId)
      await renew(['outletValve@3'], '2026-07-01')
      const after = await startingLives(shop.viewer, shop.pumpId)
      expect(after).toHaveLength(before.length - 1)
    }))
})
