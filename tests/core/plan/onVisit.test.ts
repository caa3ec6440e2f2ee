import { notOnVisit, visitFor } from '@/core/plan'
import type { VisitLine } from '@/core/plan'

const clock = { task: 'hpSeals', positions: ['hpSeal@1', 'hpSeal@2', 'hpSeal@3'] }
const visit = (id: string, positions: string[], task = 'hpSeals'): VisitLine =>
  ({ id, services: [{ assemblyId: 'P-04', task, positions }] }) as unknown as VisitLine

test('one cylinder of three on a visit leaves the other two to book', () => {
  const open = [visit('a', ['hpSeal@1'])]
  expect(notOnVisit('P-04', clock, open)).toEqual(['hpSeal@2', 'hpSeal@3'])
  expect(visitFor('P-04', clock, open)).toBeNull()
})

test('all cylinders on two visits are booked: the first is named', () => {
  const open = [visit('a', ['hpSeal@1']), visit('b', ['hpSeal@2', 'hpSeal@3'])]
  expect(visitFor('P-04', clock, open)?.id).toBe('a')
})

test('another pump or another service does not count', () => {
  expect(notOnVisit('P-05', clock, [visit('a', clock.positions)])).toHaveLength(3)
  expect(notOnVisit('P-04', clock, [visit('a', clock.positions, 'lpSeals')])).toHaveLength(3)
})
