import 'server-only'
import { addDays, dayNumber, type Day } from '@/core/calendar'
import {
  atRisk,
  campaignFinish,
  colderBy,
  methodsFor,
  planMachine,
  type CampaignPlan,
  type Method,
  type OutlookDay,
  type WinterRow,
  type Zone,
  type ZoneState,
} from '@/core/winter'
import { people } from '@/db/access'
import { visits } from '@/db/plan'
import type { SpellRow } from '@/db/hours'
import { ourCompany, present } from '../house'
import { spellsByMachine } from '../hours'
import type { YardFrost } from './climates'
import { loadMachines, usualDesignLowC, type MachineWinter, type WinterBasis } from './plans'
import { loadStandings, type MachineStanding } from './standings'
import { crewOf, ratesOf, type Terms } from './terms'

/** How far the order of work looks ahead, in days. */
export const ahead = 75

/** How long what the morning asks of winter stays as it was: alarms count the hours that are left. */
export const watchKeeps = 3_600_000

export type Basis = WinterBasis & {
  standings: Map<string, MachineStanding>
  jobs: Map<string, SpellRow[]>
  booked: Map<string, NonNullable<WinterRow['booked']> & { day: Day }>
  today: Day
  timeZone: string
}

export async function loadBasis(): Promise<Basis> {
  const [basis, company, jobs, visitRows, persons] = await Promise.all([
    loadMachines(),
    ourCompany(),
    spellsByMachine(),
    visits.all({ winter: 'lay', state: ['booked', 'approved', 'inWork', 'waiting'] }),
    people.every(),
  ])
  return {
    ...basis,
    standings: await loadStandings(basis.machines),
    jobs,
    booked: new Map(
      visitRows.flatMap(({ id, number, machineId, day, leadId }) =>
        machineId === null
          ? []
          : [
              [
                machineId,
                { visitId: id, number, day, lead: persons.find((each) => each.id === leadId)?.name ?? '' },
              ],
            ],
      ),
    ),
    today: present(company).today,
    timeZone: company.timeZone,
  }
}

/** The last day of the job that a machine is out on; null where it is in. */
export function jobEnd(basis: Basis, machineId: string): Day | null {
  const { jobs, today } = basis
  const out = (jobs.get(machineId) ?? []).find(
    ({ kind, fromDay, toDay }) => kind === 'job' && fromDay <= today && (toDay === null || toDay >= today),
  )
  return out ? (out.toDay ?? addDays(today, ahead)) : null
}

/** Crew minutes by day, of a yard. */
function crewDays(terms: Terms, yardId: string, today: Day, more = 0): Record<Day, number> {
  const { people: count, minutes, days } = crewOf(terms, yardId)
  return Object.fromEntries(
    Array.from({ length: ahead }, (_, at) => {
      const day = addDays(today, at)
      const weekday = ((dayNumber(day) + 3) % 7) + 1
      return [day, days.includes(weekday) ? (count + more) * minutes : 0]
    }),
  )
}

/** What has still to be made safe: it freezes where it stands, is laid up, and some of it holds water. */
export const isWaiting = (each: MachineWinter, state: ZoneState) =>
  (each.row?.evening ?? '') === '' &&
  state !== 'returned' &&
  each.circuit.length > 0 &&
  atRisk.includes(state) &&
  state !== 'exposed'

/** What may differ from how it is: one more person, another method, colder nights, a machine that stays out. */
export type Change = {
  more?: Record<string, number>
  methods?: Partial<Record<Zone, Method>>
  colder?: number
  away?: { machineId: string; until: Day }
}

function planFor(basis: Basis, each: MachineWinter, change: Change) {
  if (!change.methods) return each.plan
  const methods = { ...each.methods }
  for (const [zone, method] of Object.entries(change.methods) as [Zone, Method][])
    if (methods[zone] && methodsFor[zone].includes(method)) methods[zone] = { method, from: '', isOwn: false }
  return planMachine({
    circuit: each.circuit,
    methods,
    product: basis.product,
    designLowC: each.frost?.designLowC ?? usualDesignLowC,
    rates: ratesOf(basis.terms),
  })
}

export function runCampaign(
  basis: Basis,
  change: Change = {},
): { plan: CampaignPlan; litres: number; minutes: number; cents: number } {
  const { machines: list, standings, terms, today, yards } = basis
  const known = yards.filter(({ climate }) => climate !== null)
  const waiting = list.filter(
    (each) =>
      isWaiting(each, standings.get(each.machine.id)!.worst) &&
      known.some(({ yard }) => yard.id === each.machine.yardId),
  )
  const plans = new Map(waiting.map((each) => [each.machine.id, planFor(basis, each, change)]))
  const outlookOf = (frost: YardFrost): OutlookDay[] | null =>
    change.colder ? colderBy(frost.outlook, change.colder) : frost.outlook
  const plan = campaignFinish({
    queue: waiting.map((each) => {
      const end = jobEnd(basis, each.machine.id)
      const away = change.away?.machineId === each.machine.id ? change.away.until : null
      return {
        id: each.machine.id,
        yard: each.machine.yardId,
        minutes: plans.get(each.machine.id)!.minutes,
        value: each.valueCents,
        standsC: each.standsC,
        from: away ?? (end === null ? null : addDays(end, 1)),
      }
    }),
    crew: Object.fromEntries(
      known.map(({ yard }) => [yard.id, crewDays(terms, yard.id, today, change.more?.[yard.id] ?? 0)]),
    ),
    climates: Object.fromEntries(known.map(({ yard, climate }) => [yard.id, climate!])),
    outlooks: Object.fromEntries(known.map((frost) => [frost.yard.id, outlookOf(frost)])),
    risk: terms.riskPercent / 100,
    today,
  })
  const sum = (of: (each: ReturnType<typeof planFor>) => number) =>
    [...plans.values()].reduce((total, each) => total + of(each), 0)
  return {
    plan,
    litres: sum(({ productLitres }) => productLitres),
    minutes: sum(({ minutes }) => minutes),
    cents: sum(({ cents }) => cents),
  }
}
