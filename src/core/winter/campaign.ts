import { addDays, daysBetween, type Day } from '../calendar'
import { invalid } from '../problem'
import { frostCurve, winterDay, type FrostClimate, type OutlookDay } from './climate'

/** A machine that waits to be made safe. */
export type Waiting = {
  id: string
  yard: string
  /** Crew minutes that it takes. */
  minutes: number
  /** What freezing it would cost; only how these compare matters. */
  value: number
  /** It freezes at or below so many °C outside; null never. */
  standsC: number | null
  /** First day that it is there to be worked on. */
  from?: Day | null
}

export type CampaignInput = {
  queue: readonly Waiting[]
  /** Crew minutes of each yard and day; days that are not named have none. */
  crew: Readonly<Record<string, Readonly<Record<Day, number>>>>
  climates: Readonly<Record<string, FrostClimate>>
  outlooks?: Readonly<Record<string, readonly OutlookDay[] | null>>
  /** Chance of frost before a machine is done that is still accepted, 0 to 1. */
  risk: number
  /** First day that frost counts from; the first day of any crew where it is not given. */
  today?: Day
}

export type CampaignPlan = {
  /** Yard by yard in the order of work. `day` is when a machine is done, null where the crew does not get to it. */
  order: { id: string; yard: string; day: Day | null; risk: number; exposed: number }[]
  /** The day on which a yard's last machine is done; null where one is left. */
  finish: Record<string, Day | null>
  /** Sum over all machines of value times the chance that frost comes before it is done. */
  exposed: number
  /** The last day on which a yard can begin so that no machine runs more than the risk; null: it is past. */
  latestStart: Record<string, Day | null>
}

/** Up to so many machines in a yard every order is weighed; beyond that orders are improved step by step. */
const mostExact = 11
/** Orders tried at most for a large yard, so that a day's answer does not depend on how fast a machine is. */
const mostTried = 25_000

/** In a long queue a machine is moved by at most so many places at a time: the first order is near already. */
const farthest = 12

type YardWork = {
  days: Day[]
  /** Crew minutes before a day begins, by day; one more than there are days. */
  before: number[]
  jobs: { waiting: Waiting; begins: number; minutes: number; value: number; chance: readonly number[] }[]
}

/**
 * In which order to make machines safe: the least sum of value times the chance that frost comes first.
 *
 * A yard's crew works through one machine after the other, from one day into the next; a machine is done on the
 * day on which its last minute is worked, and the frost of that morning still counts against it. Yards do not
 * share crews.
 *
 * @returns each machine's day and risk, the finish, what stays exposed, and the latest day to begin; no
 *   cheaper order exists for up to eleven machines in a yard
 * @throws invalid input where minutes or values are negative, a risk is outside 0 to 1, or a yard has no climate
 */
export function campaignFinish(input: CampaignInput): CampaignPlan {
  const { queue, crew, risk } = input
  if (!(risk >= 0 && risk <= 1)) throw invalid({ risk: 'Enter a chance from 0 to 100 %.' })
  for (const { id, minutes, value } of queue) {
    if (!Number.isFinite(minutes) || minutes < 0) throw invalid({ [id]: 'Enter minutes, 0 or more.' })
    if (!Number.isFinite(value) || value < 0) throw invalid({ [id]: 'Enter a value, 0 or more.' })
  }
  const plan: CampaignPlan = { order: [], finish: {}, exposed: 0, latestStart: {} }
  const today = input.today ?? firstDay(input)
  for (const yard of new Set([...queue.map((one) => one.yard), ...Object.keys(crew)])) {
    const work = yardWork(input, yard, today)
    const order = work.jobs.length <= mostExact ? bestOrder(work) : goodOrder(work)
    let worked = 0
    let finish: Day | null = today
    for (const at of order) {
      const { waiting, value } = work.jobs[at]!
      const { ends, day } = workedOff(work, at, worked)
      worked = ends
      const chance = chanceBy(work, at, day)
      const done = day < work.days.length ? work.days[day]! : null
      if (done === null) finish = null
      else if (finish !== null && done > finish) finish = done
      plan.order.push({ id: waiting.id, yard, day: done, risk: chance, exposed: value * chance })
      plan.exposed += value * chance
    }
    plan.finish[yard] = finish
    plan.latestStart[yard] = latestStart(work, risk)
  }
  return plan
}

function firstDay({ crew, queue }: CampaignInput): Day {
  const days = Object.values(crew).flatMap((yard) => Object.keys(yard))
  const known = days.length > 0 ? days : queue.flatMap(({ from }) => from ?? [])
  if (known.length === 0) throw invalid({ crew: 'Say on which days somebody works.' })
  return known.reduce((first, day) => (day < first ? day : first))
}

function yardWork(input: CampaignInput, yard: string, today: Day): YardWork {
  const minutes = input.crew[yard] ?? {}
  const jobsOf = input.queue.filter((one) => one.yard === yard)
  const last = Object.keys(minutes).reduce((latest, day) => (day > latest ? day : latest), addDays(today, -1))
  const length = daysBetween(today, last) + 1
  const days = Array.from({ length }, (_, at) => addDays(today, at))
  const before = [0]
  for (const day of days) {
    const free = minutes[day] ?? 0
    if (!Number.isFinite(free) || free < 0) throw invalid({ [day]: 'Enter crew minutes, 0 or more.' })
    before.push(before.at(-1)! + free)
  }
  // What the crew never gets to stands through all that is left of the winter.
  const seasonEnds = addDays(today, 365 - winterDay(today) - 1)
  const to = seasonEnds > last ? seasonEnds : last
  const curves = new Map<number | null, number[]>()
  const curveOf = (standsC: number | null) => {
    const known = curves.get(standsC)
    if (known) return known
    const climate = input.climates[yard]
    if (!climate && standsC !== null)
      throw invalid({ climates: `Nothing is known of the frost in ${yard}: enter it or import minima.` })
    const outlook = input.outlooks?.[yard] ?? null
    const curve = climate
      ? frostCurve({ climate, standsC, outlook, from: today, to }).map(({ chance }) => chance)
      : [0]
    curves.set(standsC, curve)
    return curve
  }
  return {
    days,
    before,
    jobs: jobsOf.map((waiting) => ({
      waiting,
      begins: waiting.from ? Math.max(0, daysBetween(today, waiting.from)) : 0,
      minutes: waiting.minutes,
      value: waiting.value,
      chance: curveOf(waiting.standsC),
    })),
  }
}

/** Crew minutes that are gone once a machine is done, begun after so many, and the number of its day. */
function workedOff({ days, before, jobs }: YardWork, at: number, worked: number) {
  const { begins, minutes } = jobs[at]!
  if (begins >= days.length) return { ends: Math.max(worked, before.at(-1)!), day: days.length }
  const ends = Math.max(worked, before[begins]!) + minutes
  // The first day by whose end so many minutes are worked; a rounding is no day.
  let low = begins
  let high = days.length
  while (low < high) {
    const middle = (low + high) >> 1
    if (before[middle + 1]! >= ends - 1e-6) high = middle
    else low = middle + 1
  }
  return { ends, day: low }
}

/** The chance that frost has come by a day's number; past the last day of crew, by the end of the winter. */
const chanceBy = ({ days, jobs }: YardWork, at: number, day: number): number => {
  const { chance } = jobs[at]!
  return (day < days.length ? chance[day] : undefined) ?? chance.at(-1) ?? 0
}

function costOf(work: YardWork, order: readonly number[]): number {
  let worked = 0
  let cost = 0
  for (const at of order) {
    const { ends, day } = workedOff(work, at, worked)
    worked = ends
    cost += work.jobs[at]!.value * chanceBy(work, at, day)
  }
  return cost
}

/**
 * The cheapest order, over all sets of machines that can have been done. A set is reached at different times
 * where machines come in late, so each keeps every way that is either sooner or cheaper.
 */
function bestOrder(work: YardWork): number[] {
  type Way = { worked: number; cost: number; last: number; before: Way | null }
  const count = work.jobs.length
  const ways: Way[][] = Array.from({ length: 1 << count }, () => [])
  ways[0] = [{ worked: 0, cost: 0, last: -1, before: null }]
  for (let set = 0; set < 1 << count; set++) {
    for (const way of ways[set]!) {
      for (let at = 0; at < count; at++) {
        if (set & (1 << at)) continue
        const { ends, day } = workedOff(work, at, way.worked)
        const cost = way.cost + work.jobs[at]!.value * chanceBy(work, at, day)
        const next = ways[set | (1 << at)]!
        if (next.some((other) => other.worked <= ends && other.cost <= cost)) continue
        ways[set | (1 << at)] = [
          ...next.filter((other) => other.worked < ends || other.cost < cost),
          { worked: ends, cost, last: at, before: way },
        ]
      }
    }
  }
  let way: Way | null = ways.at(-1)!.reduce((best, one) => (one.cost < best.cost ? one : best))
  const order: number[] = []
  for (; way && way.last >= 0; way = way.before) order.unshift(way.last)
  return order
}

/** A good order of many: by what a minute saves, then moved one by one for as long as that helps. */
function goodOrder(work: YardWork): number[] {
  const { jobs } = work
  const worth = (at: number) => jobs[at]!.value / Math.max(1, jobs[at]!.minutes)
  const risky = (at: number) => jobs[at]!.chance[Math.min(jobs[at]!.chance.length - 1, work.days.length)] ?? 0
  const all = jobs.map((_, at) => at)
  const starts = [
    [...all].sort((a, b) => worth(b) * risky(b) - worth(a) * risky(a)),
    [...all].sort((a, b) => jobs[a]!.begins - jobs[b]!.begins || worth(b) * risky(b) - worth(a) * risky(a)),
  ].map((order) => ({ order, cost: costOf(work, order) }))
  const { order } = starts.reduce((a, b) => (b.cost < a.cost ? b : a))
  const reach = order.length > 40 ? farthest : order.length
  let tried = 0
  for (let better = true; better && tried < mostTried;) {
    better = false
    for (let from = 0; from < order.length && tried < mostTried; from++) {
      // Worked and paid before each place, so that a move is weighed by what lies between its two ends.
      let before = sums(work, order)
      const last = Math.min(order.length - 1, from + reach)
      for (let to = Math.max(0, from - reach); to <= last && tried < mostTried; to++) {
        if (to === from) continue
        tried++
        const moved = [...order]
        moved.splice(to, 0, ...moved.splice(from, 1))
        const first = Math.min(from, to)
        let { worked, cost } = before[first]!
        let at = first
        for (; at < moved.length && (at <= Math.max(from, to) || worked !== before[at]!.worked); at++) {
          const { ends, day } = workedOff(work, moved[at]!, worked)
          worked = ends
          cost += work.jobs[moved[at]!]!.value * chanceBy(work, moved[at]!, day)
        }
        const saved = before[at]!.cost - cost
        if (saved > 1e-9) {
          order.splice(0, order.length, ...moved)
          before = sums(work, order)
          better = true
          break
        }
      }
    }
  }
  return order
}

function sums(work: YardWork, order: readonly number[]): { worked: number; cost: number }[] {
  const list = [{ worked: 0, cost: 0 }]
  for (const at of order) {
    const { worked, cost } = list.at(-1)!
    const { ends, day } = workedOff(work, at, worked)
    list.push({ worked: ends, cost: cost + work.jobs[at]!.value * chanceBy(work, at, day) })
  }
  return list
}

/**
 * The last day to begin so that every machine can still be done before its chance of frost passes the risk:
 * between any two days the crew must have the minutes of all that is there no sooner and due no later.
 */
function latestStart(work: YardWork, risk: number): Day | null {
  const { days, before, jobs } = work
  // The chance that frost has come only grows: the last day that is still within the risk.
  const dues = jobs.map(({ chance }) => {
    const over = chance.findIndex((one) => one > risk + 1e-12)
    return over === -1 ? Infinity : over - 1
  })
  const held = jobs.flatMap(({ begins, minutes }, at) =>
    dues[at]! < Infinity ? [{ begins, minutes, due: dues[at]! }] : [],
  )
  const dueDays = [...new Set(held.map(({ due }) => due))]
  const fits = (start: number) =>
    [...new Set(held.map(({ begins }) => Math.max(start, begins)))].every((opens) =>
      dueDays.every((due) => {
        const inside = held.filter((job) => Math.max(start, job.begins) >= opens && job.due <= due)
        const needed = inside.reduce((sum, { minutes }) => sum + minutes, 0)
        const ends = Math.min(due, days.length - 1)
        const there = ends < opens ? 0 : before[ends + 1]! - before[opens]!
        return inside.length === 0 || (due >= opens && needed <= there + 1e-6)
      }),
    )
  for (let start = days.length - 1; start >= 0; start--) if (fits(start)) return days[start]!
  return null
}
