import fc from 'fast-check'
import {
  planVisits,
  problemToPropose,
  runningOf,
  slipsOf,
  tryMove,
  usualPlanTerms,
  violationWords,
  weighVisit,
  type Fleet,
} from '@/core/plan'
import { fleet, monday, service, visit } from '../../support/planFleet'

/** Minutes of one service alone on a visit: 80 go to the way in. */
const lasting = (minutes: number, more = {}) => ({
  shape: { ...service('', monday).shape, minutes: minutes - 80, ...more },
})
const machines = ['m1', 'm2'].map((id) => ({ id, number: id, name: '', yardId: 'y', away: [] }))
const [varga] = fleet().crew
/** Varga alone, 480 minutes a day, of which plans use 384. The overhaul of m1 takes 660: 480 on its day and 180. */
const alone = (more: Partial<Fleet>) => fleet({ machines, crew: [varga!], ...more })
const overhaul = (visitId: string | null) =>
  service('overhaul', '2026-08-05', { visitId, ...lasting(660), assemblyId: 'a' })
const other = (minutes: number, more = {}) =>
  service('seals', '2026-08-06', { assemblyId: 'b', machineId: 'm2', ...lasting(minutes), ...more })
const long = (day: string, more = {}) => visit('1', day, { minutes: 660, ...more })

test('an approved visit that runs over takes its technician’s next day as well', async () => {
  const short = other(300, { window: { from: '2026-08-06', to: '2026-08-07' } })
  const days = async (given: Fleet) => {
    const { visits } = await planVisits(problemToPropose(given), { seed: 1 })
    return visits.filter(({ machine }) => machine === 'm2').map(({ day }) => day)
  }
  // Of Thursday 204 minutes are left, so it is Friday; 200 minutes would fit.
  const booked = { visits: [long('2026-08-05', { state: 'approved' })] }
  expect(await days(alone({ ...booked, services: [overhaul('1'), short] }))).toEqual([4])
  expect(await days(alone({ ...booked, services: [overhaul('1'), { ...short, ...lasting(200) }] }))).toEqual([
    3,
  ])
  expect(await days(alone({ services: [short] }))).toEqual([3])
})

test('nothing is planned on a machine while it is worked on, or cures', async () => {
  const due = service('oil', '2026-08-06', {
    window: { from: '2026-08-05', to: '2026-08-10' },
    ...lasting(90),
  })
  const days = async (given: Fleet) => {
    const { visits } = await planVisits(problemToPropose(given), { seed: 1 })
    return visits.filter(({ tasks }) => tasks.includes('P-04 oil 1')).map(({ day }) => day)
  }
  const approved = { visits: [long('2026-08-05', { state: 'approved' })] }
  expect(await days(alone({ ...approved, services: [overhaul('1'), due] }))).toEqual([4])
  // Glued on Wednesday at 9:50, cured on Friday at 9:50: it is proved on Friday.
  const glued = service('bush', '2026-08-05', {
    visitId: '1',
    ...lasting(110, { cureMinutes: 2880 }),
    assemblyId: 'a',
  })
  const curing = alone({ visits: [visit('1', '2026-08-05', { state: 'approved' })], services: [glued, due] })
  expect(await days(curing)).toEqual([4])
})

test('what is in hand since yesterday takes today', async () => {
  // Begun on Friday: 480 minutes then, 180 on Monday, of whose 384 are 204 left.
  const given = alone({
    visits: [long('2026-07-31', { hasSheet: true })],
    services: [
      overhaul('1'),
      other(300, { window: { from: '2026-07-01', to: '2026-07-10' }, due: monday, isOver: true }),
    ],
  })
  const { visits } = await planVisits(problemToPropose(given), { seed: 1 })
  expect(visits.filter(({ machine }) => machine === 'm2').map(({ day }) => day)).toEqual([1])
})

test('two long visits that begin on one machine on one day are planned around, not refused', async () => {
  const two = fleet({
    machines,
    services: [overhaul('1'), { ...overhaul('2'), assemblyId: 'c' }, other(300)],
    visits: [
      long('2026-08-05', { state: 'approved' }),
      long('2026-08-05', { id: '2', state: 'approved', leadId: 'brandt' }),
    ],
  })
  const { visits } = await planVisits(problemToPropose(two), { seed: 1 })
  // The planner takes what is booked on a machine for a day as one visit, by whoever is named first: 360 on Thursday.
  expect(visits.filter(({ machine }) => machine === 'm2')).toMatchObject([{ day: 3, crew: 'brandt' }])
})

test('dragging says what a later day breaks', () => {
  const given = alone({
    services: [overhaul('1'), other(320, { visitId: '2' })],
    visits: [long('2026-08-05'), visit('2', '2026-08-11', { machineId: 'm2', minutes: 320 })],
  })
  const words = (id: string, day: string) =>
    tryMove(given, id, { day, leadId: 'varga' }).breaks.map((each) => violationWords(each, given))
  // The day after it is Thursday: 180 and 320 are more than 384.
  expect(words('2', '2026-08-06')).toEqual(['varga has not the time for it.'])
  expect(words('2', '2026-08-07')).toEqual([])
  expect(words('1', '2026-08-10')).toEqual(['varga has not the time for it.'])
  expect(words('1', '2026-08-12')).toEqual([])
})

test('two that no longer fit on one day are told, and one of a machine that is not back yet', () => {
  const services = (minutes: number) => [overhaul('1'), other(minutes, { visitId: '2' })]
  const second = (minutes: number) => visit('2', '2026-08-06', { machineId: 'm2', minutes })
  const slips = (given: Fleet) => slipsOf(given).map(({ visitId, says }) => [visitId, says])
  // The share that is kept free counts here: 180 and 300 fill Thursday.
  expect(slips(alone({ services: services(300), visits: [long('2026-08-05'), second(300)] }))).toEqual([])
  expect(slips(alone({ services: services(310), visits: [long('2026-08-05'), second(310)] }))).toEqual([
    ['1', ['varga has not the time for it.']],
    ['2', ['varga has not the time for it.']],
  ])
  const oil = service('oil', '2026-08-06', { visitId: '3', ...lasting(90) })
  const same = alone({
    services: [overhaul('1'), oil],
    visits: [long('2026-08-05'), visit('3', '2026-08-06')],
  })
  expect(slips(same)).toEqual([['3', ['Another visit of the machine runs over that day.']]])
})

test('the best day for long work is one whose later days are free as well', async () => {
  const given = alone({
    services: [other(320, { visitId: '2' })],
    visits: [visit('2', '2026-08-06', { machineId: 'm2', minutes: 320 })],
  })
  const deciding = { machineId: 'm1', services: [overhaul(null)], visitId: null, helperId: null }
  const asked = await weighVisit(given, { ...deciding, day: '2026-08-05', leadId: 'varga' })
  expect(asked.place!.breaks).toEqual(['varga has not the time for it.'])
  // Due on Wednesday. On Tuesday it would run into Wednesday, which is free: a day early costs less than two late.
  const { best, place } = await weighVisit(given, { ...deciding, day: null, leadId: null })
  expect(best).toMatchObject({ day: '2026-08-04', leadId: 'varga' })
  expect(place!.breaks).toEqual([])
})

test('law: beside visits that are settled nobody is planned more than a day holds', async () => {
  const ids = ['m1', 'm2', 'm3']
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.record({ at: fc.nat(9), minutes: fc.integer({ min: 100, max: 1500 }) }), { maxLength: 3 }),
      fc.array(fc.record({ on: fc.nat(2), minutes: fc.integer({ min: 90, max: 380 }), due: fc.nat(14) }), {
        minLength: 1,
        maxLength: 6,
      }),
      async (settled, open) => {
        const dayOf = (at: number) => `2026-08-${String(3 + at).padStart(2, '0')}`
        const given = alone({
          machines: ids.map((id) => ({ id, number: id, name: '', yardId: 'y', away: [] })),
          services: [
            ...settled.map(({ minutes }, at) =>
              service('overhaul', '2026-08-05', {
                ...{ assemblyId: ids[at]!, machineId: ids[at]!, visitId: String(at) },
                ...lasting(minutes),
              }),
            ),
            ...open.map(({ on, minutes, due }, at) =>
              service(`task${at}`, dayOf(due), {
                ...lasting(minutes),
                assemblyId: ids[on]!,
                machineId: ids[on]!,
              }),
            ),
          ],
          visits: settled.map(({ at, minutes }, index) =>
            visit(String(index), dayOf(at), { machineId: ids[index]!, minutes, state: 'approved' }),
          ),
        })
        const runs = given.visits.map((each) => ({ ...each, ...runningOf(given, each) }))
        const { visits } = await planVisits(problemToPropose(given), { seed: 1, effort: 0.1 })
        const mine = visits.filter(({ tasks }) => tasks.some((id) => id.includes(' task')))
        const limit = 480 * (1 - usualPlanTerms.freePercent / 100)
        for (const { day } of mine) {
          const planned = mine
            .filter((each) => each.day === day)
            .reduce((sum, { minutes }) => sum + minutes, 0)
          const taken = runs
            .flatMap(({ days }) => days.filter((each) => each.day === dayOf(day)))
            .reduce((sum, { minutes }) => sum + minutes, 0)
          expect(planned + taken).toBeLessThanOrEqual(limit)
        }
        for (const { machine, day } of mine)
          for (const { machineId, day: from, backOn } of runs)
            if (machineId === machine) expect(dayOf(day) < from || dayOf(day) >= backOn).toBe(true)
      },
    ),
    { numRuns: 60 },
  )
})
