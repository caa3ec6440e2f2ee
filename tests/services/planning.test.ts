import { v7 as uuid } from 'uuid'
import { decisionTake, fleetProblem, planVisits, proposalsOf, takeOf, type Proposal } from '@/core/plan'
import {
  approveVisits,
  bookVisit,
  changeVisit,
  dayLists,
  pinVisit,
  listOpenVisits,
  loadCrew,
  loadFleet,
  saveCrew,
  savePlanTerms,
  getPlanTerms,
  openDecision,
  weighDecision,
  takePlan,
} from '@/services/plan'
import { problemIn, removeDatabase } from '../support/database'
import { at, workshop, type Workshop } from '../support/bench'

let shop: Workshop
const now = <T>(work: () => Promise<T>) => at('2026-08-03', work)
beforeEach(async () => {
  shop = await workshop()
})
afterAll(removeDatabase)

async function propose(weeks = 26): Promise<Proposal[]> {
  const fleet = await loadFleet(shop.coordinator, weeks)
  const problem = fleetProblem(fleet)
  const plan = await planVisits(problem, { seed: 1 })
  expect(plan.unplaced).toEqual([])
  return proposalsOf(fleet, problem, plan.visits, 'EUR')
}
const seals = ['hpSeal@1', 'hpSeal@2', 'hpSeal@3']
const book = (day: string, task: string, positions: string[]) =>
  bookVisit(shop.coordinator, {
    id: uuid(),
    items: [{ assemblyId: shop.pumpId, task, positions }],
    ...{ day, startTime: '', leadId: shop.technician.id, note: '' },
  })
const booked = async () =>
  (await listOpenVisits(shop.viewer)).map(({ day, services, minutes }) => ({
    day,
    minutes,
    tasks: [...new Set(services.map(({ task }) => task))].sort(),
  }))

test('what is due is proposed as visits with their reasons, taken in one act, and taken back', () =>
  now(async () => {
    const proposals = await propose()
    expect(proposals.length).toBeGreaterThan(0)
    const shared = proposals.find(({ services }) => services.length > 1)!
    expect(shared).toMatchObject({ kind: 'new', lead: 'M. Osei', visit: null, machine: 'T-04 silo trailer' })
    expect(shared.reasons[0]).toMatch(/^Together .+, one by one .+: saves .+\.$/)
    const { taken, back } = await takePlan(
      shop.coordinator,
      takeOf(uuid(), proposals, await loadFleet(shop.coordinator, 26)),
    )
    expect(taken).toBe(proposals.length)
    const visits = await booked()
    expect(visits.map(({ day }) => day)).toEqual(proposals.map(({ day }) => day))
    // Its minutes are composed, and are what the planner reckoned.
    expect(visits.find(({ day }) => day === shared.day)!.minutes).toBe(shared.minutes)
    // With all of it booked there is nothing left to propose.
    expect(await propose()).toEqual([])
    await takePlan(shop.coordinator, back)
    expect(await booked()).toEqual([])
    expect((await propose()).map(({ day }) => day)).toEqual(proposals.map(({ day }) => day))
  }))

test('two visits behind one manifold become one; whoever changed one of them meanwhile is told, and nothing is taken', () =>
  now(async () => {
    await book('2026-08-20', 'hpSeals', seals)
    await book('2026-08-26', 'plungerCheck', ['plunger@1', 'plunger@2', 'plunger@3'])
    const before = await booked()
    const merged = (await propose(8)).find(({ kind }) => kind === 'merged')!
    expect(merged.reasons.join(' ')).toMatch(/goes into it/)
    const input = takeOf(uuid(), [merged], await loadFleet(shop.coordinator, 8))
    const stale = { ...input, visits: input.visits.map((each) => ({ ...each, version: 7 })) }
    expect(await problemIn(takePlan(shop.coordinator, stale))).toMatchObject({ kind: 'conflict' })
    expect(await booked()).toEqual(before)
    const { back } = await takePlan(shop.coordinator, input)
    expect(await booked()).toMatchObject([
      { day: merged.day, tasks: expect.arrayContaining(['hpSeals', 'plungerCheck']) },
    ])
    await takePlan(shop.coordinator, back)
    expect(await booked()).toEqual(before)
    await expect(takePlan(shop.viewer, input)).rejects.toThrow()
  }))

test('a visit whose day has passed is planned anew, and taking that back leaves it where it was', async () => {
  await now(() => book('2026-08-05', 'hpSeals', seals))
  await at('2026-08-10', async () => {
    const before = await booked()
    const moved = (await propose(8)).filter(({ visit }) => visit !== null)
    expect(moved).toMatchObject([{ visit: { day: '2026-08-05' } }])
    const input = takeOf(uuid(), moved, await loadFleet(shop.coordinator, 8))
    const { back } = await takePlan(shop.coordinator, input)
    expect((await booked())[0]!.day >= '2026-08-10').toBe(true)
    await takePlan(shop.coordinator, back)
    expect(await booked()).toEqual(before)
    // Nobody moves a visit to a day that has passed otherwise.
    const { id, version, leadId } = (await listOpenVisits(shop.viewer))[0]!
    const past = { visitId: id, version, day: '2026-08-04', leadId, items: input.visits[0]!.items }
    const act = { id: uuid(), visits: [past], cancel: [], restore: [] }
    expect(await problemIn(takePlan(shop.coordinator, act))).toMatchObject({
      fields: { day: expect.any(String) },
    })
  })
})

test('an act that would put one service on two visits is refused whole', () =>
  now(async () => {
    await book('2026-08-20', 'hpSeals', seals)
    await book('2026-08-26', 'plungerCheck', ['plunger@1', 'plunger@2', 'plunger@3'])
    const before = await booked()
    const open = await listOpenVisits(shop.viewer)
    const both = [
      { assemblyId: shop.pumpId, task: 'hpSeals', positions: seals },
      { assemblyId: shop.pumpId, task: 'plungerCheck', positions: ['plunger@1', 'plunger@2', 'plunger@3'] },
    ]
    const twice = {
      ...{ id: uuid(), cancel: [], restore: [] },
      visits: open.map(({ id, version, day, leadId }) => ({
        visitId: id,
        version,
        day,
        leadId,
        items: both,
      })),
    }
    expect(await problemIn(takePlan(shop.coordinator, twice))).toMatchObject({ kind: 'conflict' })
    expect(await booked()).toEqual(before)
    // Exchanging them is no such thing.
    const exchanged = {
      ...twice,
      visits: twice.visits.map((each, at) => ({ ...each, items: [both[1 - at]!] })),
    }
    await takePlan(shop.coordinator, exchanged)
    expect((await booked()).map(({ tasks }) => tasks)).toEqual([['plungerCheck'], ['hpSeals']])
  }))

test('who works when and what for decides who is planned', () =>
  now(async () => {
    expect(await loadCrew()).toMatchObject([{ name: 'M. Osei', isKnown: false, minutes: 480, skills: null }])
    const own = { personId: shop.technician.id, yardId: shop.yardId, minutes: 480, skills: [], leave: [] }
    await saveCrew(shop.coordinator, { ...own, days: [3] })
    const [first] = await propose()
    expect(new Date(`${first!.day}T00:00Z`).getUTCDay()).toBe(3)
    await saveCrew(shop.coordinator, { ...own, version: 1, days: [] })
    const fleet = await loadFleet(shop.coordinator, 8)
    const { unplaced } = await planVisits(fleetProblem(fleet), { seed: 1 })
    expect(unplaced[0]).toMatchObject({ rule: 'minutes' })
    const stale = saveCrew(shop.coordinator, { ...own, version: 1, days: [1] })
    expect(await problemIn(stale)).toMatchObject({ kind: 'conflict' })
    const leave = [{ from: '2026-08-10', to: '2026-08-01' }]
    const backwards = saveCrew(shop.coordinator, { ...own, version: 2, days: [1], leave })
    expect(await problemIn(backwards)).toMatchObject({ kind: 'invalid' })
  }))

test('terms of planning are checked, and the share for breakdowns leaves less of a day', () =>
  now(async () => {
    const terms = await getPlanTerms(shop.coordinator)
    const wrong = savePlanTerms(shop.coordinator, { ...terms, freePercent: 95, hourCost: '60.00' })
    expect(await problemIn(wrong)).toMatchObject({ fields: { freePercent: expect.any(String) } })
    const bad = savePlanTerms(shop.coordinator, { ...terms, hourCost: 'much' })
    expect(await problemIn(bad)).toMatchObject({ fields: { hourCost: expect.any(String) } })
    await savePlanTerms(shop.coordinator, { ...terms, freePercent: 50 })
    const { crew } = fleetProblem(await loadFleet(shop.coordinator, 1))
    // Monday 3 August to Sunday: five days of 240.
    expect(crew[0]!.minutesByDay).toEqual([240, 240, 240, 240, 240, 0, 0])
  }))

describe('a visit decided by hand', () => {
  const open = (visitId: string | null = null) =>
    openDecision(shop.coordinator, { machineId: shop.machineId, visitId })
  const weigh = (items: { assemblyId: string; task: string; positions: string[] }[], more = {}) =>
    weighDecision(shop.coordinator, {
      ...{ machineId: shop.machineId, visitId: null, day: null, leadId: null },
      items,
      ...more,
    })
  const sealsItem = () => ({ assemblyId: shop.pumpId, task: 'hpSeals', positions: seals })

  test('is weighed as it would be composed, and its best day is told with who and what is missing', () =>
    now(async () => {
      const { services, visits } = await open()
      expect(visits).toEqual([])
      expect(services.map(({ task }) => task)).toContain('hpSeals')
      const weighed = await weigh([sealsItem()])
      expect(weighed.best).toMatchObject({ leadId: shop.technician.id })
      expect(weighed.place).toMatchObject({ ...weighed.best, breaks: [], cents: 0 })
      const { day, leadId } = weighed.best!
      await takePlan(
        shop.coordinator,
        decisionTake(uuid(), { visit: null, day, leadId, items: [sealsItem()] }, visits),
      )
      expect(await booked()).toMatchObject([{ day, tasks: ['hpSeals'], minutes: weighed.minutes }])
    }))

  test('takes one cylinder from another visit, which keeps the others; taken back, it has them again', () =>
    now(async () => {
      await book('2026-08-20', 'hpSeals', seals)
      const { visits, services } = await open()
      expect(services.filter(({ task }) => task === 'hpSeals')).toMatchObject([{ visitId: visits[0]!.id }])
      const items = [{ ...sealsItem(), positions: ['hpSeal@2'] }]
      const take = decisionTake(
        uuid(),
        { visit: null, day: '2026-08-06', leadId: shop.technician.id, items },
        visits,
      )
      const { back } = await takePlan(shop.coordinator, take)
      const places = async () =>
        (await listOpenVisits(shop.viewer)).map(({ day, services: on }) => [
          day,
          on.flatMap(({ positions }) => positions),
        ])
      expect(await places()).toEqual([
        ['2026-08-06', ['hpSeal@2']],
        ['2026-08-20', ['hpSeal@1', 'hpSeal@3']],
      ])
      await takePlan(shop.coordinator, back)
      expect(await places()).toEqual([['2026-08-20', seals]])
    }))

  test('two people who decide the same services at once: the second is told, and nothing is half taken', () =>
    now(async () => {
      await book('2026-08-20', 'hpSeals', seals)
      const { visits } = await open()
      const decide = (day: string) =>
        takePlan(
          shop.coordinator,
          decisionTake(
            uuid(),
            { visit: null, day, leadId: shop.technician.id, items: [sealsItem()] },
            visits,
          ),
        )
      const outcomes = await Promise.allSettled([decide('2026-08-05'), decide('2026-08-06')])
      expect(outcomes.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
      expect(await booked()).toHaveLength(1)
    }))

  test('what is no machine, no service, or on another machine is refused in words', () =>
    now(async () => {
      expect(
        await problemIn(openDecision(shop.viewer, { machineId: shop.machineId, visitId: null })),
      ).toMatchObject({ kind: 'notAllowed' })
      expect(await problemIn(weigh([], {}))).toMatchObject({
        fields: { items: 'Choose at least one service.' },
      })
      expect(await problemIn(weigh([{ ...sealsItem(), task: 'nothing' }]))).toMatchObject({ kind: 'invalid' })
      expect(await problemIn(weigh([sealsItem()], { machineId: uuid() }))).toMatchObject({ kind: 'notFound' })
    }))
})

describe('approving', () => {
  const line = async () => (await listOpenVisits(shop.viewer))[0]!
  const approve = async (approving = true, version?: number) => {
    const { id, version: read } = await line()
    return approveVisits(shop.coordinator, {
      visits: [{ id, version: version ?? read }],
      approve: approving,
    })
  }

  test('an approved visit says by whom, stays where it is, and is let go again', () =>
    now(async () => {
      await book('2026-08-20', 'hpSeals', seals)
      await approve()
      expect(await line()).toMatchObject({ state: 'approved', approvedBy: 'H. Lindqvist' })
      const fleet = await loadFleet(shop.coordinator, 8)
      expect(fleetProblem(fleet).fixed).toHaveLength(1)
      // It lends nothing to another visit.
      const { visits, pinned } = await openDecision(shop.coordinator, {
        machineId: shop.machineId,
        visitId: null,
      })
      expect(visits).toEqual([])
      expect(pinned).toMatchObject([{ says: 'it is approved' }])
      const [only] = fleet.visits
      const move = {
        ...{ visitId: only!.id, version: only!.version, day: '2026-08-21', leadId: only!.leadId },
        items: [{ assemblyId: shop.pumpId, task: 'hpSeals', positions: seals }],
      }
      expect(
        await problemIn(takePlan(shop.coordinator, { id: uuid(), visits: [move], cancel: [], restore: [] })),
      ).toMatchObject({ kind: 'conflict', message: expect.stringContaining('is approved') })
      await approve(false)
      expect(await line()).toMatchObject({ state: 'booked', approvedBy: null })
    }))

  test('two people at once, an old page, a viewer, a visit that is gone: told in words, and nothing half approved', () =>
    now(async () => {
      await book('2026-08-20', 'hpSeals', seals)
      await book('2026-08-26', 'plungerCheck', ['plunger@1', 'plunger@2', 'plunger@3'])
      const lines = await listOpenVisits(shop.viewer)
      const all = { visits: lines.map(({ id, version }) => ({ id, version })), approve: true }
      expect(await problemIn(approveVisits(shop.viewer, all))).toMatchObject({ kind: 'notAllowed' })
      const stale = { ...all, visits: [all.visits[0]!, { ...all.visits[1]!, version: 9 }] }
      expect(await problemIn(approveVisits(shop.coordinator, stale))).toMatchObject({ kind: 'conflict' })
      const gone = { ...all, visits: [all.visits[0]!, { id: uuid(), version: 1 }] }
      expect(await problemIn(approveVisits(shop.coordinator, gone))).toMatchObject({ kind: 'notFound' })
      expect((await listOpenVisits(shop.viewer)).map(({ state }) => state)).toEqual(['booked', 'booked'])
      const outcomes = await Promise.allSettled([
        approveVisits(shop.coordinator, all),
        approveVisits(shop.coordinator, all),
      ])
      expect(outcomes.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
      expect((await listOpenVisits(shop.viewer)).map(({ state }) => state)).toEqual(['approved', 'approved'])
    }))

  test('a visit is held where it is, and moved to another day by hand it is approved no more', () =>
    now(async () => {
      await book('2026-08-20', 'hpSeals', seals)
      const { id, version } = await line()
      await pinVisit(shop.coordinator, { id, version, pinned: true })
      expect(fleetProblem(await loadFleet(shop.coordinator, 8)).fixed).toHaveLength(1)
      expect(await problemIn(pinVisit(shop.coordinator, { id, version, pinned: false }))).toMatchObject({
        kind: 'conflict',
      })
      await approve()
      const now = await line()
      await changeVisit(shop.coordinator, {
        ...{ id, version: now.version, day: '2026-08-24', startTime: '', leadId: now.leadId, note: '' },
      })
      expect(await line()).toMatchObject({ state: 'booked', approvedBy: null, day: '2026-08-24' })
    }))

  test('the day’s list of each technician holds what their visits want, and what speaks against them', () =>
    now(async () => {
      await book('2026-08-20', 'hpSeals', seals)
      const [own, ...others] = await dayLists(shop.viewer, '2026-08-20')
      expect(others).toEqual([])
      expect(own!.visits).toHaveLength(1)
      expect(own!.list.minutes).toBe((await line()).minutes)
      expect(own!.list.tools.length).toBeGreaterThan(0)
      expect(await dayLists(shop.viewer, '2026-08-21')).toEqual([])
    }))

  test('what is longer than a technician’s day stands on the lists of the days after it', () =>
    now(async () => {
      const own = { personId: shop.technician.id, yardId: shop.yardId, skills: [], leave: [] }
      await saveCrew(shop.coordinator, { ...own, days: [1, 2, 3, 4, 5], minutes: 40 })
      // From a Thursday on: that day, Friday, and over the weekend Monday.
      await book('2026-08-20', 'hpSeals', seals)
      const { minutes } = await line()
      expect(minutes).toBeGreaterThan(80)
      expect(minutes).toBeLessThanOrEqual(120)
      const going = async (day: string) =>
        (await dayLists(shop.viewer, day)).flatMap(({ visits, goesOn }) =>
          goesOn.map((each) => [visits.length, each.minutes, each.last]),
        )
      expect(await going('2026-08-20')).toEqual([])
      expect(await going('2026-08-21')).toEqual([[0, 40, '2026-08-24']])
      expect(await going('2026-08-22')).toEqual([])
      expect(await going('2026-08-24')).toEqual([[0, minutes - 80, '2026-08-24']])
      expect(await going('2026-08-25')).toEqual([])
      // The day has passed and no sheet was opened: it did not begin.
      await at('2026-08-21', async () => expect(await going('2026-08-21')).toEqual([]))
    }))
})
