import 'server-only'
import { addDays, dayNumber, daysBetween, showDay, type Day } from '@/core/calendar'
import {
  anotherFrost,
  atRisk,
  campaignFinish,
  colderBy,
  eveningMinutes,
  eveningNames,
  frostAlarm,
  frostCurve,
  methodsFor,
  packsFor,
  planMachine,
  winterDay,
  zoneNames,
  type CampaignPlan,
  type FrostAlarm,
  type Method,
  type OutlookDay,
  type WhatIf,
  type WinterFluid,
  type WinterPage,
  type WinterRow,
  type WinterYard,
  type Zone,
  type ZoneState,
} from '@/core/winter'
import { kept } from '@/db/house'
import { people } from '@/db/access'
import { visits } from '@/db/plan'
import type { SpellRow } from '@/db/hours'
import { breathe, dayOf, now, ourCompany, present, timeOf, type Actor } from '../house'
import { spellsByMachine } from '../hours'
import { loadStock } from '../stores'
import type { YardFrost } from './climates'
import { loadMachines, usualDesignLowC, type MachineWinter, type WinterBasis } from './plans'
import { loadStandings, type MachineStanding } from './standings'
import { crewOf, ratesOf, type Terms } from './terms'

/** How far the order of work looks ahead, in days. */
const ahead = 75

/** How long what the morning asks of winter stays as it was: alarms count the hours that are left. */
const watchKeeps = 3_600_000

type Basis = WinterBasis & {
  standings: Map<string, MachineStanding>
  jobs: Map<string, SpellRow[]>
  booked: Map<string, NonNullable<WinterRow['booked']> & { day: Day }>
  today: Day
  timeZone: string
}

async function loadBasis(): Promise<Basis> {
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
function jobEnd(basis: Basis, machineId: string): Day | null {
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
const isWaiting = (each: MachineWinter, state: ZoneState) =>
  (each.row?.evening ?? '') === '' &&
  state !== 'returned' &&
  each.circuit.length > 0 &&
  atRisk.includes(state) &&
  state !== 'exposed'

/** What may differ from how it is: one more person, another method, colder nights, a machine that stays out. */
type Change = {
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

function runCampaign(
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

/** The winter of all yards: risk, order of work, fluid, and what would change it. */
export function getWinter(_actor: Actor): Promise<WinterPage> {
  return kept(`winter ${Math.floor(Date.parse(now()) / watchKeeps)}`, loadWinter)
}

async function loadWinter(): Promise<WinterPage> {
  const basis = await loadBasis()
  const { terms, yards, machines: list, standings } = basis
  const asPlanned = runCampaign(basis)
  const placed = new Map(asPlanned.plan.order.map((each) => [each.id, each]))
  const rowsOf = new Map(
    list.map((each) => [each.machine.id, rowOf(basis, each, placed.get(each.machine.id) ?? null)]),
  )
  const worst = [...standings.values()].map(({ worst: state }) => state)
  const working = list.filter(({ row }) => (row?.evening ?? '') !== '')
  return {
    yards: yards
      .map((frost) => yardOf(basis, frost, asPlanned.plan, rowsOf))
      .filter(({ rows }) => rows.length > 0)
      .sort((a, b) => soonest(a) - soonest(b) || (a.name < b.name ? -1 : 1)),
    fluid: await fluidOf(basis, [...rowsOf.values()]),
    counts: {
      machines: list.length,
      safe: worst.filter((state) => state === 'protected' || state === 'left').length,
      waiting: [...rowsOf.values()].filter(
        ({ state, evening }) => evening === null && (state === 'inUse' || state === 'unproved'),
      ).length,
      atRisk: worst.filter((state) => state === 'void' || state === 'failed' || state === 'exposed').length,
      working: working.length,
    },
    whatIf: await whatIfs(basis),
    riskPercent: terms.riskPercent,
    proof: list[0]?.proof ?? 'refractometer',
  }
}

/** What planning asks of winter: which machines wait, what that takes, and when frost comes to them. */
export type WinterNeeds = {
  needs: { machineId: string; minutes: number; valueCents: number; frost: string; from: Day | null }[]
  /** Chance that frost has come by each day from today on, by yard and by what stands it. */
  frosts: Record<string, number[]>
  risk: number
}

/** Planning looks so many days ahead at most. */
const farthest = 366

export function winterNeeds(): Promise<WinterNeeds> {
  return kept(`winter needs ${Math.floor(Date.parse(now()) / watchKeeps)}`, async () => {
    const basis = await loadBasis()
    const { machines: list, standings, terms, today } = basis
    const frosts: WinterNeeds['frosts'] = {}
    const needs = list.flatMap((each): WinterNeeds['needs'] => {
      const { machine, frost, standsC, plan, valueCents } = each
      if (!frost?.climate || standsC === null || plan.troubles.length > 0) return []
      if (!isWaiting(each, standings.get(machine.id)!.worst)) return []
      const key = `${machine.yardId} ${standsC}`
      frosts[key] ??= frostCurve({
        climate: frost.climate,
        standsC,
        outlook: frost.outlook,
        from: today,
        to: addDays(today, farthest - 1),
      }).map(({ chance }) => Math.round(1e4 * chance) / 1e4)
      const end = jobEnd(basis, machine.id)
      const from = end === null ? null : addDays(end, 1)
      return [{ machineId: machine.id, minutes: plan.minutes, valueCents, frost: key, from }]
    })
    return { needs, frosts, risk: terms.riskPercent / 100 }
  })
}

/** Yards by how soon frost comes to them. */
const soonest = (yard: WinterYard) => {
  const even = yard.odds.find(({ chance }) => chance === 0.5)?.day
  return even ? dayNumber(even) : Number.MAX_SAFE_INTEGER
}

function rowOf(basis: Basis, each: MachineWinter, placed: CampaignPlan['order'][number] | null): WinterRow {
  const { machine, plan, frost, standsC, row } = each
  const { standings, booked, today, timeZone } = basis
  const standing = standings.get(machine.id)!
  const visit = booked.get(machine.id) ?? null
  const state = standing.worst
  const waiting = isWaiting(each, state)
  const day = visit?.day ?? placed?.day ?? null
  const risk =
    !waiting || !frost?.climate
      ? null
      : visit
        ? (frostCurve({
            climate: frost.climate,
            standsC,
            outlook: frost.outlook,
            from: today,
            to: visit.day >= today ? visit.day : today,
          }).at(-1)?.chance ?? 0)
        : (placed?.risk ?? 0)
  const alike = Object.values(standing.zones).filter((zone) => zone.state === state && zone.says !== '')
  // What was measured says more than what was seen.
  const speaking = alike.find(({ proof }) => proof?.measuredC != null) ?? alike[0]
  const evening = row?.evening ?? ''
  const lastEvening = standing.evenings.at(-1)
  const confirmedOn = lastEvening ? dayOf(lastEvening.at, timeZone) : null
  return {
    machineId: machine.id,
    number: machine.number,
    name: machine.name,
    where: frost?.yard.name ?? '',
    standsC,
    state,
    says:
      state === 'protected' && speaking?.since
        ? `${speaking.says}, ${showDay(dayOf(speaking.since, timeZone), today)}`
        : (speaking?.says ?? ''),
    reach: plan.zones.map(({ zone, method }) => ({
      zone,
      method,
      state: standing.zones[zone]?.state ?? 'inUse',
    })),
    litres: waiting ? plan.productLitres : 0,
    waterLitres: waiting ? plan.waterLitres : 0,
    minutes: plan.minutes,
    cents: plan.cents,
    valueCents: each.valueCents,
    day: waiting ? day : null,
    booked: visit && { visitId: visit.visitId, number: visit.number, lead: visit.lead },
    risk,
    troubles: plan.troubles.map(({ zone, why }) => `${zoneNames[zone]}: ${why}`),
    isTemplate: each.isTemplate,
    evening:
      evening === ''
        ? null
        : { name: eveningNames[evening], confirmedOn, wanted: eveningWanted(basis, each, confirmedOn) },
    onJobUntil: jobEnd(basis, machine.id),
    alarm: alarmOf(basis, each, standing),
  }
}

/** A machine that works on is asked about each evening on which frost may come before the next. */
function eveningWanted(basis: Basis, each: MachineWinter, confirmedOn: Day | null): boolean {
  const { today, terms } = basis
  const { frost, standsC } = each
  if (standsC === null || !frost?.climate || confirmedOn === today) return false
  const tonight = frostCurve({
    climate: frost.climate,
    standsC,
    outlook: frost.outlook,
    from: today,
    to: addDays(today, 1),
  }).at(-1)!.chance
  // After midwinter the first frost says nothing any more: the last one does.
  const late =
    winterDay(today) > 184 && anotherFrost(frost.climate, standsC, today) >= terms.riskPercent / 100
  return tonight >= terms.riskPercent / 100 / 5 || late
}

function alarmOf(basis: Basis, each: MachineWinter, standing: MachineStanding): FrostAlarm | null {
  const { terms, today, timeZone } = basis
  const { machine, frost, standsC, plan, row } = each
  if (!frost || jobEnd(basis, machine.id) !== null) return null
  const drained = planMachine({
    circuit: each.circuit,
    methods: Object.fromEntries(
      plan.zones.map(({ zone }) => [
        zone,
        {
          method: methodsFor[zone].includes('drain')
            ? 'drain'
            : methodsFor[zone].includes('blowOut')
              ? 'blowOut'
              : 'leave',
          from: '',
        },
      ]),
    ),
    product: null,
    designLowC: frost.designLowC ?? usualDesignLowC,
    rates: ratesOf(terms),
  })
  const evening = row?.evening ?? ''
  const [hour, minute] = timeOf(now(), timeZone).split(':').map(Number) as [number, number]
  return frostAlarm(
    {
      id: machine.id,
      standsC,
      states: Object.values(standing.zones).map(({ state }) => state),
      heatedSpace: frost.heatedSpace,
      drain: { minutes: drained.minutes - 25, cents: drained.cents },
      protect: plan.troubles.length === 0 ? { minutes: plan.minutes, cents: plan.cents } : null,
      hourCents: terms.hourCents,
      routine: evening === '' ? null : { name: eveningNames[evening], minutes: eveningMinutes[evening] },
    },
    frost.outlook,
    today,
    hour + minute / 60,
    terms.alarmC,
  )
}

function yardOf(
  basis: Basis,
  frost: YardFrost,
  plan: CampaignPlan,
  rowsOf: Map<string, WinterRow>,
): WinterYard {
  const { today, terms, machines: list, standings } = basis
  const { climate, yard } = frost
  const own = list.filter(({ machine }) => machine.yardId === yard.id)
  const to = addDays(today, ahead)
  const coldest = own.reduce<number | null>(
    (high, { standsC }) => (standsC !== null && (high === null || standsC > high) ? standsC : high),
    null,
  )
  const curve = climate
    ? frostCurve({ climate, standsC: coldest, outlook: frost.outlook, from: today, to })
    : []
  const rows = own.map(({ machine }) => rowsOf.get(machine.id)!)
  const waiting = own.filter((each) => isWaiting(each, standings.get(each.machine.id)!.worst))
  const days = rows.flatMap(({ day, state }) => (day !== null && state !== 'protected' ? [day] : []))
  const finish =
    waiting.length === 0 || days.length < waiting.length ? null : days.reduce((a, b) => (a > b ? a : b))
  const crew = crewOf(terms, yard.id)
  return {
    id: yard.id,
    name: yard.name,
    hasClimate: climate !== null,
    climateSays: climateWords(frost),
    designLowC: frost.designLowC,
    outlookSays: frost.outlookSays,
    outlook: (frost.outlook ?? []).map(({ day, minC }) => ({ day, minC })),
    curve,
    odds: [0.1, 0.5, 0.9].map((chance) => ({
      chance,
      day: curve.find((point) => point.chance >= chance)?.day ?? null,
    })),
    finish,
    finishRisk: finish ? (curve.find(({ day }) => day === finish)?.chance ?? null) : null,
    latestStart: waiting.length > 0 ? (plan.latestStart[yard.id] ?? null) : null,
    exposedCents: Math.round(rows.reduce((sum, { risk, valueCents }) => sum + (risk ?? 0) * valueCents, 0)),
    crewSays: `${crew.people} ${crew.people === 1 ? 'person' : 'people'}, ${crew.minutes} min each on ${crew.days.length} days a week`,
    rows: rows.sort(inOrder),
  }
}

const rank = (row: WinterRow) =>
  ['exposed', 'void', 'failed'].includes(row.state)
    ? 0
    : row.day !== null || row.evening
      ? 1
      : row.state === 'protected' || row.state === 'left'
        ? 3
        : 2
const inOrder = (a: WinterRow, b: WinterRow) =>
  rank(a) - rank(b) ||
  ((a.day ?? '9') < (b.day ?? '9') ? -1 : (a.day ?? '9') > (b.day ?? '9') ? 1 : a.number < b.number ? -1 : 1)

function climateWords({ climate, row }: YardFrost): string {
  if (!climate) return 'Nothing is known of its frost yet.'
  if (climate.winters.length === 0) return 'First and last frost as entered.'
  const years = `${climate.winters.length} whole winters`
  const left = climate.leftOut.length > 0 ? `, ${climate.leftOut.length} left out for missing days` : ''
  return `By ${years}${left}${row?.fileName ? ` of ${row.fileName}` : ''}.`
}

async function fluidOf(basis: Basis, rows: WinterRow[]): Promise<WinterFluid> {
  const { product, today } = basis
  const toGo = rows.reduce((sum, { litres }) => sum + litres, 0)
  const water = rows.reduce((sum, { waterLitres }) => sum + waterLitres, 0)
  const [stocked] = product?.partId ? await loadStock([product.partId]) : []
  const perUnit = stocked ? { piece: product!.packLitres, L: 1, mL: 0.001, g: 0 }[stocked.row.unit] : 0
  const inStores = stocked ? stocked.stock.onHand * perUnit : null
  const packs = product ? packsFor(product, toGo, inStores ?? 0) : null
  // The day on which what is there has been poured: from then on it is short.
  let left = inStores ?? 0
  const shortOn =
    [...rows]
      .filter(({ litres, day }) => litres > 0 && day !== null)
      .sort((a, b) => (a.day! < b.day! ? -1 : 1))
      .find(({ litres }) => (left -= litres) < -1e-9)?.day ?? null
  const leadDays = stocked?.row.leadDays ?? 7
  return {
    product: product?.name ?? null,
    inStoresLitres: inStores,
    toGoLitres: toGo,
    waterLitres: water,
    packs: packs?.packs ?? 0,
    packLitres: product?.packLitres ?? 0,
    cents: packs?.cents ?? 0,
    leftLitres: packs?.leftLitres ?? 0,
    shortOn,
    orderBy:
      shortOn && daysBetween(today, shortOn) - leadDays > 0 ? addDays(shortOn, -leadDays) : shortOn && today,
    partNumber: stocked?.row.number ?? null,
  }
}

/** What would change the campaign: each beside how it is. */
async function whatIfs(basis: Basis): Promise<WhatIf[]> {
  const { yards, machines: list, today, standings } = basis
  const told = async (name: string, change: Change): Promise<WhatIf> => {
    // Each is a campaign of its own: whoever waits goes first.
    await breathe()
    const { plan, litres, minutes, cents } = runCampaign(basis, change)
    const ends = Object.values(plan.finish)
    return {
      name,
      finish: ends.some((day) => day === null)
        ? null
        : (ends as Day[]).reduce((a, b) => (a > b ? a : b), today),
      exposedCents: Math.round(plan.exposed),
      litres,
      minutes,
      cents,
    }
  }
  const withCrew = yards.filter(
    ({ climate, yard }) => climate && list.some(({ machine }) => machine.yardId === yard.id),
  )
  const out = list.find(
    (each) =>
      jobEnd(basis, each.machine.id) !== null && isWaiting(each, standings.get(each.machine.id)!.worst),
  )
  return Promise.all([
    told('As planned', {}),
    ...withCrew.map(({ yard }) => told(`One more person in ${yard.name}`, { more: { [yard.id]: 1 } })),
    told('Everything to the nozzle', {
      methods: { pump: 'through', bypass: 'through', hose: 'toNozzle', coil: 'through' },
    }),
    told('Everything blown out', {
      methods: { pump: 'blowOut', bypass: 'blowOut', hose: 'blowOut', coil: 'blowOut' },
    }),
    ...(yards.some(({ outlook }) => outlook !== null) ? [told('An outlook 3 °C colder', { colder: 3 })] : []),
    ...(out
      ? [
          told(
            `${out.machine.number} stays out two weeks longer, to ${showDay(addDays(jobEnd(basis, out.machine.id)!, 14), today)}`,
            {
              away: { machineId: out.machine.id, until: addDays(jobEnd(basis, out.machine.id)!, 15) },
            },
          ),
        ]
      : []),
  ])
}

/** Machines that the outlook threatens, and those that work on and were not confirmed: for the morning. */
export function frostWatch(): Promise<WinterRow[]> {
  return kept(`frost watch ${Math.floor(Date.parse(now()) / watchKeeps)}`, loadWatch)
}

async function loadWatch(): Promise<WinterRow[]> {
  const basis = await loadBasis()
  return basis.machines
    .map((each) => rowOf(basis, each, null))
    .filter(
      ({ alarm, evening, state }) =>
        alarm !== null || evening?.wanted === true || state === 'void' || state === 'exposed',
    )
}
