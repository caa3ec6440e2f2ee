import {
  fleetProblem,
  planVisits,
  proposalsOf,
  safeBy,
  slipsOf,
  takeOf,
  whatIf,
  type Fleet,
} from '@/core/plan'
import { fleet, service, visit } from '../../support/planFleet'

// Frost before the morning of each day, from Monday 3 August on; accepted are 5 %.
const chances = [0, 0, 0.01, 0.02, 0.04, 0.06, 0.1, 0.15, ...Array.from({ length: 30 }, () => 0.2)]
const winter = { machineId: 'm1', minutes: 90, valueCents: 100_000, frost: 'y 0', from: null, visitId: null }
const cold = (more: Partial<Fleet> = {}) => fleet({ winters: [winter], frosts: { 'y 0': chances }, ...more })
const propose = async (given: Fleet) => {
  const problem = fleetProblem(given)
  const { visits } = await planVisits(problem, { seed: 1 })
  return proposalsOf(given, problem, visits, 'EUR')
}

test('the last day on which the chance of frost is accepted is when it has to be safe', () => {
  expect(safeBy(cold(), 'y 0')).toBe(4)
  expect(safeBy({ frosts: { 'y 0': [0.5] }, frostRisk: 0.05 }, 'y 0')).toBe(0)
  expect(safeBy({ frosts: { 'y 0': [0, 0.01] }, frostRisk: 0.05 }, 'y 0')).toBe(null)
})

test('a machine is made safe where the chance of frost costs as much as standing ready too early', async () => {
  // A day early holds it for a tenth of 120.00; frost costs 1 000.00 by its chance:
  // Mon 48, Tue 36, Wed 10 + 24 = 34, Thu 20 + 12 = 32, Fri 40.
  const [proposal, ...others] = await propose(cold())
  expect(others).toEqual([])
  expect(proposal).toMatchObject({ kind: 'new', winter: 'lay', day: '2026-08-06', minutes: 90, services: [] })
  expect(proposal!.reasons).toEqual([
    'Made safe for winter: frost has come before with 2.0 %, a week later with 20.0 %.',
  ])
  expect(takeOf('act', [proposal!], cold()).visits).toMatchObject([
    { visitId: null, winter: 'lay', machineId: 'm1', items: [] },
  ])
})

test('services due about then go along, with making safe counted once', async () => {
  const [proposal, ...others] = await propose(cold({ services: [service('seals', '2026-08-06')] }))
  expect(others).toEqual([])
  // 110 for the seals with their way in; the 90 hold 20 of making safe already.
  expect(proposal).toMatchObject({ winter: 'lay', minutes: 180, services: [{ task: 'seals' }] })
})

test('what can be done before the lay-up is done before it; what comes due while the machine stands waits for spring', async () => {
  const pulled = service('seals', '2026-08-20', { window: { from: '2026-08-05', to: '2026-08-25' } })
  const later = service('valves', '2026-08-25', { window: { from: '2026-08-15', to: '2026-08-28' } })
  const [proposal, ...others] = await propose(cold({ services: [pulled, later] }))
  expect(others).toEqual([])
  expect(proposal!.day <= '2026-08-07').toBe(true)
  expect(proposal).toMatchObject({ winter: 'lay', services: [{ task: 'seals' }] })
})

test('far from the frost nothing is proposed, and a machine that is away is there first', async () => {
  expect(await propose(cold({ frosts: { 'y 0': [0, 0.01, 0.02] } }))).toEqual([])
  const [late] = await propose(cold({ winters: [{ ...winter, from: '2026-08-12' }] }))
  expect(late!.day).toBe('2026-08-12')
})

describe('a booked winter visit', () => {
  const booked = (day: string, more = {}) =>
    cold({
      winters: [{ ...winter, valueCents: 1_000_000, visitId: '7' }],
      visits: [visit('7', day, { winter: 'lay', movesWithFrost: true, minutes: 90, ...more })],
    })

  test('moves with the frost, and stays where it is approved', async () => {
    const [moved] = await propose(booked('2026-08-20'))
    expect(moved).toMatchObject({ kind: 'moved', visit: { id: '7' }, winter: '', services: [] })
    expect(moved!.day < '2026-08-08').toBe(true)
    expect(await propose(booked('2026-08-20', { state: 'approved' }))).toEqual([])
  })

  test('keeps making its machine safe where its services go elsewhere', () => {
    const given = booked('2026-08-06')
    given.services = [service('seals', '2026-08-20', { visitId: '7' })]
    const taken = {
      ...{ key: '', kind: 'new' as const, machineId: 'm1', machine: '', day: '2026-08-20', leadId: 'varga' },
      ...{
        lead: '',
        helpers: [],
        minutes: 1,
        winter: '' as const,
        visit: null,
        instead: [],
        minds: '',
        reasons: [],
      },
      services: [{ assemblyId: 'P-04', task: 'seals', positions: ['1'], name: '', where: '', pump: '' }],
    }
    const { visits, cancel } = takeOf('act', [taken], given)
    expect(cancel).toEqual([])
    expect(visits).toMatchObject([{ visitId: null }, { visitId: '7', day: '2026-08-06', items: [] }])
  })

  test('that is too late for the frost no longer fits', () => {
    expect(slipsOf(booked('2026-08-07'))).toEqual([])
    expect(slipsOf(booked('2026-08-20'))).toMatchObject([
      { visitId: '7', says: ['Frost has come by then with 20\u00a0%.'.replace('\u00a0', ' ')] },
    ])
  })

  test('an early frost: what breaks, and the smallest repair', async () => {
    const fine = await whatIf(booked('2026-08-07'), { kind: 'frost', yardId: 'other', days: 3 }, 'EUR')
    expect(fine).toMatchObject({ broken: [], proposals: [] })
    const early = await whatIf(booked('2026-08-07'), { kind: 'frost', yardId: 'y', days: 3 }, 'EUR')
    expect(early.broken).toEqual([
      {
        machine: 'T-04 trailer',
        says: 'Frost has come before its winter visit with 15 % (7\u00a0Aug)',
        isSo: false,
      },
    ])
    // Booked for the 20th it is too late by the frost as it is.
    const anyway = await whatIf(booked('2026-08-20'), { kind: 'frost', yardId: 'y', days: 3 }, 'EUR')
    expect(anyway.broken).toMatchObject([{ machine: 'T-04 trailer', isSo: true }])
    expect(early.proposals).toMatchObject([{ kind: 'moved', visit: { id: '7' } }])
    expect(early.proposals[0]!.day < '2026-08-07').toBe(true)
  })
})
