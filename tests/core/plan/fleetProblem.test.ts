import {
  fleetProblem,
  horizonRows,
  planVisits,
  problemToPropose,
  proposalsOf,
  slipsOf,
  takeOf,
  tryMove,
  usualPlanTerms,
  violationWords,
  weeklyLoad,
  whatIf,
  type Fleet,
} from '@/core/plan'
import { fleet, monday, service, visit } from '../../support/planFleet'

test('costs follow the share of life given up, and the chance of failing that a late day adds', () => {
  // Renewal: 10.00 of parts and 30 min at 54.00 an hour, 27.00: 37.00 over 100 days, 0.37 a day.
  // A failure: three times 37.00 more, and two days standing at 120.00: 351.00, a third of it over 20 late days.
  const [task] = fleetProblem(
    fleet({
      services: [service('seals', '2026-08-10', { window: { from: '2026-08-05', to: '2026-08-30' } })],
    }),
  ).tasks
  expect(task).toMatchObject({
    earliest: 2,
    due: 7,
    latest: 27,
    minutes: 30,
    access: ['safe', 'P-04 manifold'],
  })
  expect(task!.earlyCostPerDay).toBeCloseTo(37)
  expect(task!.lateCostPerDay).toBeCloseTo(35100 / 3 / 20)
})

test('who is away, closed days, weekends and the share for breakdowns leave what is left of each day', () => {
  const problem = fleetProblem(
    fleet({
      terms: { ...usualPlanTerms, closed: [{ from: '2026-08-05', to: '2026-08-05' }] },
      crew: [
        {
          ...{ id: 'varga', name: 'Varga', yardId: null, days: [1, 2, 3, 4, 5], minutes: 480, skills: null },
          leave: [{ from: '2026-08-06', to: '2026-08-10' }],
        },
      ],
    }),
  )
  expect(problem.crew[0]!.minutesByDay.slice(0, 9)).toEqual([384, 384, 0, 0, 0, 0, 0, 0, 384])
  expect(problem.machines[0]!.blockedDays).toEqual([2])
})

test('a service whose machine is away all through its window is late rather than left out', async () => {
  const away = fleet({
    machines: [
      {
        ...{ id: 'm1', number: 'T-04', name: 'trailer', yardId: 'y' },
        away: [{ kind: 'job' as const, from: monday, to: '2026-08-14' }],
      },
    ],
    services: [service('seals', '2026-08-08', { window: { from: '2026-08-05', to: '2026-08-12' } })],
  })
  const plan = await planVisits(fleetProblem(away), { seed: 1 })
  // Monday the 17th: the 15th and 16th are a weekend.
  expect(plan.visits).toMatchObject([{ day: 14 }])
})

test('a visit in hand stays out of the plan, one whose day has passed is planned anew, winter stays', async () => {
  const given = fleet({
    services: [
      service('seals', '2026-08-10', { visitId: '1' }),
      service('oil', '2026-08-10', { visitId: '2' }),
      service('valves', '2026-08-20', { visitId: '3' }),
    ],
    visits: [
      visit('1', '2026-08-01', { hasSheet: true }),
      visit('2', '2026-07-31'),
      visit('3', '2026-08-20', { winter: 'lay' }),
    ],
  })
  const problem = fleetProblem(given)
  expect(problem.tasks.map(({ id }) => id)).toEqual(['P-04 oil 1', 'P-04 valves 1', 'winter 3'])
  expect(problem.fixed).toMatchObject([{ day: 17, tasks: ['P-04 valves 1', 'winter 3'] }])
  const plan = await planVisits(problem, { seed: 1 })
  expect(proposalsOf(given, problem, plan.visits, 'EUR')).toMatchObject([
    {
      visit: { id: expect.stringMatching(/^[23]$/) },
      services: expect.arrayContaining([expect.objectContaining({ task: 'oil' })]),
    },
  ])
})

test('a visit of which the fleet does not know every service stays as it is: none of it can be lost', async () => {
  const services = [service('seals', '2026-08-24', { visitId: '1' }), service('oil', '2026-08-12')]
  const given = fleet({ services, visits: [visit('1', '2026-08-20', { isWhole: false })] })
  const problem = fleetProblem(given)
  expect(problem.present).toEqual([])
  expect(problem.fixed).toMatchObject([{ day: 17, tasks: ['P-04 seals 1'] }])
  const { visits } = await planVisits(problem, { seed: 1 })
  expect(visits).toContainEqual(
    expect.objectContaining({ day: 17, tasks: expect.arrayContaining(['P-04 seals 1']) }),
  )
})

test('what is taken in part leaves visits with what nobody takes from them, and cancels those left with nothing', () => {
  const given = fleet({
    services: [
      service('seals', '2026-08-20', { visitId: '1' }),
      service('valves', '2026-08-20', { visitId: '1' }),
      service('oil', '2026-08-20', { visitId: '2' }),
    ],
    visits: [visit('1', '2026-08-18'), visit('2', '2026-08-19')],
  })
  const chosen = (tasks: string[]) => ({
    ...{
      key: 'k',
      kind: 'new' as const,
      machineId: 'm1',
      machine: 'T-04',
      day: '2026-08-17',
      leadId: 'varga',
      helpers: [],
      winter: '' as const,
      lead: 'Varga',
    },
    ...{ minutes: 1, visit: null, instead: [], minds: '', reasons: [] },
    services: tasks.map((task) => ({
      assemblyId: 'P-04',
      task,
      positions: ['1'],
      name: task,
      where: '',
      pump: 'P-04',
    })),
  })
  const input = takeOf('act', [chosen(['seals', 'oil'])], given)
  expect(input.visits.map(({ visitId, items }) => [visitId, items.map(({ task }) => task)])).toEqual([
    [null, ['seals', 'oil']],
    ['1', ['valves']],
  ])
  expect(input.cancel).toEqual([{ id: '2', version: 1 }])
})

test('moving a visit says what it breaks and what it costs before anything is stored', () => {
  const given = fleet({
    services: [
      service('seals', '2026-08-20', { visitId: '1', window: { from: '2026-08-15', to: '2026-08-25' } }),
    ],
    visits: [visit('1', '2026-08-20')],
  })
  // A day early: 0.37 of life.
  expect(tryMove(given, '1', { day: '2026-08-19', leadId: 'varga' })).toEqual({ breaks: [], cents: 37 })
  const weekend = tryMove(given, '1', { day: '2026-08-22', leadId: 'varga' })
  expect(weekend.breaks.map((each) => violationWords(each, given))).toEqual([
    'varga has not the time for it.',
  ])
  const late = tryMove(given, '1', { day: '2026-08-28', leadId: 'varga' })
  expect(late.breaks.map((each) => violationWords(each, given))).toEqual(['Outside its window: seals.'])
})

test('what if somebody is away: what breaks, and the visit handed over on its day; nothing else is touched', async () => {
  const given = fleet({
    machines: ['m1', 'm2'].map((id) => ({ id, number: id, name: 'trailer', yardId: 'y', away: [] })),
    services: [
      service('seals', '2026-08-20', { visitId: '1' }),
      service('oil', '2026-08-06', { visitId: '2', machineId: 'm2' }),
    ],
    visits: [visit('1', '2026-08-20'), visit('2', '2026-08-06', { leadId: 'brandt', machineId: 'm2' })],
  })
  const away = await whatIf(
    given,
    { kind: 'away', personId: 'varga', from: '2026-08-17', to: '2026-08-21' },
    'EUR',
  )
  expect(away.broken).toMatchObject([{ machine: 'm1 trailer', says: expect.stringContaining('varga') }])
  expect(away.proposals).toMatchObject([
    { kind: 'moved', day: '2026-08-20', leadId: 'brandt', visit: { id: '1' } },
  ])
  const none = await whatIf(given, { kind: 'away', personId: 'varga', from: monday, to: monday }, 'EUR')
  expect(none).toEqual({ broken: [], proposals: [], unplaced: [] })
})

test('what if: what does not hold already is told as that, after what the change breaks', async () => {
  // Brandt does not work on Saturdays: this visit stands on one whatever Varga does.
  const given = fleet({
    machines: ['m1', 'm2'].map((id) => ({ id, number: id, name: 'trailer', yardId: 'y', away: [] })),
    services: [
      service('oil', '2026-08-08', { visitId: '2', machineId: 'm2' }),
      service('seals', '2026-08-20', { visitId: '1' }),
    ],
    visits: [visit('2', '2026-08-08', { leadId: 'brandt', machineId: 'm2' }), visit('1', '2026-08-20')],
  })
  const away = await whatIf(
    given,
    { kind: 'away', personId: 'varga', from: '2026-08-17', to: '2026-08-21' },
    'EUR',
  )
  expect(away.broken).toMatchObject([
    { machine: 'm1 trailer', says: expect.stringContaining('varga'), isSo: false },
    { machine: 'm2 trailer', says: expect.stringContaining('brandt'), isSo: true },
  ])
})

test('what if: the repair puts nothing on an approved visit, though that would be cheapest', async () => {
  const given = (state: 'booked' | 'approved') =>
    fleet({
      services: [
        service('seals', '2026-08-20', { visitId: '1' }),
        service('oil', '2026-08-21', { visitId: '2' }),
      ],
      visits: [visit('1', '2026-08-20'), visit('2', '2026-08-21', { leadId: 'brandt', state })],
    })
  const away = { kind: 'away' as const, personId: 'varga', from: '2026-08-17', to: '2026-08-21' }
  const repaired = async (state: 'booked' | 'approved') =>
    (await whatIf(given(state), away, 'EUR')).proposals.map(({ kind, day, leadId }) => [kind, day, leadId])
  // One strip-down less is worth more than the days.
  expect(await repaired('booked')).toEqual([['merged', '2026-08-21', 'brandt']])
  expect(await repaired('approved')).toEqual([['moved', '2026-08-20', 'brandt']])
})

test('what if: later days of work longer than a day break too', async () => {
  const shape = (minutes: number) => ({ shape: { ...service('', monday).shape, minutes: minutes - 80 } })
  const machines = ['m1', 'm2'].map((id) => ({ id, number: id, name: 'trailer', yardId: 'y', away: [] }))
  const long = fleet({
    machines,
    services: [service('overhaul', '2026-08-20', { visitId: '1', ...shape(660) })],
    visits: [visit('1', '2026-08-20', { minutes: 660 })],
  })
  const given = {
    ...long,
    services: [
      ...long.services,
      service('seals', '2026-08-24', { assemblyId: 'b', machineId: 'm2', visitId: '2', ...shape(320) }),
    ],
    visits: [...long.visits, visit('2', '2026-08-24', { machineId: 'm2', minutes: 320 })],
  }
  // It runs from Thursday into Friday. Away on the Friday, its technician goes on with it on Monday: 180 and 320.
  const friday = { kind: 'away' as const, personId: 'varga', from: '2026-08-21', to: '2026-08-21' }
  expect((await whatIf(long, friday, 'EUR')).broken).toEqual([])
  expect((await whatIf(given, friday, 'EUR')).broken).toMatchObject([
    { says: expect.stringMatching(/varga has not the time for it\. \(24.Aug\)/), isSo: false },
  ])
  const called = { kind: 'called' as const, machineId: 'm1', from: '2026-08-21', to: '2026-08-24' }
  expect((await whatIf(given, called, 'EUR')).broken).toMatchObject([
    { machine: 'm1 trailer', says: expect.stringContaining('The machine is away') },
  ])
})

test('marks too close to be told apart are drawn as one; the crew’s weeks count what is booked', () => {
  const band = { early: '2026-08-08', late: '2026-08-14' }
  const given = fleet({
    services: [
      service('seals', '2026-08-10', { band }),
      service('valves', '2026-08-12', { band: { early: '2026-08-09', late: '2026-08-18' } }),
      service('oil', '2026-08-24'),
      service('filter', '2026-07-20', { isOver: true }),
    ],
    visits: [visit('1', '2026-08-10'), visit('2', '2026-08-11')],
  })
  const [yard] = horizonRows(given, [{ id: 'y', name: 'Yard' }], 4)
  expect(yard!.rows[0]).toMatchObject({
    lenses: [{ from: 5, due: 7, to: 15 }, { due: 21 }],
    over: [{ task: 'filter' }],
    visits: [{ day: 7, visits: [{ id: '1' }, { id: '2' }] }],
  })
  expect(weeklyLoad(given, fleetProblem(given).crew).map(({ free, booked }) => [free, booked])).toEqual([
    [3840, 0],
    [3840, 220],
    [3840, 0],
    [3840, 0],
  ])
})

test('two machines that want the last kit do not both get it: one waits until more can be there', async () => {
  const kit = { parts: [{ part: 'kit', quantity: 1 }] }
  const given = fleet({
    machines: ['m1', 'm2'].map((id) => ({ id, number: id, name: '', yardId: 'y', away: [] })),
    services: [
      service('seals', '2026-08-05', { ...kit, assemblyId: 'a', machineId: 'm1' }),
      service('seals', '2026-08-05', { ...kit, assemblyId: 'b', machineId: 'm2' }),
    ],
    // One on the shelf; what is ordered today is there on the tenth day.
    stock: [{ part: 'kit', byDay: Array.from({ length: 28 }, (_, at) => (at < 10 ? 1 : 1e6)) }],
  })
  const { visits, unplaced } = await planVisits(fleetProblem(given), { seed: 1 })
  expect(unplaced).toEqual([])
  const days = visits.map(({ day }) => day).sort((a, b) => a - b)
  expect(days[0]).toBe(2)
  expect(days[1]).toBeGreaterThanOrEqual(10)
})

test('nothing is proposed onto a visit that may not be changed: the whole act would be refused', async () => {
  const own = (more: object) =>
    fleet({
      services: [service('oil', '2026-08-05', { visitId: '7' }), service('seals', '2026-08-05')],
      visits: [visit('7', '2026-08-05', more)],
    })
  const dayOf = async (given: Fleet) => {
    const problem = problemToPropose(given)
    const { visits } = await planVisits(problem, { seed: 1 })
    return proposalsOf(given, problem, visits, 'EUR').map(({ day, visit: on }) => [day, on?.id ?? null])
  }
  // Held in place it may have more on it; approved, or at the bench, it may not.
  expect(await dayOf(own({ pinned: true }))).toEqual([['2026-08-05', '7']])
  for (const more of [{ state: 'approved' }, { hasSheet: true }]) {
    const [[day, on], ...others] = (await dayOf(own(more))) as [[string, string | null]]
    expect([on, others]).toEqual([null, []])
    expect(day).not.toBe('2026-08-05')
  }
})

test('every special tool of a service is counted, not the scarcest alone', async () => {
  const wants = (specialTools: string[]) => ({ shape: { ...service('', monday).shape, specialTools } })
  const given = fleet({
    machines: ['m1', 'm2', 'm3'].map((id) => ({ id, number: id, name: '', yardId: 'y', away: [] })),
    tools: [
      { id: 't1', name: 'Puller', serves: ['seal puller'], count: 1 },
      { id: 't2', name: 'Hoist', serves: ['hoist'], count: 1 },
    ],
    services: [
      service('seals', '2026-08-05', {
        ...{ assemblyId: 'a', machineId: 'm1' },
        ...wants(['seal puller', 'hoist']),
      }),
      service('head', '2026-08-05', { assemblyId: 'b', machineId: 'm2', ...wants(['hoist']) }),
      service('seals', '2026-08-05', { assemblyId: 'c', machineId: 'm3', ...wants(['seal puller']) }),
    ],
  })
  const { visits } = await planVisits(fleetProblem(given), { seed: 1 })
  const dayOf = (machine: string) => visits.find((each) => each.machine === machine)!.day
  // The puller and the hoist go their own ways on one day; the machine that wants both is alone with them on its own.
  expect(dayOf('m2')).not.toBe(dayOf('m1'))
  expect(dayOf('m3')).not.toBe(dayOf('m1'))
  const all = given.services.map((each, at) => ({ ...each, visitId: String(at) }))
  const together = fleet({
    ...given,
    services: all,
    visits: all.map(({ machineId }, at) =>
      visit(String(at), '2026-08-10', { machineId, leadId: at === 1 ? 'brandt' : 'varga' }),
    ),
  })
  expect(slipsOf(together).map(({ visitId, says }) => [visitId, says])).toEqual([
    [
      '0',
      [
        'Puller is wanted by more visits that day than there are.',
        'Hoist is wanted by more visits that day than there are.',
      ],
    ],
    ['1', ['Hoist is wanted by more visits that day than there are.']],
    ['2', ['Puller is wanted by more visits that day than there are.']],
  ])
})

test('a machine is not called in within its crew’s notice, and nothing is moved into the next days', async () => {
  const soon = { window: { from: '2026-07-20', to: '2026-08-06' } }
  const daysOf = async (given: Fleet) =>
    (await planVisits(fleetProblem(given), { seed: 1 })).visits.map(({ day }) => day)
  const due = service('seals', '2026-08-03', soon)
  expect(await daysOf(fleet({ services: [due] }))).toEqual([0])
  // Told on Monday, two days before: Wednesday.
  expect(await daysOf(fleet({ noticeDays: 2, services: [due] }))).toEqual([2])
  const booked = (day: string) =>
    fleet({ noticeDays: 2, services: [{ ...due, visitId: '1' }], visits: [visit('1', day)] })
  // Booked for three weeks on it is far too late, and moved to the first day on which people are not told yet.
  expect(await daysOf(booked('2026-08-24'))).toEqual([3])
  // It did not happen on Friday: it is told anew.
  expect(await daysOf(booked('2026-07-31'))).toEqual([2])
  expect(await daysOf(booked('2026-08-04'))).toEqual([1])
  const given = booked('2026-08-24')
  const words = (day: string) =>
    tryMove(given, '1', { day, leadId: 'varga' }).breaks.map((each) => violationWords(each, given))
  expect(words('2026-08-04')).toEqual(['Its crew wants to know 2 days before.'])
  expect(words('2026-08-05')).toEqual(['Nothing is moved into the next 3 days.'])
  expect(words('2026-08-06')).toEqual([])
})

test('a machine that only stands is worked on then, and nobody is to be told; held for winter it is not', async () => {
  const laidUp = (isHeld: boolean) =>
    fleet({
      noticeDays: 2,
      machines: [
        {
          ...{ id: 'm1', number: 'T-04', name: 'trailer', yardId: 'y' },
          away: [{ kind: 'layUp' as const, isHeld, from: '2026-07-20', to: '2026-08-11' }],
        },
      ],
      services: [service('oil', monday, { window: { from: '2026-07-20', to: '2026-08-20' } })],
    })
  const dayOf = async (given: Fleet) =>
    (await planVisits(fleetProblem(given), { seed: 1 })).visits.map(({ day }) => day)
  expect(await dayOf(laidUp(false))).toEqual([0])
  // Wednesday the 12th.
  expect(await dayOf(laidUp(true))).toEqual([9])
})

test('a proposal for a machine that must not be started says what its work has to mind', async () => {
  const machines = [{ ...fleet().machines[0]!, held: 'It is made safe for winter.' }]
  const given = fleet({ machines, services: [service('oil', '2026-08-05'), service('seals', '2026-08-05')] })
  const problem = problemToPropose(given)
  const { visits } = await planVisits(problem, { seed: 1 })
  const [proposal] = proposalsOf(given, problem, visits, 'EUR')
  expect(proposal).toMatchObject({ minds: 'It is made safe for winter.', kind: 'new' })
  const [other] = proposalsOf({ ...given, machines: fleet().machines }, problem, visits, 'EUR')
  expect(other!.minds).toBe('')
})

test('a machine is brought back from winter while it is laid up, not while it is at a job', () => {
  const away = (kind: 'layUp' | 'job') => ({ kind, isHeld: true, from: monday, to: '2026-08-20' })
  const back = (kind: 'layUp' | 'job', winter: 'return' | '') =>
    fleet({
      machines: [{ ...fleet().machines[0]!, away: [away(kind)] }],
      services: [service('oil', '2026-08-12', { visitId: '1' })],
      visits: [visit('1', '2026-08-12', { winter })],
    })
  const shut = ['The machine is away, or the company is closed, that day.']
  expect(slipsOf(back('layUp', 'return'))).toEqual([])
  expect(slipsOf(back('job', 'return')).map(({ says }) => says)).toEqual([shut])
  expect(slipsOf(back('layUp', '')).map(({ says }) => says)).toEqual([shut])
})
