import 'server-only'
import { addDays, dayNumber, daysBetween } from '@/core/calendar'
import {
  frostCurve,
  packsFor,
  type CampaignPlan,
  type WinterFluid,
  type WinterPage,
  type WinterRow,
  type WinterYard,
} from '@/core/winter'
import { kept } from '@/db/house'
import { now, type Actor } from '../house'
import { loadStock } from '../stores'
import type { YardFrost } from './climates'
import { crewOf } from './terms'
import { type Basis, ahead, isWaiting, loadBasis, runCampaign, watchKeeps } from './campaign'
import { rowOf } from './rows'
import { whatIfs } from './whatIfs'

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

/** Yards by how soon frost comes to them. */
const soonest = (yard: WinterYard) => {
  const even = yard.odds.find(({ chance }) => chance === 0.5)?.day
  return even ? dayNumber(even) : Number.MAX_SAFE_INTEGER
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
