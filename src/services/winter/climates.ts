import 'server-only'
import { addDays, dayNumber, daysBetween } from '@/core/calendar'
import { check, invalid, notFound } from '@/core/problem'
import {
  enteredClimate,
  freshOutlook,
  frostClimate,
  frostNightSchema,
  minimaSchema,
  readMinima,
  readOutlook,
  usualPlaces,
  yardClimateSchema,
  type FrostClimate,
  type FrostNightInput,
  type MinimaInput,
  type OutlookDay,
  type PlacesInput,
  type YardClimateInput,
} from '@/core/winter'
import { derived, write } from '@/db/house'
import { machines, yards, type YardRow } from '@/db/fleet'
import { winterEvents, yardClimates, yardOutlooks, type YardClimateRow } from '@/db/winter'
import {
  editRow,
  instantOf,
  now,
  ourCompany,
  present,
  recordChange,
  requirePermission,
  type Actor,
} from '../house'
import { loadTerms } from './terms'

/** A yard with its frost and what the weather service told of it. */
export type YardFrost = {
  yard: YardRow
  row: YardClimateRow | null
  /** Null where nobody has entered or imported anything. */
  climate: FrostClimate | null
  stands: PlacesInput
  heatedSpace: boolean
  designLowC: number | null
  outlook: OutlookDay[] | null
  /** Where the outlook comes from and how old it is, or why there is none. */
  outlookSays: string
}

export async function loadYards(): Promise<YardFrost[]> {
  const [yardRows, climates, outlooks, company] = await Promise.all([
    yards.every(),
    yardClimates.every(),
    yardOutlooks.every(),
    ourCompany(),
  ])
  const { today } = present(company)
  return [...yardRows]
    .sort((a, b) => (a.name < b.name ? -1 : 1))
    .map((yard) => {
      const row = climates.find((each) => each.id === yard.id) ?? null
      const climate = derived(`climate ${yard.id}`, [row], () => (row ? climateOf(row) : null))
      const told = outlooks.find((each) => each.id === yard.id)
      const fresh = freshOutlook(
        told && told.issuedAt !== ''
          ? { source: told.source, issuedAt: told.issuedAt, days: told.days }
          : null,
        now(),
        today,
      )
      return {
        yard,
        row,
        climate,
        stands: row?.stands ?? usualPlaces,
        heatedSpace: row?.heatedSpace === 1,
        designLowC: row?.entered?.designLowC ?? climate?.designLowC ?? null,
        outlook: fresh.days,
        outlookSays: told?.trouble ? `${fresh.says} Last asking: ${told.trouble}` : fresh.says,
      }
    })
}

function climateOf(row: YardClimateRow): FrostClimate | null {
  if (row.minima) {
    const { from, tenths } = row.minima
    return frostClimate(
      tenths.flatMap((value, at) => (value === null ? [] : [{ day: addDays(from, at), minC: value / 10 }])),
    )
  }
  if (row.entered && row.entered.thresholds.length > 0)
    return {
      winters: [],
      leftOut: [],
      gaps: [],
      designLowC: row.entered.designLowC,
      entered: row.entered.thresholds,
      thresholds: row.entered.thresholds,
    }
  return null
}

const blankRow = (yardId: string, actor: Actor): YardClimateRow => ({
  id: yardId,
  minima: null,
  fileName: '',
  entered: null,
  stands: usualPlaces,
  heatedSpace: 0,
  recordedAt: now(),
  recordedById: actor.id || null,
  version: 1,
})

async function putClimate(
  actor: Actor,
  yard: YardRow,
  read: number | undefined,
  values: Partial<YardClimateRow>,
  summary: string,
): Promise<void> {
  const row = await yardClimates.byId(yard.id)
  const stamped = { ...values, recordedAt: now(), recordedById: actor.id || null }
  if (row) {
    await editRow(
      actor,
      yardClimates,
      { entity: 'yardClimate', name: `the frost of ${yard.name}` },
      { id: yard.id, version: read ?? row.version },
      stamped,
      { action: 'changed', summary },
    )
    return
  }
  await yardClimates.insert({ ...blankRow(yard.id, actor), ...values })
  await recordChange(actor, {
    entity: 'yardClimate',
    entityId: yard.id,
    entityVersion: 1,
    action: 'changed',
    summary,
  })
}

/** Enters what is known by heart of a yard's frost, and what its places stand. */
export async function saveClimate(actor: Actor, input: YardClimateInput): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const values = check(yardClimateSchema, input)
  await write(async () => {
    const yard = await yards.byId(values.yardId)
    if (!yard) throw notFound('This yard')
    const row = await yardClimates.byId(yard.id)
    const stands: PlacesInput = {
      heated: { standsC: values.heatedStandsC, reason: values.heatedReason },
      indoorsUnheated: { standsC: values.hallStandsC, reason: values.hallReason },
      outdoors: { standsC: values.outdoorsStandsC, reason: values.outdoorsReason },
    }
    const isTyped = values.firstFrost !== null && values.lastFrost !== null
    if (!isTyped && !row?.minima && values.designLowC === null)
      throw invalid({ firstFrost: 'Enter first and last frost, or import minima.' })
    const thresholds = isTyped
      ? enteredClimate(
          [
            {
              standsC: 0,
              first: { day: values.firstFrost!, spreadDays: values.firstSpreadDays! },
              last: { day: values.lastFrost!, spreadDays: values.lastSpreadDays! },
            },
          ],
          values.designLowC ?? 0,
        ).entered
      : []
    await putClimate(
      actor,
      yard,
      values.version,
      {
        entered: { thresholds, designLowC: values.designLowC },
        stands,
        heatedSpace: values.heatedSpace ? 1 : 0,
        // What is typed takes the place of what was imported.
        ...(isTyped && { minima: null, fileName: '' }),
      },
      isTyped ? `Frost of ${yard.name} entered` : `Places of ${yard.name} changed`,
    )
  })
}

/**
 * Computes a yard's frost from a file of daily minima: all of it or nothing.
 * @returns how many days and whole winters it has
 */
export async function importMinima(
  actor: Actor,
  input: MinimaInput,
): Promise<{ days: number; winters: number; leftOut: number; gaps: number }> {
  requirePermission(actor, 'fleet.edit')
  const { yardId, fileName, text, unit } = check(minimaSchema, input)
  const read = readMinima(text, unit)
  if (!read.ok) throw invalid({ text: read.reason })
  const climate = frostClimate(read.value)
  if (climate.winters.length === 0)
    throw invalid({ text: 'There is not one whole winter in it, September to May: nothing can be computed.' })
  const [first] = read.value
  const last = read.value.at(-1)!
  const tenths = Array<number | null>(daysBetween(first!.day, last.day) + 1).fill(null)
  for (const { day, minC } of read.value)
    tenths[dayNumber(day) - dayNumber(first!.day)] = Math.round(minC * 10)
  await write(async () => {
    const yard = await yards.byId(yardId)
    if (!yard) throw notFound('This yard')
    await putClimate(
      actor,
      yard,
      undefined,
      { minima: { from: first!.day, tenths }, fileName, entered: null },
      `Frost of ${yard.name} computed from ${climate.winters.length} winters`,
    )
  })
  return {
    days: read.value.length,
    winters: climate.winters.length,
    leftOut: climate.leftOut.length,
    gaps: climate.gaps.length,
  }
}

/** How long a weather service may take. */
const patience = 5000

/**
 * Asks the weather service for every yard's outlook. What it does not answer, or answers with nonsense, is
 * noted beside the outlook that was there.
 */
export async function askWeather(actor: Actor): Promise<{ asked: number; troubles: string[] }> {
  requirePermission(actor, 'visits.plan')
  const { weatherUrl } = await loadTerms()
  if (weatherUrl === '')
    throw invalid({ weatherUrl: 'No weather service is entered: say under Winter, Terms where it is.' })
  return askFor(weatherUrl)
}

/** How long an outlook is left alone before the server asks for the next by itself, in milliseconds: 3 h, ours. */
const askAgainMs = 3 * 3_600_000

/** Asks of itself for the outlook where the last asking is long past; true where it asked. */
export async function keepOutlook(): Promise<boolean> {
  const [{ weatherUrl }, rows, told] = await Promise.all([loadTerms(), yards.every(), yardOutlooks.every()])
  if (weatherUrl === '' || rows.length === 0) return false
  const before = new Date(Date.parse(now()) - askAgainMs).toISOString()
  const fresh = rows.every((yard) => told.some((each) => each.id === yard.id && each.fetchedAt > before))
  if (fresh) return false
  await askFor(weatherUrl)
  return true
}

async function askFor(weatherUrl: string): Promise<{ asked: number; troubles: string[] }> {
  const rows = await yards.every()
  const answers = await Promise.all(
    rows.map(async (yard) => ({ yard, ...(await ask(weatherUrl, yard.name)) })),
  )
  await write(async () => {
    for (const { yard, outlook, trouble } of answers) {
      const known = await yardOutlooks.byId(yard.id)
      const values = {
        ...(outlook
          ? { source: outlook.source, issuedAt: outlook.issuedAt, days: outlook.days }
          : known
            ? {}
            : { source: '', issuedAt: '', days: [] }),
        fetchedAt: now(),
        trouble,
      }
      if (known) await yardOutlooks.update({ id: yard.id }, values)
      else await yardOutlooks.insert({ id: yard.id, source: '', issuedAt: '', days: [], ...values })
    }
  })
  return {
    asked: rows.length,
    troubles: answers.flatMap(({ yard, trouble }) => (trouble === '' ? [] : [`${yard.name}: ${trouble}`])),
  }
}

async function ask(url: string, place: string) {
  const nothing = (trouble: string) => ({ outlook: null, trouble })
  try {
    const address = new URL(url)
    address.searchParams.set('place', place)
    address.searchParams.set('today', present(await ourCompany()).today)
    const answer = await fetch(address, { signal: AbortSignal.timeout(patience), redirect: 'error' })
    if (!answer.ok) return nothing(`It answered with ${answer.status}.`)
    const read = readOutlook(await answer.json().catch(() => null))
    return read.ok ? { outlook: read.value, trouble: '' } : nothing(read.reason)
  } catch {
    return nothing('It does not answer.')
  }
}

/** Notes a frost night of a yard: it concerns every machine that stood there where that freezes. */
export async function recordFrost(actor: Actor, input: FrostNightInput): Promise<{ machines: number }> {
  requirePermission(actor, 'readings.enter')
  const { id, yardId, day, minC } = check(frostNightSchema, input)
  const company = await ourCompany()
  const { today } = present(company)
  if (day > today) throw invalid({ day: 'This night is still to come.' })
  const [frost] = (await loadYards()).filter(({ yard }) => yard.id === yardId)
  if (!frost) throw notFound('This yard')
  const standing = (await machines.every()).filter((row) => row.yardId === yardId && row.retiredOn === null)
  const met = standing.filter(({ storage }) => {
    const { standsC } = frost.stands[storage]
    return standsC !== null && minC <= standsC
  })
  await write(async () => {
    for (const [at, machine] of met.entries()) {
      const own = `${id.slice(0, 30)}-${String(at).padStart(4, '0')}`
      if (await winterEvents.byId(own)) continue
      await winterEvents.insert({
        id: own,
        machineId: machine.id,
        at: instantOf(day, '06:00', company.timeZone),
        event: {
          kind: 'frost',
          at: instantOf(day, '06:00', company.timeZone),
          minC,
          standsC: frost.stands[machine.storage].standsC,
        },
        sheetId: null,
        recordedAt: now(),
        recordedById: actor.id,
      })
    }
    await recordChange(actor, {
      entity: 'yard',
      entityId: yardId,
      action: 'frost',
      summary: `Frost of ${minC} °C noted in ${frost.yard.name}: ${met.length} machines stood in it`,
    })
  })
  return { machines: met.length }
}
