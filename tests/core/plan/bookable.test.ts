import fc from 'fast-check'
import { bookable, leastBusy, type VisitLine, visitLeads, whoHasTime } from '@/core/plan'
import type { WearView } from '@/core/wear'

const positions = ['hpSeal@1', 'hpSeal@2', 'hpSeal@3']
const pump = {
  assemblyId: 'a',
  number: 'P-04',
  unit: 'h',
  positionNames: { 'hpSeal@1': 'cylinder 1', 'hpSeal@2': 'cylinder 2' },
  clocks: [{ task: 'hpSeals', where: 'all three', positions }],
} as unknown as WearView
const visit = (id: string, ofTask: string, some: string[]) =>
  ({ id, services: [{ assemblyId: 'a', task: ofTask, positions: some }] }) as unknown as VisitLine

test('what no visit has is bookable as it stands', () => {
  expect(bookable(pump, [])).toMatchObject([{ positions, where: 'all three', booked: null, pump: 'P-04' }])
})

test('of a service that is booked in part, what is left, by the names of its places', () => {
  const [left] = bookable(pump, [visit('v', 'hpSeals', ['hpSeal@1'])])
  // The third has no name of its own and is called by its key.
  expect(left).toMatchObject({
    positions: ['hpSeal@2', 'hpSeal@3'],
    where: 'cylinder 2; hpSeal@3',
    booked: null,
  })
})

test('one that is booked whole keeps its positions and names its visit', () => {
  const [clock] = bookable(pump, [visit('v', 'hpSeals', positions)])
  expect(clock).toMatchObject({ positions, where: 'all three', booked: 'v' })
})

const person = (id: string, more = {}) => ({ id, name: id, role: 'technician', retiredOn: null, ...more })

test('the technician with the fewest visits that day, by name where alike; nobody who left or plans only', () => {
  const people = [
    person('c'),
    person('b'),
    person('a', { retiredOn: '2026-01-01' }),
    person('0', { role: 'viewer' }),
  ]
  const open = [
    { leadId: 'b', day: '2026-10-14' },
    { leadId: 'c', day: '2026-10-15' },
    { leadId: 'c', day: '2026-10-15' },
  ]
  expect(leastBusy(people, open, '2026-10-14')).toBe('c')
  expect(leastBusy(people, open, '2026-10-15')).toBe('b')
  expect(leastBusy(people, open, '2026-10-16')).toBe('b')
  expect(leastBusy([], open, '2026-10-14')).toBe('')
})

test('law: nobody who may lead has fewer visits than the one suggested', () => {
  const people = ['a', 'b', 'c', 'd'].map((id) => person(id))
  fc.assert(
    fc.property(fc.array(fc.constantFrom('a', 'b', 'c', 'd'), { maxLength: 20 }), (leads) => {
      const open = leads.map((leadId) => ({ leadId, day: '2026-10-14' }))
      const count = (id: string) => leads.filter((each) => each === id).length
      const chosen = leastBusy(people, open, '2026-10-14')
      for (const { id } of people) expect(count(chosen)).toBeLessThanOrEqual(count(id))
    }),
  )
})

test('a visit goes to whoever is in service and does more than look', () => {
  const person = (id: string, role: string, retiredOn: string | null = null) => ({
    id,
    name: id.toUpperCase(),
    role,
    retiredOn,
  })
  expect(
    visitLeads([
      person('a', 'technician'),
      person('b', 'viewer'),
      person('c', 'coordinator'),
      person('d', 'technician', '2026-01-01'),
    ]),
  ).toEqual([
    { value: 'a', label: 'A' },
    { value: 'c', label: 'C' },
  ])
})

test('a visit goes to somebody of its yard who has the time, else to anybody who has, else to whoever has most', () => {
  const crew = [
    { id: 'a', name: 'Anders', yardId: 'upland' },
    { id: 'b', name: 'Berg', yardId: 'harbour' },
    { id: 'c', name: 'Cole', yardId: 'harbour' },
  ]
  const to = (minutes: number, left: Record<string, number>) =>
    whoHasTime(crew, { yardId: 'harbour', minutes }, (id) => left[id]!)
  expect(to(120, { a: 480, b: 120, c: 200 })).toBe('c')
  expect(to(120, { a: 480, b: 120, c: 100 })).toBe('b')
  expect(to(120, { a: 200, b: 100, c: 100 })).toBe('a')
  expect(to(120, { a: -60, b: 0, c: 20 })).toBe('c')
  expect(whoHasTime([], { yardId: 'harbour', minutes: 60 }, () => 0)).toBeNull()
})
