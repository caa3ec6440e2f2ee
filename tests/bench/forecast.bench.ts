import { cumulativeHours, forecastUsage, weeklyUse, type LayUp } from '@/core/hours'
import { randomFrom } from '@/demo/random'

/**
 * Back-test of the forecast: fleets of several characters are made day by day, sampled as irregular
 * readings, cut, and asked when 50, 100 and 250 h more will be reached. The oracle knows the process
 * and simulates it on from the cut. Days.
 */
type Character = (random: () => number) => (day: number) => number

const spread = (random: () => number) => 0.55 + random() * 0.9
const characters: Record<string, Character> = {
  steady: (random) => () => 3.5 * spread(random),
  weekdays: (random) => (day) => (day % 7 < 5 && random() > 0.07 ? 4.6 * spread(random) : 0),
  seasonal: (random) => (day) =>
    day % 7 < 5 ? 4.6 * (1 + 0.5 * Math.sin((2 * Math.PI * day) / 365)) * spread(random) : 0,
  bursts: (random) => {
    let left = 0
    let busy = false
    return () => {
      left -= 1
      if (left <= 0) {
        busy = !busy
        left = Math.round((busy ? 9 : 16) * (0.5 + random()))
      }
      return busy ? 8.5 * spread(random) : 0
    }
  },
  intermittent: (random) => () => (random() < 0.28 ? 3.2 * spread(random) : 0),
  stepChange: (random) => (day) => (day % 7 < 5 ? (day % 400 < 230 ? 3 : 5.5) * spread(random) : 0),
  laidUp: (random) => (day) => (day % 365 < 110 ? 0 : day % 7 < 5 ? 4.8 * spread(random) : 0),
}

const targets = [50, 100, 250]
const fleets = 100
const start = Date.UTC(2024, 0, 1)
const instant = (day: number) => new Date(start + day * 86_400_000).toISOString()
const dayOn = (day: number) => instant(day).slice(0, 10)
/** What a coordinator knows and enters: the yearly lay-up of those machines. */
const layUps: Record<string, LayUp[]> = {
  laidUp: [0, 1, 2, 3, 4, 5].map((year) => ({ from: dayOn(365 * year), to: dayOn(365 * year + 109) })),
}

type Score = { errors: number[]; inside: number; known: number; pinball: number }
const fresh = (): Score => ({ errors: [], inside: 0, known: 0, pinball: 0 })
const median = (list: number[]) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? NaN
const mean = (list: number[]) => list.reduce((sum, each) => sum + each, 0) / list.length

function reachIn(daily: number[], from: number, hours: number): number | null {
  let sum = 0
  for (let day = from + 1; day < daily.length; day += 1) {
    sum += daily[day]!
    if (sum >= hours) return day - from - (sum - hours) / daily[day]!
  }
  return null
}

function score(into: Score, truth: number, answers: { p10: number; p50: number; p90: number }): void {
  into.errors.push(answers.p50 - truth)
  into.known += 1
  if (truth >= answers.p10 - 0.5 && truth <= answers.p90 + 0.5) into.inside += 1
  for (const [p, answer] of [
    [0.1, answers.p10],
    [0.5, answers.p50],
    [0.9, answers.p90],
  ] as const)
    into.pinball += Math.max(p * (truth - answer), (p - 1) * (truth - answer)) / 3
}

const all: Record<string, Score> = {}
console.log('character     method     median error   bias   pinball   inside 10-90 %')
for (const [name, character] of Object.entries(characters)) {
  const scores: Record<string, Score> = {
    ours: fresh(),
    oracle: fresh(),
    'last 30 d': fresh(),
    'all of it': fresh(),
  }
  for (let fleet = 0; fleet < fleets; fleet += 1) {
    const random = randomFrom(fleet * 7919 + name.length * 104_729)
    const hoursOn = character(random)
    const cut = 180 + Math.floor(random() * 720)
    const daily = Array.from({ length: cut + 1 }, (_, day) => hoursOn(day))
    const readings: { id: string; at: string; value: number }[] = []
    let total = 0
    let next = 0
    for (let day = 0; day <= cut; day += 1) {
      total += daily[day]!
      if (day === next || day === cut) readings.push({ id: String(day), at: instant(day + 1), value: total })
      if (day === next) next += 1 + Math.floor(random() * 14)
    }
    const line = cumulativeHours(readings, [])
    const forecast = forecastUsage(line, dayOn(cut + 1), { layUps: layUps[name] ?? [], bookings: [] })
    // The truth, and many futures of the same process for the oracle: it goes on from its own state.
    const future = [...daily, ...Array.from({ length: 900 }, (_, day) => hoursOn(cut + 1 + day))]
    for (const target of targets) {
      const truth = reachIn(future, cut, target)
      if (truth === null || !forecast) continue
      const at = (p: number) => forecast.daysReaching(target, p) ?? 3650
      score(scores.ours!, truth, { p10: at(0.1), p50: at(0.5), p90: at(0.9) })
      const futures = Array.from({ length: 60 }, (_, index) => {
        const other = character(randomFrom(fleet * 31 + index * 17 + 5))
        for (let day = 0; day <= cut; day += 1) other(day)
        const days = Array.from({ length: 900 }, (_u, day) => other(cut + 1 + day))
        return reachIn([0, ...days], 0, target) ?? 900
      }).sort((a, b) => a - b)
      score(scores.oracle!, truth, { p10: futures[6]!, p50: futures[30]!, p90: futures[54]! })
      const recent = weeklyUse(line, 30 / 7)
      const whole = total / cut
      const naive = (perDay: number | null) => {
        const days = perDay && perDay > 0 ? target / perDay : 3650
        return { p10: days, p50: days, p90: days }
      }
      score(scores['last 30 d']!, truth, naive(recent === null ? null : recent / 7))
      score(scores['all of it']!, truth, naive(whole))
    }
  }
  for (const [method, each] of Object.entries(scores)) {
    const total = (all[method] ??= fresh())
    total.errors.push(...each.errors)
    total.inside += each.inside
    total.known += each.known
    total.pinball += each.pinball
    tell(name, method, each)
  }
}
for (const [method, each] of Object.entries(all)) tell('all', method, each)

function tell(name: string, method: string, each: Score): void {
  const cell = (value: number, digits: number) => value.toFixed(digits).padStart(8)
  console.log(
    `${name.padEnd(13)} ${method.padEnd(10)} ${cell(median(each.errors.map(Math.abs)), 1)}   ${cell(mean(each.errors), 1)} ${cell(each.pinball / each.known, 2)}   ${cell((100 * each.inside) / each.known, 0)} %`,
  )
}
