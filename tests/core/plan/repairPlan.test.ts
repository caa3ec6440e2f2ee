import fc from 'fast-check'
import {
  checkPlan,
  planVisits,
  repairPlan,
  type PlanChange,
  type PlanProblem,
  type PlanTask,
} from '@/core/plan'
import { judge } from '../../support/planChecker'
import { dice, smallProblem } from '../../support/planProblems'

const days = (from: number, to: number) => Array.from({ length: to - from + 1 }, (_, at) => from + at)
const task = (machine: string, due: number, more: Partial<PlanTask> = {}): PlanTask => ({
  id: `${machine} seals`,
  ...{ machine, access: ['safe'], minutes: 60, earliest: due - 5, due, latest: due + 4 },
  ...{ earlyCostPerDay: 3, lateCostPerDay: 12 },
  ...more,
})
const fleet: PlanProblem = {
  horizonDays: 20,
  labourRatePerMinute: 1,
  crew: ['Brandt', 'Varga'].map((id) => ({ id, skills: [], minutesByDay: Array<number>(20).fill(240) })),
  machines: ['A', 'B', 'C'].map((id) => ({
    id,
    visitFixedCost: 30,
    blockedDays: [],
    accessMinutes: { safe: 20 },
  })),
  tasks: [task('A', 6), task('B', 8), task('C', 12)],
}
const placed = async (problem = fleet) => (await planVisits(problem, { seed: 1 })).visits
const daysOf = (visits: { machine: string; day: number }[]) =>
  Object.fromEntries(visits.map(({ machine, day }) => [machine, day]))

test('a machine that is called to a job is moved to the nearest day that is worth it, and nothing else is', async () => {
  const before = await placed()
  expect(daysOf(before)).toEqual({ A: 6, B: 8, C: 12 })
  const repaired = await repairPlan(fleet, before, { kind: 'called', machine: 'B', days: days(7, 9) })
  expect(repaired.broken).toMatchObject([{ rule: 'blocked', machine: 'B', day: 8 }])
  // day 6 costs two days early at 3, day 10 two late at 12
  expect(daysOf(repaired.visits)).toEqual({ A: 6, B: 6, C: 12 })
  expect(repaired.cost.moves).toBe(90)
})

test('a technician who is away hands over to another where there is one, on the same day', async () => {
  const before = await placed()
  const [own] = before.filter(({ machine }) => machine === 'A')
  const other = own!.crew === 'Varga' ? 'Brandt' : 'Varga'
  const repaired = await repairPlan(fleet, before, { kind: 'away', crew: own!.crew, days: [6] })
  expect(repaired.visits.find(({ machine }) => machine === 'A')).toMatchObject({ day: 6, crew: other })
})

test('what did not happen is planned anew; the first three days are left alone', async () => {
  const early = { ...fleet, tasks: [task('A', 1), task('B', 2, { lateCostPerDay: 0 }), task('C', 12)] }
  const before = await placed(early)
  expect(daysOf(before)).toEqual({ A: 1, B: 2, C: 12 })
  const repaired = await repairPlan(early, before, { kind: 'missed', machine: 'C', day: 12 })
  expect(daysOf(repaired.visits)).toEqual({ A: 1, B: 2, C: 12 })
  const tight = { ...early, tasks: [...early.tasks, task('C', 2, { id: 'C valves', latest: 2 })] }
  const added = await repairPlan(early, before, { kind: 'added', tasks: [tight.tasks[3]!] })
  expect(daysOf(added.visits.filter(({ tasks }) => !tasks.includes('C seals')))).toMatchObject({
    A: 1,
    B: 2,
    C: 2,
  })
})

test('parts that come two weeks late push their visit out, or leave it out with the reason', async () => {
  const stocked: PlanProblem = {
    ...fleet,
    tasks: [task('A', 6, { parts: [{ part: 'HP-1', quantity: 3 }] }), task('B', 8), task('C', 12)],
    stock: [{ part: 'HP-1', byDay: [...Array<number>(4).fill(0), ...Array<number>(16).fill(3)] }],
  }
  const before = await placed(stocked)
  const late = await repairPlan(stocked, before, { kind: 'partsLate', part: 'HP-1', days: 4 })
  expect(daysOf(late.visits)).toEqual({ A: 8, B: 8, C: 12 })
  const never = await repairPlan(stocked, before, { kind: 'partsLate', part: 'HP-1', days: 14 })
  expect(never.unplaced).toMatchObject([{ task: 'A seals', rule: 'parts' }])
  expect(daysOf(never.visits)).toEqual({ B: 8, C: 12 })
})

test('a plan that holds is not touched; one that cannot be read is refused', async () => {
  const before = await placed()
  const same = await repairPlan(fleet, before, [])
  expect(same.visits).toEqual(before)
  expect(same.broken).toEqual([])
  await expect(repairPlan(fleet, before, { kind: 'added', tasks: [task('Z', 3)] })).rejects.toThrow(
    'machine Z',
  )
})

test('a repair of anything breaks no rule of the problem as it is now', async () => {
  await fc.assert(
    fc.asyncProperty(fc.integer({ min: 0, max: 1_000_000 }), async (seed) => {
      const given = { ...smallProblem(seed), fixed: [] }
      const { whole, pick } = dice(seed + 1)
      const before = await planVisits(given, { seed: 1, effort: 0.1 })
      const H = given.horizonDays
      const from = whole(0, H - 1)
      const change = pick<PlanChange>([
        { kind: 'away', crew: pick(given.crew).id, days: days(from, Math.min(H - 1, from + 2)) },
        { kind: 'called', machine: pick(given.machines).id, days: days(from, Math.min(H - 1, from + 1)) },
        { kind: 'partsLate', part: 'seal', days: whole(1, 3) },
        { kind: 'benches', yard: 'north', places: 1 },
        { kind: 'tasks', tasks: [{ id: pick(given.tasks).id, earliest: 0, latest: from, due: from }] },
      ])
      const repaired = await repairPlan(given, before.visits, change, { frozenDays: 1 })
      expect(checkPlan(repaired.problem, repaired.visits)).toEqual([])
      expect(judge({ ...repaired.problem, present: [] }, repaired.visits)).toHaveProperty('cost')
    }),
    { numRuns: 80 },
  )
})
