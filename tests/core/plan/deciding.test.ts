import fc from 'fast-check'
import { decisionTake, reasonWords, slipsOf, weighVisit, type Lending } from '@/core/plan'
import { fleet, monday, service, visit } from '../../support/planFleet'

const item = (task: string, ...positions: string[]) => ({ assemblyId: 'P-04', task, positions })

describe('a decision as one act', () => {
  const other: Lending = {
    ...{ id: 'v1', version: 3, day: '2026-08-20', leadId: 'brandt' },
    items: [item('seals', 'a', 'b'), item('valves', 'x')],
  }
  const own = { day: '2026-08-10', leadId: 'varga' }

  test('takes a cylinder from another visit, which keeps the rest', () => {
    expect(decisionTake('act', { visit: null, ...own, items: [item('seals', 'b')] }, [other])).toEqual({
      id: 'act',
      visits: [
        { visitId: null, version: null, ...own, items: [item('seals', 'b')] },
        {
          ...{ visitId: 'v1', version: 3, day: '2026-08-20', leadId: 'brandt' },
          items: [item('seals', 'a'), item('valves', 'x')],
        },
      ],
      cancel: [],
      restore: [],
    })
  })

  test('joins two visits: the one left with nothing is cancelled', () => {
    const visit = { id: 'v2', version: 1 }
    const items = [item('oil', 'o'), ...other.items]
    const { visits, cancel } = decisionTake('act', { visit, ...own, items }, [other])
    expect(visits).toHaveLength(1)
    expect(cancel).toEqual([{ id: 'v1', version: 3 }])
  })

  test('lets go of what is taken off the visit itself', () => {
    const visit = { id: 'v1', version: 3 }
    const { visits, cancel } = decisionTake('act', { visit, ...own, items: [item('valves', 'x')] }, [other])
    expect(visits).toMatchObject([{ visitId: 'v1', items: [item('valves', 'x')] }])
    expect(cancel).toEqual([])
  })

  test('law: nothing that another visit had is lost, and no cylinder stands on two', () => {
    const positions = fc.uniqueArray(fc.constantFrom('1', '2', '3'), { minLength: 1 })
    const items = fc
      .uniqueArray(fc.constantFrom('seals', 'valves', 'oil'), { minLength: 1 })
      .chain((tasks) => fc.tuple(...tasks.map((task) => positions.map((own) => item(task, ...own)))))
    // The two others share nothing, as visits do.
    const cut = (all: ReturnType<typeof item>[], from: ReturnType<typeof item>[]) =>
      all.flatMap(({ task, positions: own, ...rest }) => {
        const left = own.filter((at) => !from.some((had) => had.task === task && had.positions.includes(at)))
        return left.length > 0 ? [{ ...rest, task, positions: left }] : []
      })
    fc.assert(
      fc.property(items, items, items, (chosen, first, second) => {
        const rest = cut(second, first)
        const others: Lending[] = [
          { ...other, id: 'a', items: first },
          ...(rest.length > 0 ? [{ ...other, id: 'b', items: rest }] : []),
        ]
        const { visits, cancel } = decisionTake('act', { visit: null, ...own, items: chosen }, others)
        const untouched = others.filter(
          ({ id }) => !visits.some(({ visitId }) => visitId === id) && !cancel.some((each) => each.id === id),
        )
        const places = (all: { items: ReturnType<typeof item>[] }[]) =>
          all.flatMap((each) => each.items.flatMap((one) => one.positions.map((at) => `${one.task} ${at}`)))
        const after = places([...visits, ...untouched])
        expect(new Set(after).size).toBe(after.length)
        expect(new Set(after)).toEqual(new Set([...places(others), ...places([{ items: chosen }])]))
      }),
    )
  })
})

describe('weighing a visit', () => {
  const seals = service('seals', '2026-08-05')
  const ask = (more = {}) => ({
    ...{ machineId: 'm1', services: [seals], visitId: null, day: null, leadId: null, helperId: null },
    ...more,
  })

  test('finds the day on which the machine is back, for whoever may do it', async () => {
    const skilled = service('seals', '2026-08-05', {
      shape: { ...seals.shape, qualifications: ['highPressure'] },
    })
    const [varga, brandt] = fleet().crew
    const busy = fleet({
      machines: [
        { ...fleet().machines[0]!, away: [{ kind: 'job' as const, from: monday, to: '2026-08-07' }] },
      ],
      crew: [
        { ...varga!, skills: ['highPressure'], leave: [{ from: '2026-08-10', to: '2026-08-10' }] },
        { ...brandt!, skills: [] },
      ],
    })
    // Away until Friday, then a weekend, then the only one who may is on leave for a day.
    const { best, place, minutes } = await weighVisit(busy, ask({ services: [skilled] }))
    expect(best).toEqual({ day: '2026-08-11', leadId: 'varga', helperId: null })
    expect(place).toMatchObject({ ...best, breaks: [], cents: 0 })
    expect(minutes).toBe(110)
    const asked = await weighVisit(busy, ask({ services: [skilled], day: '2026-08-06', leadId: 'brandt' }))
    expect(asked.place!.breaks).toEqual([
      'The machine is away, or the company is closed, that day.',
      'brandt is not qualified for it.',
    ])
    expect(asked.best).toEqual(best)
  })

  test('says what holds the others up: without it they could be done sooner', async () => {
    const plungers = service('plungers', '2026-08-05', { partsFrom: '2026-08-24' })
    const { best, waits } = await weighVisit(fleet(), ask({ services: [seals, plungers] }))
    expect(best!.day).toBe('2026-08-24')
    expect(waits).toEqual({
      keys: ['P-04 plungers 1'],
      names: ['plungers'],
      until: '2026-08-24',
      sooner: '2026-08-05',
    })
  })

  test('keeps off the day of another visit of the machine, and says so where that day is asked for', async () => {
    const booked = fleet({
      services: [service('oil', '2026-08-05', { visitId: '7' })],
      visits: [visit('7', '2026-08-05')],
    })
    const { best } = await weighVisit(booked, ask())
    expect(best!.day).not.toBe('2026-08-05')
    const asked = await weighVisit(booked, ask({ day: '2026-08-05', leadId: 'varga' }))
    expect(asked.place!.breaks).toEqual([
      'The machine has another visit on that day: take both together instead.',
    ])
  })

  test('a booked visit is not moved into the next days, of which nobody was told', async () => {
    const given = fleet({
      services: [service('seals', monday, { visitId: '7' })],
      visits: [visit('7', '2026-08-14')],
    })
    const own = { ...service('seals', monday), visitId: '7' }
    expect((await weighVisit(given, ask({ services: [own], visitId: '7' }))).best!.day).toBe('2026-08-06')
    // One whose day has passed did not happen: it is done as soon as can be.
    const missed = { ...given, visits: [visit('7', '2026-07-31')] }
    expect((await weighVisit(missed, ask({ services: [own], visitId: '7' }))).best!.day).toBe(monday)
  })

  test('a crew has its notice of a new visit; one asked for sooner says so', async () => {
    const given = fleet({ noticeDays: 2 })
    const due = service('seals', monday)
    const { best } = await weighVisit(given, ask({ services: [due] }))
    expect(best!.day).toBe('2026-08-05')
    const sooner = await weighVisit(given, ask({ services: [due], day: '2026-08-04', leadId: 'varga' }))
    expect(sooner.place!.breaks).toEqual(['Its crew wants to know 2 days before.'])
    // They were told of tomorrow already: it may be today as well.
    const own = { ...due, visitId: '7' }
    const told = { ...given, services: [own], visits: [visit('7', '2026-08-04')] }
    const weighed = await weighVisit(
      told,
      ask({ services: [own], visitId: '7', day: monday, leadId: 'varga' }),
    )
    expect(weighed.place!.breaks).toEqual([])
  })

  test('where nobody may do it there is no day, and it says why', async () => {
    const skilled = service('seals', '2026-08-05', {
      shape: { ...seals.shape, qualifications: ['highPressure'] },
    })
    const nobody = fleet({ crew: fleet().crew.map((member) => ({ ...member, skills: [] })) })
    const { best, why, place } = await weighVisit(nobody, ask({ services: [skilled] }))
    expect([best, place]).toEqual([null, null])
    expect(why).toMatch(/highPressure|qualified|skill/)
  })
})

describe('visits that no longer fit', () => {
  const booked = (day: string, window: { from: string; to: string }, more = {}) =>
    fleet({
      services: [service('seals', '2026-08-20', { visitId: '7', window })],
      visits: [visit('7', day)],
      ...more,
    })

  test('a window that closes before the visit is named, except in the days on which nothing is moved', () => {
    const window = { from: '2026-08-10', to: '2026-08-18' }
    expect(slipsOf(booked('2026-08-18', window))).toEqual([])
    expect(slipsOf(booked('2026-08-19', window))).toMatchObject([
      { visitId: '7', says: ['seals: is best by 18\u00a0Aug.'], by: '2026-08-18' },
    ])
    // Past already, and the visit is the day after tomorrow: there is nothing to gain.
    expect(slipsOf(booked('2026-08-05', { from: '2026-07-01', to: '2026-07-20' }))).toEqual([])
  })

  test('a technician on leave, a machine at a job: what broke is said', () => {
    const window = { from: '2026-08-01', to: '2026-09-30' }
    const [varga, brandt] = fleet().crew
    const leave = [{ from: '2026-08-12', to: '2026-08-12' }]
    expect(
      slipsOf(booked('2026-08-12', window, { crew: [{ ...varga!, leave }, brandt!] })).map(
        ({ says }) => says,
      ),
    ).toEqual([['varga has not the time for it.']])
    const away = [{ kind: 'job' as const, from: '2026-08-12', to: '2026-08-13' }]
    expect(
      slipsOf(booked('2026-08-12', window, { machines: [{ ...fleet().machines[0]!, away }] })).map(
        ({ says }) => says,
      ),
    ).toEqual([['The machine is away, or the company is closed, that day.']])
  })
})

test('why no day holds it names days, machines, tools and parts as people do', () => {
  const given = fleet({
    machines: [{ id: '0b6f-m', number: 'T-04', name: 'trailer', yardId: 'y', away: [] }],
    tools: [{ id: '0b6f-t', name: 'Seal puller', serves: [], count: 0 }],
    stock: [{ part: '0b6f-p', name: 'OR-31 O-ring', byDay: [] }],
    terms: { ...fleet().terms, benches: [{ yardId: '0b6f-y', places: 0 }] },
  })
  const words = (reason: string) => reasonWords(reason, given).replaceAll('\u00a0', ' ')
  expect(words('0b6f-m cannot be worked on from day 0 to 13.')).toBe(
    'T-04 cannot be worked on from 3 Aug to 16 Aug.',
  )
  expect(words('There is no 0b6f-t.')).toBe('There is no Seal puller.')
  expect(words('3 of 0b6f-p are wanted, 2 are there on day 2.')).toBe(
    '3 of OR-31 O-ring are wanted, 2 are there on 5 Aug.',
  )
  expect(words('0b6f-y has no bench.')).toBe('Its yard has no bench.')
  expect(words('Nobody has electrical and lifting.')).toBe(
    'Nobody is qualified for electrical isolation and qualified for lifting and slinging.',
  )
})
