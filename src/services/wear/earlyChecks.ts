import 'server-only'
import { v7 as uuid } from 'uuid'
import { addDays } from '@/core/calendar'
import { usageSinceTakeOver } from '@/core/hours'
import { earlyCheckSchema, firstChecks, type EarlyCheckInput, type EarlyCheckView } from '@/core/inspection'
import { visitNumber } from '@/core/plan'
import { conflict, check } from '@/core/problem'
import type { SheetContent, SheetState } from '@/core/sheets'
import { kept, keptEach, same, write } from '@/db/house'
import { assemblies, machines } from '@/db/fleet'
import { lives } from '@/db/wear'
import { people } from '@/db/access'
import { sheetEntries, sheets } from '@/db/sheets'
import { earlyChecks, type EarlyCheckRow } from '@/db/inspection'
import {
  requirePermission,
  type Actor,
  now,
  ourCompany,
  present,
  dayOf,
  editRow,
  requireFresh,
} from '../house'
import { loadCounting } from './assemblyLoading'
import { forecastOf, loadKnownFits } from './forecasts'
import { reportSign } from '../inspection'
import { loadKnown } from '../hours'

const servicedAgain = 'serviced again before anybody had looked'

/** Early checks that are still to be done, in the order of their services. */
export async function listOpenChecks(_actor: Actor): Promise<EarlyCheckView[]> {
  const { today } = present(await ourCompany())
  const views = await kept(`open checks ${today}`, async () =>
    asViews(await earlyChecks.all({ status: 'open' }, [['at', 'ASC']])),
  )
  return same('open checks', views)
}

/** The early checks of one pump, newest first. */
export async function checksOf(_actor: Actor, assemblyId: string): Promise<EarlyCheckView[]> {
  return asViews(await earlyChecks.all({ assemblyId }, [['at', 'DESC']]))
}

/**
 * Sets an early check for every pump on which a signed sheet renewed something. A check still open from
 * the service before is left behind by the new one. Called inside the signing's own transaction.
 */
export async function setEarlyChecks(
  actor: Actor,
  sheetId: string,
  at: string,
  state: SheetState,
  afterHours: number,
): Promise<number> {
  const renewed = new Set(
    state.positions.filter((each) => each.state === 'renewed').map((each) => each.assemblyId),
  )
  await checkPumps(actor, sheetId, at, [...renewed], afterHours)
  return renewed.size
}

/** The same for pumps that are looked at again for another reason, such as a winter that they stood through. */
export async function checkPumps(
  actor: Actor,
  sheetId: string,
  at: string,
  assemblyIds: string[],
  afterHours: number,
): Promise<void> {
  for (const assemblyId of assemblyIds) {
    await earlyChecks.update(
      { assemblyId, status: 'open' },
      {
        // Nobody looked, so nothing is said to be well.
        status: 'dropped',
        words: servicedAgain,
        doneAt: now(),
        doneById: actor.id,
        endSheetId: sheetId,
      },
    )
    await earlyChecks.insert({
      id: uuid(),
      sheetId,
      assemblyId,
      at,
      afterHours,
      status: 'open',
      words: '',
      doneAt: null,
      doneById: null,
      endSheetId: null,
      recordedAt: now(),
      recordedById: actor.id,
      version: 1,
    })
  }
}

/**
 * What a sheet had set and ended, looked at again after it was corrected: a check that it set falls away
 * once nothing on that pump was renewed, and one that it ended stands again where what ended it is not
 * so. Called inside the correction.
 */
export async function reviseEarlyChecks(
  actor: Actor,
  sheet: { id: string; number: number; machineId: string | null },
  assemblyId: string,
): Promise<void> {
  const [ended, begun, failed] = await Promise.all([
    earlyChecks.all({ assemblyId, endSheetId: sheet.id }),
    lives.count({ assemblyId, sheetId: sheet.id, status: 'active' }),
    lives.all({ assemblyId, endSheetId: sheet.id, endReason: 'failed', status: 'active' }),
  ])
  const what = { entity: 'earlyCheck', name: 'this early check' }
  const told = (summary: string) => ({
    machineId: sheet.machineId,
    assemblyId,
    action: 'checked',
    summary,
    reason: `Sheet ${visitNumber(sheet.number)} was corrected`,
  })
  for (const row of ended) {
    // One that was answered by a part that failed stands as long as such a part does.
    const answered = failed.some((life) => life.sheetId === row.sheetId)
    if (row.status === 'found' ? answered : begun > 0) continue
    const leftBehind = begun > 0 && { status: 'dropped' as const, words: servicedAgain }
    await editRow(
      actor,
      earlyChecks,
      what,
      row,
      leftBehind || { status: 'open', words: '', doneAt: null, doneById: null, endSheetId: null },
      told(
        leftBehind
          ? 'Early check: no part failed after all'
          : 'Early check open again: what had ended it was not so after all',
      ),
    )
  }
  if (begun > 0) return
  for (const row of await earlyChecks.all({ assemblyId, sheetId: sheet.id, status: 'open' }))
    await editRow(
      actor,
      earlyChecks,
      what,
      row,
      { status: 'dropped', words: 'nothing was renewed after all', doneAt: now(), doneById: actor.id },
      told('Early check dropped: nothing was renewed after all'),
    )
}

/**
 * Links parts that failed within the hours of an early check to the service they were fitted on: that
 * check has its answer, and it points to the service, not to the part. Called inside the signing, or
 * inside a correction that says so later.
 */
export async function linkFailures(
  actor: Actor,
  sheet: { id: string; number: number; machineId: string | null },
  ended: { assemblyId: string; position: string; endReason: string; reached?: number | null }[],
): Promise<void> {
  const failed = ended.filter((each) => each.endReason === 'failed')
  for (const assemblyId of new Set(failed.map((each) => each.assemblyId))) {
    const fitted = await lives.all({ assemblyId, endSheetId: sheet.id })
    const open = await earlyChecks.all({ assemblyId, status: 'open' })
    const leftBehind = await earlyChecks.all({ assemblyId, status: 'dropped', endSheetId: sheet.id })
    for (const row of [...open, ...leftBehind]) {
      const early = failed.filter(
        (each) =>
          each.assemblyId === assemblyId &&
          (each.reached ?? Infinity) <= row.afterHours &&
          fitted.some((life) => life.position === each.position && life.sheetId === row.sheetId),
      )
      if (early.length === 0) continue
      const service = await sheets.byId(row.sheetId)
      const reached = Math.round((early[0]!.reached ?? 0) * 10) / 10
      const what = early.length === 1 ? 'A part' : `${early.length} parts`
      const words = `${what} failed ${reached} h after this service: sheet ${visitNumber(sheet.number)}`
      await editRow(
        actor,
        earlyChecks,
        { entity: 'earlyCheck', name: 'this early check' },
        row,
        { status: 'found', words, doneAt: now(), doneById: actor.id, endSheetId: sheet.id },
        {
          machineId: sheet.machineId,
          assemblyId,
          action: 'checked',
          summary: `Early check after sheet ${visitNumber(service?.number ?? 0)} found: ${words}. It points to the service, not to the part.`,
        },
      )
    }
  }
}

/** Closes an early check; what it found becomes a sign that names the service it followed. */
export async function recordEarlyCheck(actor: Actor, input: EarlyCheckInput): Promise<void> {
  requirePermission(actor, 'signs.report')
  const { id, version, result, words, symptom } = check(earlyCheckSchema, input)
  await write(async () => {
    const what = { entity: 'earlyCheck', name: 'this early check' }
    const row = await requireFresh(earlyChecks, what, { id, version })
    if (row.status !== 'open') throw conflict('This check was recorded meanwhile.')
    const sheet = await sheets.byId(row.sheetId)
    const number = sheet ? visitNumber(sheet.number) : ''
    await editRow(
      actor,
      earlyChecks,
      what,
      { id, version },
      { status: result, words, doneAt: now(), doneById: actor.id },
      {
        machineId: sheet?.machineId ?? null,
        assemblyId: row.assemblyId,
        action: 'checked',
        summary:
          result === 'good'
            ? `Early check after sheet ${number}: all well${words ? `; ${words}` : ''}`
            : `Early check after sheet ${number} found: ${words}`,
      },
    )
    if (result === 'good' || symptom === '') return
    const { today } = present(await ourCompany())
    const { withinDays } = firstChecks({ symptom, dripsPerMinute: null, flow: null }, null)
    await reportSign(actor, {
      id: uuid(),
      machineId: null,
      assemblyId: row.assemblyId,
      symptom,
      seenOn: today,
      words,
      dripsPerMinute: null,
      flow: null,
      task: '',
      positions: [],
      by: addDays(today, withinDays),
      sheetId: row.sheetId,
    })
  })
}

/** What was done on some sheets, by pump, in words: what they were composed into is long and is read once. */
function servicesOn(sheetIds: string[]): Promise<Map<string, Map<string, string>>> {
  return keptEach('services of sheets', sheetIds, ['sheet_entries'], async (ids) => {
    const composed = await sheetEntries.all({ sheetId: ids, kind: 'composed' }, [['sequence', 'ASC']])
    return new Map(
      composed.map(({ sheetId, payload }) => [
        sheetId,
        new Map(
          (payload as SheetContent).assemblies.map(({ id, tasks }) => [
            id,
            tasks.map(({ name, where }) => [name, where].filter(Boolean).join(', ')).join('; '),
          ]),
        ),
      ]),
    )
  })
}

async function asViews(rows: EarlyCheckRow[]): Promise<EarlyCheckView[]> {
  if (rows.length === 0) return []
  const ids = [...new Set(rows.map((row) => row.assemblyId))]
  const sheetIds = rows.map((row) => row.sheetId)
  const [pumps, counting, sheetRows, services, machineRows, names, company] = await Promise.all([
    assemblies.all({ id: ids }),
    loadCounting(ids),
    sheets.all({ id: sheetIds }),
    servicesOn(sheetIds),
    machines.every(),
    people.every(),
    ourCompany(),
  ])
  const [known, fits] = await Promise.all([loadKnown(undefined, counting.lines), loadKnownFits()])
  const { instant, today } = present(company)
  return rows.flatMap((row): EarlyCheckView[] => {
    const pump = pumps.find((each) => each.id === row.assemblyId)
    const sheet = sheetRows.find((each) => each.id === row.sheetId)
    if (!pump || !sheet) return []
    const { moves, stretches } = counting.of(row.assemblyId)
    const place = moves.at(-1)
    const machine = machineRows.find((each) => each.id === place?.machineId)
    const worked = usageSinceTakeOver(stretches, instant) - usageSinceTakeOver(stretches, row.at)
    const left = row.afterHours - worked
    const running = stretches.at(-1)
    const forecast =
      running && running.to === null && running.share > 0
        ? forecastOf(
            running.meterId,
            running.line,
            today,
            known(place?.machineId ?? '', running.meterId),
            fits,
          )
        : null
    return [
      {
        id: row.id,
        version: row.version,
        assemblyId: row.assemblyId,
        pump: pump.number,
        machineNumber: machine?.number ?? null,
        machineName: machine?.name ?? null,
        yardId: machine?.yardId ?? place?.yardId ?? null,
        unit: pump.usageScale,
        sheet: { id: sheet.id, number: visitNumber(sheet.number) },
        workedOn: dayOf(row.at, company.timeZone),
        services: services.get(row.sheetId)?.get(row.assemblyId) ?? '',
        afterHours: row.afterHours,
        worked: Math.max(0, worked),
        aboutDay:
          !forecast || !running
            ? left <= 0
              ? today
              : null
            : left > 0
              ? forecast.dayReaching(left / running.share, 0.5)
              : dayPassed(
                  left,
                  (forecast.weekly / 7) * running.share,
                  today,
                  dayOf(row.at, company.timeZone),
                ),
        result:
          row.status === 'open'
            ? null
            : {
                kind: row.status,
                words: row.words,
                by: names.find((person) => person.id === row.doneById)?.name ?? '',
                day: dayOf(row.doneAt!, company.timeZone),
              },
      },
    ]
  })
}

/** About when hours were reached that lie behind, at the present use; never before the service itself. */
function dayPassed(left: number, perDay: number, today: string, served: string): string {
  const day = perDay > 0 ? addDays(today, Math.round(left / perDay)) : today
  return day < served ? served : day
}
