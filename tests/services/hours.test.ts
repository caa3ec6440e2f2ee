import { v7 as uuid } from 'uuid'
import { dueDays, forecastUsage, type SpellInput } from '@/core/hours'
import { getAssembly } from '@/services/fleet'
import { addMachine, getMachine, listMachines } from '@/services/fleet'
import { retireMeter, returnMeter, saveMeter } from '@/services/hours'
import { changeDuty, moveAssembly, undoMove } from '@/services/fleet'
import { recordReading } from '@/services/hours'
import { getRound } from '@/services/round'
import { saveSpell, spellsOf, withdrawSpell } from '@/services/hours'
import { getWear } from '@/services/wear'
import { at, workshop, type Workshop } from '../support/bench'
import { problemIn, removeDatabase } from '../support/database'
import { plainMachine, plainMeter } from '../support/machine'

let shop: Workshop
const now = <T>(work: () => Promise<T>) => at('2026-08-12', work)
beforeEach(async () => {
  shop = await workshop()
})
afterAll(removeDatabase)

const spell = (more: Partial<SpellInput> = {}): SpellInput => ({
  id: uuid(),
  kind: 'layUp',
  fromDay: '2026-08-20',
  toDay: '2026-09-08',
  hoursPerDay: null,
  what: 'bridge closed',
  ...more,
})

const dueOf = async (task: string) =>
  (await getWear(shop.coordinator, shop.pumpId))!.clocks.find((clock) => clock.name === task)!

const read = (meterId: string, day: string, typed: string) =>
  at(day, () =>
    recordReading(shop.coordinator, {
      id: uuid(),
      meterId,
      day,
      time: '12:00',
      typed,
      readBy: '',
      note: '',
      vouched: true,
    }),
  )

describe('lay-ups and booked jobs', () => {
  test('a lay-up puts the days ahead off, asks for no reading, and is taken out again', () =>
    now(async () => {
      const before = (await dueOf('Renew low-pressure seals')).aboutDay!
      const input = spell()
      await saveSpell(shop.coordinator, shop.machineId, input)
      const after = (await dueOf('Renew low-pressure seals')).aboutDay!
      expect(Date.parse(after) - Date.parse(before)).toBeGreaterThanOrEqual(19 * 86_400_000)
      expect(Date.parse(after) - Date.parse(before)).toBeLessThanOrEqual(21 * 86_400_000)
      expect((await getRound(shop.technician))[0]).toMatchObject({ owes: true, laidUp: '' })
      await at('2026-08-25', async () => {
        expect((await getRound(shop.technician))[0]).toMatchObject({
          owes: false,
          laidUp: 'laid up until 8\u00a0Sep',
        })
        expect((await listMachines(shop.technician))[0]).toMatchObject({
          owesReading: false,
          spell: 'laid up until 8\u00a0Sep',
        })
      })
      const [kept] = await spellsOf(shop.technician, shop.machineId)
      await withdrawSpell(shop.coordinator, { id: kept!.id, version: kept!.version })
      expect((await dueOf('Renew low-pressure seals')).aboutDay).toBe(before)
      expect((await getMachine(shop.coordinator, 'T-04')).changes.map((change) => change.summary)).toEqual(
        expect.arrayContaining([
          'Lay-up 20\u00a0Aug to 8\u00a0Sep: bridge closed',
          'Lay-up 20\u00a0Aug to 8\u00a0Sep taken out: bridge closed',
        ]),
      )
    }))

  test('a booked job brings the days forward; of another meter it counts in proportion', () =>
    now(async () => {
      const before = (await dueOf('Renew low-pressure seals')).aboutDay!
      const job = spell({
        kind: 'job',
        fromDay: '2026-08-13',
        toDay: '2026-08-24',
        hoursPerDay: '12' as never,
      })
      await saveSpell(shop.coordinator, shop.machineId, job)
      expect((await dueOf('Renew low-pressure seals')).aboutDay! < before).toBe(true)
      const meterId = uuid()
      await saveMeter(shop.coordinator, shop.machineId, {
        id: meterId,
        name: 'Pump hours',
        kind: 'pump',
        digits: 5,
        decimals: 1,
        readingIntervalDays: 7,
      })
      // 120 h of the engine went with 60 h of the pump: half.
      for (const [day, value] of [
        ['2026-06-01', '10'],
        ['2026-07-01', '40'],
        ['2026-08-01', '70'],
      ] as const)
        await read(meterId, day, value)
      const machine = await getMachine(shop.coordinator, 'T-04')
      expect(machine.meters.map((meter) => meter.known.bookings[0]!.hoursPerDay)).toEqual([
        12,
        expect.closeTo(6, 1),
      ])
    }))

  test.each<[string, Partial<SpellInput>, string, string]>([
    ['days that are taken', { fromDay: '2026-08-12' }, 'fromDay', 'T-04 already has a lay-up on these days'],
    [
      'an end before its start',
      { fromDay: '2026-10-01', toDay: '2026-09-30' },
      'toDay',
      'The last day is before',
    ],
    [
      'a job without an end',
      { kind: 'job', fromDay: '2026-10-01', toDay: '' },
      'toDay',
      'Enter the job’s last day.',
    ],
  ])('%s: refused beside the field, and nothing is kept', (_what, more, field, words) =>
    now(async () => {
      await saveSpell(shop.coordinator, shop.machineId, spell({ fromDay: '2026-08-10', toDay: '2026-08-14' }))
      const problem = await problemIn(saveSpell(shop.coordinator, shop.machineId, spell(more)))
      expect(problem.fields![field]).toContain(words)
      expect(await spellsOf(shop.coordinator, shop.machineId)).toHaveLength(1)
    }),
  )

  test('sent twice it is one; changed by two people the second is told; technicians change none', () =>
    now(async () => {
      const input = spell()
      await saveSpell(shop.coordinator, shop.machineId, input)
      await saveSpell(shop.coordinator, shop.machineId, input)
      const [kept] = await spellsOf(shop.coordinator, shop.machineId)
      const edit = { ...input, version: kept!.version }
      await saveSpell(shop.coordinator, shop.machineId, { ...edit, toDay: '2026-09-20' })
      expect(
        await problemIn(saveSpell(shop.coordinator, shop.machineId, { ...edit, what: 'x' })),
      ).toMatchObject({
        kind: 'conflict',
        stale: { changed: ['toDay'] },
      })
      expect(await problemIn(saveSpell(shop.technician, shop.machineId, spell()))).toMatchObject({
        kind: 'notAllowed',
      })
      expect(await spellsOf(shop.coordinator, shop.machineId)).toMatchObject([{ toDay: '2026-09-20' }])
    }))
})

describe('which meter counts a pump', () => {
  const duty = (version: number, more = {}) => ({
    id: uuid(),
    assemblyId: shop.pumpId,
    version,
    day: '2026-07-01',
    time: '12:00',
    meterId: shop.meterId,
    share: '50' as never,
    shareBasis: 'measured' as const,
    reason: 'logged for a week',
    ...more,
  })
  const hours = async () => (await getAssembly(shop.coordinator, 'P-04')).usage!

  test('a new share counts from its day on; hours before it stay, and its forecast goes by the share', () =>
    now(async () => {
      expect(await hours()).toBeCloseTo(820, 6)
      await changeDuty(shop.coordinator, duty(1))
      // 700 at the take-over, 60 h in June in full, 60 h in July by half.
      expect(await hours()).toBeCloseTo(790, 6)
      const page = await getAssembly(shop.coordinator, 'P-04')
      expect(page.duties.map(({ day, share }) => [day, share])).toEqual([
        ['2026-07-01', 0.5],
        ['2026-06-01', 1],
      ])
      expect(page.line.at(-1)!.hours).toBeCloseTo(790, 6)
      expect(page.changes[0]).toMatchObject({
        summary: 'P-04 counted by Engine hours, 50 % of it',
        reason: 'logged for a week',
      })
      const forecast = forecastUsage({ points: page.meterLine! }, '2026-08-12', page.known)!
      const own = dueDays(forecast, 10 / 0.5).median!
      expect(own > dueDays(forecast, 10).median!).toBe(true)
    }))

  test('a move taken back takes the shares said since with it', () =>
    now(async () => {
      const other = plainMachine('T-05', shop.yardId, { meter: plainMeter({ firstTyped: '300' }) })
      await addMachine(shop.coordinator, other)
      const fittingId = uuid()
      const place = {
        where: 'machine' as const,
        machineId: other.id,
        meterId: other.meter.id,
        slot: '',
        share: 100,
        shareBasis: 'own' as const,
      }
      const move = {
        assemblyId: shop.pumpId,
        version: 1,
        day: '2026-08-11',
        time: '12:00',
        place,
        reason: '',
      }
      await moveAssembly(shop.coordinator, { id: fittingId, ...move })
      await changeDuty(shop.coordinator, duty(2, { day: '2026-08-12', meterId: other.meter.id }))
      await undoMove(shop.coordinator, { assemblyId: shop.pumpId, fittingId })
      const back = await getAssembly(shop.coordinator, 'P-04')
      expect(back.place.machineNumber).toBe('T-04')
      expect(back.countedBy).toMatchObject({ meterId: shop.meterId, share: 1 })
      expect(back.duties).toHaveLength(1)
    }))

  test('a share from before it came, from before the last change, the same again, or off the machine: refused', () =>
    now(async () => {
      const refused = async (input: object) =>
        (await problemIn(changeDuty(shop.coordinator, input as never))).message
      expect(await refused(duty(1, { day: '2026-05-30' }))).toContain('It came onto T-04 later than this.')
      expect(await refused(duty(1, { share: '100', shareBasis: 'own' }))).toBe(
        'This is how it is counted now.',
      )
      expect(await refused(duty(1, { share: '140' }))).toBe('Enter a share from 1 to 100 %.')
      expect(await refused(duty(1, { reason: '' }))).toBe('Say what it was measured or judged by.')
      await changeDuty(shop.coordinator, duty(1))
      expect(await refused(duty(2, { day: '2026-06-20', share: '80' }))).toContain(
        'changed later than this already',
      )
      expect((await problemIn(changeDuty(shop.coordinator, duty(1, { share: '70' })))).kind).toBe('conflict')
      expect(await hours()).toBeCloseTo(790, 6)
    }))

  test('a meter that counts a pump is not retired; once another counts it, it is, and can come back', () =>
    now(async () => {
      const { meters } = await getMachine(shop.coordinator, 'T-04')
      const old = meters[0]!
      const retire = (version: number) =>
        retireMeter(shop.coordinator, { id: old.id, version, reason: 'cable torn off' })
      expect((await problemIn(retire(old.version))).message).toContain('Engine hours still counts P-04.')
      const meterId = uuid()
      const pumpMeter = {
        name: 'Pump hours',
        kind: 'pump' as const,
        digits: 5,
        decimals: 1,
        readingIntervalDays: 7,
      }
      await saveMeter(shop.coordinator, shop.machineId, { id: meterId, ...pumpMeter })
      await recordReading(shop.coordinator, {
        id: uuid(),
        meterId,
        day: '2026-08-12',
        time: '12:00',
        typed: '5',
        readBy: '',
        note: '',
        vouched: false,
      })
      await changeDuty(
        shop.coordinator,
        duty(1, { meterId, share: 100, shareBasis: 'own', day: '2026-08-12' }),
      )
      await retire(old.version)
      expect((await getRound(shop.technician)).map((row) => row.meterName)).toEqual(['Pump hours'])
      expect(await problemIn(read(old.id, '2026-08-12', '1130'))).toMatchObject({
        fields: { meterId: 'Engine hours is retired and takes no more readings.' },
      })
      expect(await hours()).toBeCloseTo(820, 6)
      await returnMeter(shop.coordinator, { id: old.id, version: old.version + 1 })
      expect(await getRound(shop.technician)).toHaveLength(2)
    }))
})

test('a pump moves with the readings of that moment: its stays end and begin on them', () =>
  now(async () => {
    const other = plainMachine('T-05', shop.yardId, { meter: plainMeter({ firstTyped: '300' }) })
    await addMachine(shop.coordinator, other)
    const move = {
      id: uuid(),
      assemblyId: shop.pumpId,
      version: 1,
      day: '2026-08-12',
      time: '13:00',
      offTyped: '1145.5',
      onTyped: '480',
      place: {
        where: 'machine' as const,
        machineId: other.id,
        meterId: other.meter.id,
        slot: 'main pump',
        share: 100,
        shareBasis: 'own' as const,
      },
      reason: 'T-04 to the paint shop',
    }
    expect(await problemIn(moveAssembly(shop.coordinator, { ...move, offTyped: 'lots' }))).toMatchObject({
      fields: { offTyped: '“lots” is not a number.' },
    })
    expect((await getAssembly(shop.coordinator, 'P-04')).place.machineNumber).toBe('T-04')
    expect(await moveAssembly(shop.coordinator, move)).toEqual({ doubted: [] })
    await read(other.meter.id, '2026-08-20', '500')
    await at('2026-08-20', async () => {
      const page = await getAssembly(shop.coordinator, 'P-04')
      // 700 taken over, 145.5 on T-04, 20 on T-05 since the reading at the move.
      expect(page.usage).toBeCloseTo(865.5, 6)
      expect(page.stays.map((stay) => [stay.machineNumber, Math.round(stay.used * 10) / 10])).toEqual([
        ['T-04', 145.5],
        ['T-05', 20],
      ])
      const left = await getMachine(shop.coordinator, 'T-04')
      expect(left.meters[0]!.total).toBe(1145.5)
      // Back again on a reading that cannot be: it moves all the same, and says which reading is in doubt.
      const back = {
        ...move,
        id: uuid(),
        version: 2,
        day: '2026-08-20',
        offTyped: '5 000',
        onTyped: '',
        place: { ...move.place, machineId: shop.machineId, meterId: shop.meterId },
      }
      expect(await moveAssembly(shop.coordinator, back)).toEqual({ doubted: ['Engine hours'] })
      expect(left.past).toMatchObject([{ number: 'P-04', day: '2026-06-01', untilDay: '2026-08-12' }])
    })
  }))
