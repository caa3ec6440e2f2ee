import fc from 'fast-check'
import { addDays } from '@/core/calendar'
import {
  campaignFinish,
  enteredClimate,
  frostProbability,
  type CampaignInput,
  type Waiting,
} from '@/core/winter'

const climate = enteredClimate(
  [{ standsC: 0, first: { day: '2026-10-29', spreadDays: 12 }, last: { day: '2026-04-10', spreadDays: 10 } }],
  -18,
)
const today = '2026-10-14'
const crewOf = (minutes: number[]) =>
  Object.fromEntries(minutes.map((free, at) => [addDays(today, at), free]))
const chance = (day: string, standsC: number | null = 0) =>
  frostProbability({ climate, standsC, from: today, to: day })

describe('the order of a campaign', () => {
  test('one machine a day: the dearest first, each with the chance of its day', () => {
    const plan = campaignFinish({
      queue: [
        { id: 'cheap', yard: 'u', minutes: 240, value: 1000, standsC: 0 },
        { id: 'dear', yard: 'u', minutes: 240, value: 9000, standsC: 0 },
        { id: 'heated', yard: 'u', minutes: 240, value: 99_000, standsC: null },
      ],
      crew: { u: crewOf([240, 240, 240, 240]) },
      climates: { u: climate },
      risk: 0.2,
    })
    expect(plan.order.map(({ id, day }) => [id, day])).toEqual([
      ['dear', '2026-10-14'],
      ['cheap', '2026-10-15'],
      ['heated', '2026-10-16'],
    ])
    expect(plan.order[1]!.risk).toBeCloseTo(chance('2026-10-15'), 12)
    expect(plan.order[2]!.risk).toBe(0)
    expect(plan.finish.u).toBe('2026-10-16')
    expect(plan.exposed).toBeCloseTo(9000 * chance('2026-10-14') + 1000 * chance('2026-10-15'), 9)
  })

  test('work runs over into the next day, and days without crew are passed over', () => {
    const plan = campaignFinish({
      queue: [{ id: 'a', yard: 'u', minutes: 300, value: 1, standsC: 0 }],
      crew: { u: crewOf([240, 0, 0, 60, 240]) },
      climates: { u: climate },
      risk: 0.05,
    })
    expect(plan.finish.u).toBe('2026-10-17')
  })

  test('what the crew never gets to stands through the winter', () => {
    const plan = campaignFinish({
      queue: [{ id: 'a', yard: 'u', minutes: 500, value: 100, standsC: 0 }],
      crew: { u: crewOf([240, 240]) },
      climates: { u: climate },
      risk: 0.05,
    })
    expect(plan.order[0]).toMatchObject({ day: null })
    expect(plan.order[0]!.risk).toBeGreaterThan(0.99)
    expect(plan.finish.u).toBeNull()
    expect(plan.latestStart.u).toBeNull()
  })

  test('the latest day to begin: two days of work before the chance passes the risk', () => {
    const last = Array.from({ length: 30 }, (_, at) => addDays(today, at)).findLast(
      (day) => chance(day) <= 0.2,
    )!
    const input = {
      queue: [
        { id: 'a', yard: 'u', minutes: 240, value: 1, standsC: 0 },
        { id: 'b', yard: 'u', minutes: 240, value: 1, standsC: 0 },
      ],
      crew: { u: crewOf(Array<number>(30).fill(240)) },
      climates: { u: climate },
      risk: 0.2,
    }
    expect(campaignFinish(input).latestStart.u).toBe(addDays(last, -1))
    // One that comes in only that day needs its own day: still two days, but no less than its own.
    const late = { ...input.queue[0]!, from: last }
    expect(campaignFinish({ ...input, queue: [late, input.queue[1]!] }).latestStart.u).toBe(addDays(last, -1))
    expect(
      campaignFinish({ ...input, queue: [{ ...late, from: addDays(last, 1) }] }).latestStart.u,
    ).toBeNull()
  })

  test('a risk, a value or minutes that cannot be are refused, and so is a yard without a climate', () => {
    const input = (waiting: Partial<Waiting>, risk = 0.05): CampaignInput => ({
      queue: [{ id: 'a', yard: 'u', minutes: 60, value: 1, standsC: 0, ...waiting }],
      crew: { u: crewOf([60]) },
      climates: { u: climate },
      risk,
    })
    expect(() => campaignFinish(input({ minutes: -1 }))).toThrow()
    expect(() => campaignFinish(input({ value: Number.NaN }))).toThrow()
    expect(() => campaignFinish(input({}, 5))).toThrow()
    expect(() => campaignFinish(input({ yard: 'v' }))).toThrow()
    expect(() => campaignFinish({ ...input({}), crew: {} })).toThrow()
  })

  const waiting = (yard: string) =>
    fc
      .array(
        fc.record({
          minutes: fc.integer({ min: 0, max: 500 }),
          value: fc.integer({ min: 0, max: 10_000 }),
          standsC: fc.constantFrom(0, 0, -4, null),
          from: fc.option(
            fc.integer({ min: 0, max: 12 }).map((at) => addDays(today, at)),
            { nil: null },
          ),
        }),
        { minLength: 1, maxLength: 6 },
      )
      .map((list) => list.map((one, at): Waiting => ({ id: `${yard}${at}`, yard, ...one })))

  /** Every order, worked through minute by minute as a person would on paper. */
  function cheapest(queue: Waiting[], crew: number[]): number {
    const seasonEnd = '2027-06-30'
    const orders = (rest: Waiting[]): Waiting[][] =>
      rest.length === 0
        ? [[]]
        : rest.flatMap((one) => orders(rest.filter((other) => other !== one)).map((tail) => [one, ...tail]))
    const known = new Map<string, number>()
    const risk = (day: string, standsC: number | null) => {
      const key = `${day} ${standsC}`
      if (!known.has(key)) known.set(key, chance(day, standsC))
      return known.get(key)!
    }
    return Math.min(
      ...orders(queue).map((order) => {
        let at = 0
        let left = crew[0]!
        let cost = 0
        for (const one of order) {
          const from = one.from
            ? Math.max(0, Math.round((Date.parse(one.from) - Date.parse(today)) / 864e5))
            : 0
          if (from > at) {
            at = from
            left = crew[at] ?? 0
          }
          let need = one.minutes
          while (need > left && at < crew.length) {
            need -= left
            at++
            left = crew[at] ?? 0
          }
          if (at < crew.length) left -= need
          cost += one.value * risk(at < crew.length ? addDays(today, at) : seasonEnd, one.standsC)
        }
        return cost
      }),
    )
  }

  test('law: no order is cheaper', () => {
    fc.assert(
      fc.property(
        waiting('u'),
        fc.array(fc.constantFrom(0, 120, 240, 480), { minLength: 14, maxLength: 14 }),
        (queue, crew) => {
          const plan = campaignFinish({
            queue,
            crew: { u: crewOf(crew) },
            climates: { u: climate },
            risk: 0.05,
          })
          expect(plan.exposed).toBeCloseTo(cheapest(queue, crew), 4)
          expect(plan.order).toHaveLength(queue.length)
        },
      ),
      { numRuns: 60 },
    )
  })

  test('law: more crew never leaves more exposed, and yards do not share theirs', () => {
    fc.assert(
      fc.property(waiting('u'), waiting('v'), (one, other) => {
        const at = (minutes: number) =>
          campaignFinish({
            queue: [...one, ...other],
            crew: { u: crewOf(Array<number>(20).fill(minutes)), v: crewOf(Array<number>(20).fill(240)) },
            climates: { u: climate, v: climate },
            risk: 0.05,
          })
        const few = at(240)
        const many = at(480)
        expect(many.exposed).toBeLessThanOrEqual(few.exposed + 1e-6)
        const of = (plan: typeof few) =>
          plan.order.filter(({ yard }) => yard === 'v').map(({ id, day }) => [id, day])
        expect(of(many)).toEqual(of(few))
      }),
      { numRuns: 40 },
    )
  })

  test('two hundred machines in one yard come near the best of a simple rule, or better', () => {
    const queue = Array.from({ length: 200 }, (_, at): Waiting => ({
      id: String(at),
      yard: 'u',
      minutes: 40 + ((at * 37) % 160),
      value: 100 + ((at * 7919) % 9000),
      standsC: at % 3 === 0 ? -4 : 0,
    }))
    const crew = { u: crewOf(Array<number>(90).fill(480)) }
    const plan = campaignFinish({ queue, crew, climates: { u: climate }, risk: 0.05 })
    const simple = [...queue].sort((a, b) => b.value / b.minutes - a.value / a.minutes)
    let worked = 0
    const rule = simple.reduce((sum, { minutes, value, standsC }) => {
      worked += minutes
      return sum + value * chance(addDays(today, Math.ceil(worked / 480) - 1), standsC)
    }, 0)
    expect(plan.exposed).toBeLessThanOrEqual(rule)
    expect(new Set(plan.order.map(({ id }) => id)).size).toBe(200)
  })
})
