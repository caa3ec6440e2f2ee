import 'server-only'
import { daysBetween } from '@/core/calendar'
import { usageSinceTakeOver, type CountedStretch, type KnownAhead } from '@/core/hours'
import {
  allPositions,
  indicesOf,
  instancesOf,
  positionName,
  repeatName,
  type PositionKey,
  type PumpModel,
} from '@/core/models'
import {
  clockOf,
  dueStates,
  ruledLimit,
  sortsOf,
  positionsOf,
  type ComingUse,
  type DueState,
  type ForwardSign,
  type PartsLeadTime,
  type Since,
  type WearRules,
  type ClockView,
  type PositionView,
  type WearView,
} from '@/core/wear'
import { kept } from '@/db/house'
import { assemblies, type AssemblyRow, machines } from '@/db/fleet'
import { lives, type LifeRow } from '@/db/wear'
import { pumpModelVersions } from '@/db/models'
import { taskRecords, type TaskRecordRow } from '@/db/sheets'
import { type Actor, ourCompany, present, dayOf, groupBy } from '../house'
import { loadCounting } from './assemblyLoading'
import { forecastOf } from './forecasts'
import { loadLeadTimes } from '../stores'
import { loadForwardSigns } from '../inspection'
import { loadKnown } from '../hours'
import { loadRules } from './rulesLoading'

/** The clocks of every pump in service whose model is published: worst pump first. */
export async function listWear(_actor: Actor): Promise<WearView[]> {
  const { today } = present(await ourCompany())
  return kept('wear', today, () => loadWear())
}

/** The clocks of some pumps as they would stand under other rules; for what shows a change before it is saved. */
export async function listWearBy(
  ids: string[],
  rulesOf: (assemblyId: string) => WearRules,
): Promise<WearView[]> {
  return loadWear(ids, rulesOf)
}

/** The clocks of one pump, or null where its model has no published data. */
export async function getWear(_actor: Actor, assemblyId: string): Promise<WearView | null> {
  return (await loadWear([assemblyId]))[0] ?? null
}

/** The clocks of some pumps; for what compares them before and after. */
export async function listWearOf(ids: string[]): Promise<WearView[]> {
  return ids.length === 0 ? [] : loadWear(ids)
}

async function loadWear(ids?: string[], rulesOf?: (assemblyId: string) => WearRules): Promise<WearView[]> {
  const company = await ourCompany()
  const { instant, today } = present(company)
  const [rows, versions, lifeRows, machineRows, doneRows, counting] = await Promise.all([
    assemblies.all({ retiredOn: null, ...(ids ? { id: ids } : {}) }, [['number', 'ASC']]),
    pumpModelVersions.all(),
    lives.all({ status: 'active', ...(ids ? { assemblyId: ids } : {}) }, [['startedAt', 'ASC']]),
    machines.all(),
    taskRecords.all({ status: 'active', ...(ids ? { assemblyId: ids } : {}) }, [['at', 'ASC']]),
    loadCounting(ids),
  ])
  const [known, rules, leadTime, signs] = await Promise.all([
    loadKnown(undefined, counting.lines),
    rulesOf ?? loadRules(ids),
    loadLeadTimes(),
    loadForwardSigns(today, ids),
  ])
  const versionOf = new Map(versions.map((version) => [version.id, version]))
  const machineOf = new Map(machineRows.map((machine) => [machine.id, machine]))
  const livesOf = groupBy(lifeRows, (life) => life.assemblyId)
  const doneOf = groupBy(doneRows, (done) => done.assemblyId)
  const views = rows.flatMap((row): WearView[] => {
    const version = row.modelVersionId ? versionOf.get(row.modelVersionId) : undefined
    if (!version) return []
    const { moves, stretches } = counting.of(row.id)
    const place = moves.at(-1)
    const machine = place?.machineId ? machineOf.get(place.machineId) : undefined
    const facts = {
      row,
      model: version.data,
      rules: rules(row.id),
      signs: signs(row.id),
      leadTime: (task: string, positions: string[], day: string) =>
        leadTime(version, { assemblyId: row.id, task, positions, day }),
      noticeDays: company.noticeDays,
      own: livesOf.get(row.id) ?? [],
      done: doneOf.get(row.id) ?? [],
      stretches,
      knownOf: (meterId: string) => known(place?.machineId ?? '', meterId),
      instant,
      today,
      timeZone: company.timeZone,
    }
    const { clocks, record } = clocksOf(facts)
    return [
      {
        assemblyId: row.id,
        number: row.number,
        title: `${version.data.maker} ${version.data.name}`,
        serial: row.serial,
        machineNumber: machine?.number ?? null,
        machineName: machine?.name ?? null,
        yardId: machine?.yardId ?? place?.yardId ?? null,
        unit: row.usageScale,
        modelVersion: version.version,
        modelVersionId: version.id,
        notice: version.data.notice,
        started: Object.keys(record.lives).length > 0,
        clocks,
        ...gridOf(facts, record.lives),
        positionNames: Object.fromEntries(
          allPositions(version.data).map((key) => [key, positionName(version.data, key)]),
        ),
        tasks: version.data.tasks.map(({ key, name, limit, tolerance }) => ({ key, name, limit, tolerance })),
        renewals: version.data.tasks
          .filter((task) => task.kind === 'renew' || task.kind === 'change')
          .map((task) => ({
            task: task.key,
            name: task.name,
            sorts: sortsOf(version.data, task),
            positions: positionsOf(version.data, task).map((key) => ({
              key,
              label: positionName(version.data, key),
            })),
          })),
      },
    ]
  })
  const worst = (view: WearView) => view.clocks[0]?.share ?? 0
  return views.sort((a, b) => worst(b) - worst(a))
}

type Facts = {
  row: AssemblyRow
  model: PumpModel
  rules: WearRules
  signs: ForwardSign[]
  leadTime: (task: string, positions: string[], day: string) => PartsLeadTime
  noticeDays: number
  own: LifeRow[]
  done: TaskRecordRow[]
  stretches: (CountedStretch & { meterId: string })[]
  /** What is known of the days to come of the meter that counts it. */
  knownOf: (meterId: string) => KnownAhead
  instant: string
  today: string
  timeZone: string
}

/** Usage at an instant, counted from the take-over: lives are compared on this scale. */
function usageAt(facts: Facts, at: string): number {
  return usageSinceTakeOver(facts.stretches, at)
}

function clocksOf(facts: Facts) {
  const present: Record<PositionKey, Since> = {}
  for (const life of facts.own) {
    if (life.endedAt !== null) continue
    present[life.position] = {
      usage: usageAt(facts, life.startedAt) - life.carriedUsage,
      day: dayOf(life.carriedFrom ?? life.startedAt, facts.timeZone),
      first: life.first === 1,
      assumed: life.assumed === 1,
    }
  }
  // They come in time order: the last of each stands.
  const done: Record<string, Record<PositionKey, Since>> = {}
  for (const { task, position, at } of facts.done)
    (done[task] ??= {})[position] = {
      usage: usageAt(facts, at),
      day: dayOf(at, facts.timeZone),
      first: false,
      assumed: false,
    }
  const record = { usage: usageAt(facts, facts.instant), today: facts.today, lives: present, done }
  const { model, rules, signs, today, noticeDays } = facts
  const states = dueStates(
    { model, record, rules, signs, use: comingUse(facts) },
    { today, noticeDays, leadTime: (task, positions, day) => facts.leadTime(task.key, positions, day) },
  )
  return { record, clocks: states.map(asView) }
}

/** The use to come of an assembly, in its own hours; null on the shelf. */
function comingUse(facts: Facts): ComingUse | null {
  const now = facts.stretches.at(-1)
  if (!now || now.to !== null || now.share <= 0) return null
  const { share } = now
  const forecast = forecastOf(now.meterId, now.line, facts.today, facts.knownOf(now.meterId))
  return (
    forecast && {
      dayReaching: (hours, probability) => forecast.dayReaching(hours / share, probability),
      perDay: (forecast.weekly / 7) * share,
    }
  )
}

function asView(due: DueState): ClockView {
  const { task, ruled, clock } = due
  return {
    task: task.key,
    name: task.name,
    kind: task.kind,
    where: due.where,
    positions: due.positions,
    state: due.state,
    share: clock.share,
    by: clock.by,
    hoursUsed: clock.hoursUsed,
    daysUsed: clock.daysUsed,
    hoursLimit: clock.hoursLimit,
    daysLimit: clock.daysLimit,
    early: ruled.tolerance.early,
    late: ruled.tolerance.late,
    statedHours: ruled.stated.hours,
    factor: ruled.factor,
    duties: ruled.duties,
    overrideReason: ruled.overrideReason,
    assumed: due.assumed,
    aboutDay: due.dueDay,
    firstBy: due.firstBy,
    band: due.band,
    window: due.window,
    lastResponsibleDay: due.lastResponsibleDay,
    leadTime: due.leadTime,
    noticeDays: due.noticeDays,
    signs: due.signs.map(({ id, version, words, by }) => ({ id, version, words, by })),
    since: { day: due.since.day, usage: due.since.usage, first: due.since.first },
    usageNow: due.usageNow,
    perDay: due.perDay,
  }
}

function gridOf(facts: Facts, present: Record<PositionKey, Since>): Pick<WearView, 'grid' | 'columns'> {
  const { model } = facts
  const shown = model.positions.filter((position) => position.repeat !== null)
  const repeat = shown[0]?.repeat ?? null
  const columns =
    repeat === null ? [] : indicesOf(model, repeat).map((index) => repeatName(model, repeat, index ?? 1))
  const grid = model.zones
    .map((zone) => ({
      zone: zone.name,
      rows: shown
        .filter((position) => position.zone === zone.key && position.repeat === repeat)
        .map((position) => {
          const task = model.tasks.find(
            (each) => each.kind === 'renew' && each.positions.includes(position.key),
          )
          const ruled = task && ruledLimit(task, sortsOf(model, task), facts.rules)
          const cells = instancesOf(model, position).flatMap((key): PositionView[] => {
            const since = present[key]
            if (!since || !task || !ruled) return []
            const used = {
              hours: Math.max(0, usageAt(facts, facts.instant) - since.usage),
              days: daysBetween(since.day, facts.today),
            }
            const clock = clockOf(used, ruled.limit, ruled.tolerance, since.first)
            return [
              {
                position: key,
                used: used.hours,
                limit: clock.hoursLimit,
                state: clock.state,
                early: ruled.tolerance.early,
                assumed: since.assumed,
                was: reachedBefore(facts, key, ruled.limit.hours, ruled.tolerance.early),
              },
            ]
          })
          return { key: position.key, name: position.name, limit: ruled?.limit.hours ?? null, cells }
        }),
    }))
    .filter((zone) => zone.rows.length > 0)
  return { grid, columns }
}

/** What the part before the present one had reached, where it came out before its time. */
function reachedBefore(
  facts: Facts,
  position: PositionKey,
  limit: number | null,
  early: number,
): number | null {
  const last = facts.own.filter((life) => life.position === position && life.endedAt !== null).at(-1)
  if (!last || limit === null || last.endReason === 'moved') return null
  const reached = usageAt(facts, last.endedAt!) - usageAt(facts, last.startedAt) + last.carriedUsage
  return reached < limit * (1 - early) ? reached : null
}
