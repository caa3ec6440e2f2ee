import 'server-only'
import { addDays, showDay } from '@/core/calendar'
import {
  knownAhead,
  laidUpOn,
  overlap,
  spellKinds,
  spellSchema,
  spellWords,
  type SpellInput,
  weeklyUse,
  type CumulativeLine,
  type KnownAhead,
} from '@/core/hours'
import type { SpellView } from '@/core/fleet'
import { conflict, invalid, notFound, check, referenceSchema, type Reference } from '@/core/problem'
import { derived, write } from '@/db/house'
import { machines } from '@/db/fleet'
import { meters, spells, type SpellRow } from '@/db/hours'
import {
  requirePermission,
  type Actor,
  recordChange,
  now,
  ourCompany,
  present,
  dayOf,
  timeOf,
  editRow,
  requireFresh,
  groupBy,
} from '../house'
import { linesOf } from './meterHistory'

/** A machine's lay-ups and booked jobs, oldest first; those long gone are left out. */
export async function spellsOf(_actor: Actor, machineId: string): Promise<SpellView[]> {
  const { today } = present(await ourCompany())
  const rows = await spells.all({ machineId, status: 'active' }, [['fromDay', 'ASC']])
  return rows.map(({ id, version, kind, fromDay, toDay, hoursPerDay, what }) => ({
    id,
    version,
    kind,
    fromDay,
    toDay,
    hoursPerDay,
    what,
    past: toDay !== null && toDay < today,
    now: fromDay <= today && (toDay === null || today <= toDay),
  }))
}

/** Active spells of some machines, or of all, by machine. */
export async function spellsByMachine(machineIds?: string[]): Promise<Map<string, SpellRow[]>> {
  const ids = machineIds ?? (await machines.every()).map((row) => row.id)
  const byMachine = new Map<string, SpellRow[]>()
  for (const [machineId, rows] of await spells.everyOf(ids)) {
    if (rows.length === 0) continue
    const active = derived(`spells ${machineId}`, [rows], () =>
      rows
        .filter((row) => row.status === 'active')
        .sort((a, b) => (a.fromDay < b.fromDay ? -1 : a.fromDay > b.fromDay ? 1 : 0)),
    )
    if (active.length > 0) byMachine.set(machineId, active)
  }
  return byMachine
}

/** Notes that a machine will stand or work on some days, or changes what was noted. */
export async function saveSpell(actor: Actor, machineId: string, input: SpellInput): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const { id, version, ...values } = check(spellSchema, input)
  await write(async () => {
    const machine = await machines.byId(machineId)
    if (!machine) throw notFound('This machine')
    if (version === undefined && (await spells.byId(id))) return
    const others = await spells.all({ machineId, status: 'active' })
    const other = others.find((row) => row.id !== id && overlap(row, values))
    const { today } = present(await ourCompany())
    if (other)
      throw invalid({
        fromDay: `${machine.number} already has a ${spellKinds[other.kind].toLowerCase()} on these days: ${spanWords(other, today)}, ${other.what}.`,
      })
    const summary = `${spellKinds[values.kind]} ${spanWords(values, today)}: ${values.what}`
    if (version !== undefined) {
      const what = { entity: 'spell', name: 'this entry' }
      const change = { machineId, action: 'changed', summary: `${summary} (changed)` }
      const before = await requireFresh(spells, what, { id, version })
      if (before.status !== 'active') throw conflict('This entry was taken out meanwhile.')
      await editRow(actor, spells, what, { id, version }, values, change)
      return
    }
    const row: SpellRow = {
      id,
      machineId,
      ...values,
      status: 'active',
      recordedAt: now(),
      recordedById: actor.id,
      version: 1,
    }
    await spells.insert(row)
    await recordChange(actor, {
      entity: 'spell',
      entityId: id,
      entityVersion: 1,
      machineId,
      action: 'added',
      summary,
      after: row,
    })
  })
}

const winterWords = 'Made safe for winter'

/**
 * A signed winter sheet lays its machine up from the next day on, until further notice; where days to come are
 * told already it stands as told. Inside a `write()`.
 */
export async function layUp(actor: Actor, machineId: string, id: string, fromDay: string): Promise<void> {
  const others = await spells.all({ machineId, status: 'active' })
  if (others.some((row) => row.id === id || overlap(row, { fromDay, toDay: null }))) return
  const row: SpellRow = {
    id,
    machineId,
    kind: 'layUp',
    fromDay,
    toDay: null,
    hoursPerDay: null,
    what: winterWords,
    status: 'active',
    recordedAt: now(),
    recordedById: actor.id,
    version: 1,
  }
  await spells.insert(row)
  await recordChange(actor, {
    entity: 'spell',
    entityId: id,
    entityVersion: 1,
    machineId,
    action: 'added',
    summary: `Laid up: ${winterWords.toLowerCase()}`,
    after: row,
  })
}

/** Back at work: the lay-up that a machine is in ends on a day, and its hours are forecast again. Inside a `write()`. */
export async function endLayUp(actor: Actor, machineId: string, lastDay: string): Promise<void> {
  const current = laidUpOn(await spells.all({ machineId, status: 'active', kind: 'layUp' }), lastDay)
  if (!current || current.toDay === lastDay) return
  await editRow(
    actor,
    spells,
    { entity: 'spell', name: 'this lay-up' },
    current,
    // One that began today was none.
    current.fromDay === lastDay ? { status: 'withdrawn' } : { toDay: addDays(lastDay, -1) },
    { machineId, action: 'changed', summary: 'Back at work: the lay-up ends' },
  )
}

/** Takes a lay-up or a job out again, as if it had not been told; the record keeps it. */
export async function withdrawSpell(actor: Actor, asked: Reference): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const input = check(referenceSchema, asked)
  await write(async () => {
    const row = await requireFresh(spells, { entity: 'spell', name: 'this entry' }, input)
    const { today } = present(await ourCompany())
    await editRow(
      actor,
      spells,
      { entity: 'spell', name: 'this entry' },
      input,
      { status: 'withdrawn' },
      {
        machineId: row.machineId,
        action: 'withdrawn',
        summary: `${spellKinds[row.kind]} ${spanWords(row, today)} taken out: ${row.what}`,
      },
    )
  })
}

/**
 * What is known of the days to come of each machine's meters, from three queries. Booked hours are told
 * for a machine's first meter; another one of it is taken to run in its usual proportion to that.
 *
 * @param lines cumulative lines by meter, as far as they are loaded already
 */
export async function loadKnown(
  machineIds?: string[],
  lines: Map<string, CumulativeLine> = new Map(),
): Promise<(machineId: string, meterId: string) => KnownAhead> {
  const [byMachine, meterRows, company] = await Promise.all([
    spellsByMachine(machineIds),
    meters.every(),
    ourCompany(),
  ])
  const metersOf = derived('meters in use', [meterRows], () =>
    groupBy(
      meterRows
        .filter((meter) => meter.retiredOn === null)
        .sort((a, b) => (a.createdAt < b.createdAt ? -1 : a.createdAt > b.createdAt ? 1 : 0)),
      (meter) => meter.machineId,
    ),
  )
  const booked = [...byMachine].flatMap(([machineId, rows]) => {
    const own = metersOf.get(machineId) ?? []
    return own.length > 1 && rows.some((row) => row.hoursPerDay !== null) ? own.map((meter) => meter.id) : []
  })
  const missing = booked.filter((id) => !lines.has(id))
  const known = missing.length > 0 ? new Map([...lines, ...(await linesOf(missing))]) : lines
  const weekly = (meterId: string) => {
    const line = known.get(meterId)
    return line ? weeklyUse(line, 26) : null
  }
  const offsetDays = aheadOfUtc(now(), company.timeZone)
  return (machineId, meterId) => {
    const main = metersOf.get(machineId)?.[0]?.id
    const [weeklyOwn, first] = main && main !== meterId ? [weekly(meterId), weekly(main)] : [1, 1]
    const scale = weeklyOwn !== null && first ? weeklyOwn / first : 1
    const own = byMachine.get(machineId) ?? none
    return derived(`known ${machineId} ${meterId}`, [own, scale, offsetDays], () =>
      knownAhead(own, scale, offsetDays),
    )
  }
}

const none: SpellRow[] = []

/** How far a zone's clocks are ahead of UTC at an instant, in days. */
function aheadOfUtc(instant: string, timeZone: string): number {
  const there = Date.parse(`${dayOf(instant, timeZone)}T${timeOf(instant, timeZone)}:00Z`)
  return Math.round((there - Date.parse(instant)) / 900_000) / 96
}

/** What a machine is laid up or booked for on a day, in words; blank where nothing is. */
export function spellToday(rows: SpellRow[] | undefined, today: string): string {
  const row = rows?.find(({ fromDay, toDay }) => fromDay <= today && (toDay === null || today <= toDay))
  return row ? spellWords(row, today) : ''
}

function spanWords({ fromDay, toDay }: Pick<SpellRow, 'fromDay' | 'toDay'>, today: string): string {
  return toDay === null
    ? `from ${showDay(fromDay, today)} until further notice`
    : `${showDay(fromDay, today)} to ${showDay(toDay, today)}`
}
