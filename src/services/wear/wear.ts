import 'server-only'
import { daysBetween } from '@/core/calendar'
import { usageSinceTakeOver, type KnownAhead } from '@/core/hours'
import {
  allPositions,
  indicesOf,
  instancesOf,
  mayRenew,
  positionName,
  repeatName,
  type PositionKey,
  type PumpModel,
} from '@/core/models'
import {
  clockOf,
  bareDueStates,
  withLeadTime,
  ruledLimit,
  sortsOf,
  positionsOf,
  type ComingUse,
  type DueState,
  type ForwardSign,
  type BareDueState,
  type Since,
  type WearRules,
  type ClockView,
  type PositionView,
  type WearView,
} from '@/core/wear'
import { derived, kept } from '@/db/house'
import { assemblies, type AssemblyRow, type MachineRow, machines } from '@/db/fleet'
import { lives, type LifeRow } from '@/db/wear'
import { pumpModelVersions, type PumpModelVersionRow } from '@/db/models'
import { taskRecords, type TaskRecordRow } from '@/db/sheets'
import { type Actor, breathe, ourCompany, present, dayOf } from '../house'
import { loadCounting, type Stretch } from './assemblyLoading'
import { forecastOf, loadKnownFits } from './forecasts'

import { loadLeadTimes, type LeadTimeOf } from '../stores'
import { loadForwardSigns } from '../inspection'
import { loadKnown } from '../hours'
import { loadRules } from './rulesLoading'

/** The clocks of every pump in service whose model is published: worst pump first. */
export async function listWear(_actor: Actor): Promise<WearView[]> {
  const { today } = present(await ourCompany())
  return kept(`wear ${today}`, () => loadWear())
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
  const [view] = await loadWear([assemblyId])
  return view ?? null
}

/** The clocks of some pumps; for what compares them before and after. */
export async function listWearOf(ids: string[]): Promise<WearView[]> {
  return ids.length === 0 ? [] : loadWear(ids)
}

/**
 * The clocks of some pumps, or of all. Each pump's wear is derived for itself from its own rows and the
 * line of its meter, then joined with what the stores lack; one reading makes one pump anew.
 */
async function loadWear(ids?: string[], rulesOf?: (assemblyId: string) => WearRules): Promise<WearView[]> {
  const company = await ourCompany()
  const { instant, today } = present(company)
  const asked = ids && new Set(ids)
  const rows = (await assemblies.every())
    .filter((row) => row.retiredOn === null && row.modelVersionId !== null && (!asked || asked.has(row.id)))
    .sort((a, b) => (a.number < b.number ? -1 : 1))
  const own = rows.map((row) => row.id)
  const [versions, livesOf, doneOf, machineRows, counting] = await Promise.all([
    pumpModelVersions.every(),
    lives.everyOf(own),
    taskRecords.everyOf(own),
    machines.every(),
    loadCounting(own),
  ])
  const [fits, known, rules, leadTimes, signs] = await Promise.all([
    loadKnownFits(),
    loadKnown(undefined, counting.lines),
    rulesOf ?? loadRules(own),
    loadLeadTimes(),
    loadForwardSigns(today),
  ])
  const versionOf = byId(versions)
  const machineOf = byId(machineRows)
  const views: WearView[] = []
  for (const row of rows) {
    await breathe()
    const version = versionOf.get(row.modelVersionId!)
    if (!version) continue
    const { moves, stretches } = counting.of(row.id)
    const place = moves.at(-1)
    const machine = place?.machineId ? machineOf.get(place.machineId) : undefined
    const running = stretches.at(-1)
    const facts: Facts = {
      row,
      version,
      machine,
      yardId: machine?.yardId ?? place?.yardId ?? null,
      rules: rules(row.id),
      signs: signs(row.id),
      noticeDays: company.noticeDays,
      own: livesOf.get(row.id) ?? [],
      done: doneOf.get(row.id) ?? [],
      stretches,
      known: running ? known(place?.machineId ?? '', running.meterId) : null,
      today,
      timeZone: company.timeZone,
    }
    const alone = rulesOf
      ? wearOf(facts, instant, fits)
      : derived(`wear ${row.id}`, Object.values(facts), () => wearOf(facts, instant, fits))
    const join = () => joined(alone, leadTimes.of(version, row.id))
    views.push(rulesOf ? join() : derived(`clocks ${row.id}`, [alone, ...leadTimes.from], join))
  }
  const worst = (view: WearView) => view.clocks[0]?.share ?? 0
  const sorted = () => [...views].sort((a, b) => worst(b) - worst(a))
  return ids ? sorted() : derived('fleet', views, sorted)
}

const byId = <Row extends { id: string }>(rows: Row[]) => new Map(rows.map((row) => [row.id, row]))

type Fits = Awaited<ReturnType<typeof loadKnownFits>>

/** A pump's wear by itself, before it is asked whether its parts are there. */
type Alone = { dues: BareDueState[]; view: Omit<WearView, 'clocks'> }

function wearOf(facts: Facts, instant: string, fits: Fits): Alone {
  const { row, version, machine } = facts
  const model = version.data
  const { dues, record } = duesOf(facts, instant, fits)
  return {
    dues,
    view: {
      assemblyId: row.id,
      number: row.number,
      title: `${model.maker} ${model.name}`,
      serial: row.serial,
      machineNumber: machine?.number ?? null,
      machineName: machine?.name ?? null,
      yardId: facts.yardId,
      unit: row.usageScale,
      modelVersion: version.version,
      modelVersionId: version.id,
      notice: model.notice,
      started: Object.keys(record.lives).length > 0,
      ...gridOf(facts, record.lives, instant),
      ...ofModel(version.id, model),
    },
  }
}

/** What a model says of every pump of its kind; the same for all of them. */
function ofModel(
  versionId: string,
  model: PumpModel,
): Pick<WearView, 'positionNames' | 'tasks' | 'renewals'> {
  return derived(`model ${versionId}`, [model], () => ({
    positionNames: Object.fromEntries(allPositions(model).map((key) => [key, positionName(model, key)])),
    tasks: model.tasks.map(({ key, name, limit, tolerance }) => ({ key, name, limit, tolerance })),
    renewals: model.tasks.filter(mayRenew).map((task) => ({
      task: task.key,
      name: task.name,
      sorts: sortsOf(model, task),
      positions: positionsOf(model, task).map((key) => ({ key, label: positionName(model, key) })),
    })),
  }))
}

function joined({ dues, view }: Alone, leadTime: LeadTimeOf): WearView {
  return {
    clocks: dues.map((due) => asView(withLeadTime(due, leadTime(due.task.key, due.positions, due.wantedOn)))),
    ...view,
  }
}

/** Everything that a pump's wear follows from; what is kept of it stands as long as none is another one. */
type Facts = {
  row: AssemblyRow
  version: PumpModelVersionRow
  machine: MachineRow | undefined
  yardId: string | null
  rules: WearRules
  signs: ForwardSign[]
  noticeDays: number
  own: LifeRow[]
  done: TaskRecordRow[]
  stretches: Stretch[]
  /** What is known of the days to come of the meter that counts it. */
  known: KnownAhead | null
  today: string
  timeZone: string
}

/** Usage at an instant, counted from the take-over: lives are compared on this scale. */
function usageAt(facts: Facts, at: string): number {
  return usageSinceTakeOver(facts.stretches, at)
}

function duesOf(facts: Facts, instant: string, fits: Fits) {
  const { rules, signs, today, noticeDays, timeZone } = facts
  const present: Record<PositionKey, Since> = {}
  for (const life of facts.own) {
    if (life.status !== 'active' || life.endedAt !== null) continue
    present[life.position] = {
      usage: usageAt(facts, life.startedAt) - life.carriedUsage,
      day: dayOf(life.carriedFrom ?? life.startedAt, timeZone),
      first: life.first === 1,
      assumed: life.assumed === 1,
    }
  }
  // The last of each stands.
  const done: Record<string, Record<PositionKey, Since>> = {}
  for (const { task, position, at } of facts.done
    .filter((each) => each.status === 'active')
    .sort((a, b) => (a.at < b.at ? -1 : 1)))
    (done[task] ??= {})[position] = {
      usage: usageAt(facts, at),
      day: dayOf(at, timeZone),
      first: false,
      assumed: false,
    }
  const record = { usage: usageAt(facts, instant), today, lives: present, done }
  const dues = bareDueStates(
    { model: facts.version.data, record, rules, signs, use: comingUse(facts, fits) },
    { today, noticeDays },
  )
  return { record, dues }
}

/** The use to come of an assembly, in its own hours; null on the shelf. */
function comingUse(facts: Facts, fits: Fits): ComingUse | null {
  const now = facts.stretches.at(-1)
  if (!now || now.to !== null || now.share <= 0) return null
  const { share } = now
  const forecast = facts.known && forecastOf(now.meterId, now.line, facts.today, facts.known, fits)
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

function gridOf(
  facts: Facts,
  present: Record<PositionKey, Since>,
  instant: string,
): Pick<WearView, 'grid' | 'columns'> {
  const model = facts.version.data
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
            if (!since) return []
            const used = {
              hours: Math.max(0, usageAt(facts, instant) - since.usage),
              days: daysBetween(since.day, facts.today),
            }
            // What is only renewed where it is bad has a life, and no limit.
            if (!ruled)
              return [
                {
                  position: key,
                  used: used.hours,
                  limit: null,
                  state: 'healthy',
                  early: 0,
                  assumed: since.assumed,
                  was: null,
                },
              ]
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
  const last = facts.own
    .filter((life) => life.status === 'active' && life.position === position && life.endedAt !== null)
    .sort((x, y) => (x.startedAt < y.startedAt ? -1 : 1))
    .at(-1)
  if (!last || limit === null || last.endReason === 'moved') return null
  const reached = usageAt(facts, last.endedAt!) - usageAt(facts, last.startedAt) + last.carriedUsage
  return reached < limit * (1 - early) ? reached : null
}
