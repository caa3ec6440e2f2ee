import 'server-only'
import { visitNumber, type VisitItem } from '@/core/plan'
import { conflict, invalid, notFound, problemOf, check } from '@/core/problem'
import { offersFor, recomposeSheet, type Offer } from '@/core/composing'
import { positionName } from '@/core/models'
import {
  moreWorkSchema,
  sheetState,
  wayBegun,
  type MoreWorkInput,
  type SheetContent,
  type SheetState,
  type MoreWork,
} from '@/core/sheets'
import { whereWords } from '@/core/wear'
import { write } from '@/db/house'
import { pumpModelVersions } from '@/db/models'
import { sheets, type SheetRow } from '@/db/sheets'
import { visits } from '@/db/plan'
import { requirePermission, type Actor, recordChange, now, editRow } from '../../house'
import { jobsOf, unitsOf } from '../../composing'
import { companyPractices } from '../../practices'
import { contentFrom } from '../content'
import { appendOwn, entriesOf } from '../sheets'

/** What could be done besides on an open sheet: what the open pump makes cheap comes first. */
export async function offersOn(_actor: Actor, sheetId: string): Promise<MoreWork[]> {
  const { content } = await openSheet(sheetId)
  const items = await itemsOf(content)
  const practices = await companyPractices()
  const jobs = jobsOf(items, await unitsOf(items))
  return offersFor({ assemblies: jobs }, practices).flatMap((offer: Offer): MoreWork[] => {
    const job = jobs.find((each) => each.id === offer.assemblyId)
    const task = job?.model.tasks.find((each) => each.key === offer.task)
    const pump = content.assemblies.find((each) => each.id === offer.assemblyId)
    if (!job || !task || !pump) return []
    return [
      {
        ...offer,
        pump: pump.number,
        positions: offer.positions.map((key) => ({ key, name: positionName(job.model, key) })),
        ways: task.paths.map(({ key, name }) => ({ key, name })),
      },
    ]
  })
}

/**
 * Adds work that was found on the way, or changes the way of doing what is not begun. What is done stays
 * done; the rest is composed anew, with parts and minutes. The visit grows with it, and its coordinator
 * reads it there and in the audit trail.
 *
 * @throws `conflict` where the sheet is closed or has moved on, `invalid` for what the model does not have
 */
export async function addWork(actor: Actor, input: MoreWorkInput): Promise<void> {
  requirePermission(actor, 'sheets.work')
  const { sheetId, seenUpTo, items: asked, reason } = check(moreWorkSchema, input)
  await write(async () => {
    const { row, state, content } = await openSheet(sheetId)
    if (state.upTo > seenUpTo)
      throw conflict('Something new has come in on this sheet since you looked. Look at it again.')
    const before = await itemsOf(content)
    const versionOf = (assemblyId: string) =>
      content.assemblies.find((each) => each.id === assemblyId)?.modelVersionId
    const more = asked.map((item): VisitItem => {
      const modelVersionId = versionOf(item.assemblyId)
      if (!modelVersionId) throw invalid({ items: 'This pump is not on this sheet.' })
      return { ...item, modelVersionId }
    })
    const begun = more.find(
      (item) => item.path && changesWay(before, item) && wayBegun(state, item, item.path),
    )
    if (begun) throw conflict('This is begun in the other way already: finish it like that, or take it back.')
    const items = merged(before, more)
    const [units, practices] = await Promise.all([unitsOf(items), companyPractices()])
    const { models } = units
    const recomposed = recompose(state, { assemblies: jobsOf(items, units) }, practices)
    const fresh = await contentFrom(recomposed, {
      place: row,
      items,
      trigger: content.trigger,
      trouble: content.trouble,
    })
    const services = more
      .map((item) => {
        const task = models.get(item.modelVersionId)?.tasks.find((each) => each.key === item.task)
        const model = models.get(item.modelVersionId)!
        const way = task?.paths.find((each) => each.key === item.path)
        return [task?.name ?? item.task, whereWords(model, item.positions), way?.name ?? '']
          .filter(Boolean)
          .join(', ')
      })
      .join('; ')
    const minutes = fresh.minutes - content.minutes
    const next: SheetContent = {
      ...fresh,
      // What opening once more destroys again is needed on top.
      parts: withAgain(fresh.parts, recomposed.again),
      meters: content.meters,
      extra: [...(content.extra ?? []), { services, reason, minutes, at: now(), byName: actor.name }],
    }
    await appendOwn(actor, sheetId, 'composed', next)
    await tellVisit(actor, row, items, { services, reason, minutes, total: fresh.minutes })
  })
}

async function openSheet(
  sheetId: string,
): Promise<{ row: SheetRow; state: SheetState; content: SheetContent }> {
  const row = await sheets.byId(sheetId)
  if (!row) throw notFound('This sheet')
  if (row.state !== 'open') throw conflict('This sheet is closed already.')
  const state = sheetState(await entriesOf(sheetId))!
  return { row, state, content: state.content }
}

/** What a sheet was composed for; of one opened before that was kept, what its tasks tell. */
async function itemsOf(content: SheetContent): Promise<VisitItem[]> {
  if (content.items) return content.items
  const rows = await pumpModelVersions.all({ id: content.assemblies.map((each) => each.modelVersionId) })
  return content.assemblies.flatMap(({ id, modelVersionId, tasks }) =>
    tasks
      .filter((task) => !task.disturbed && rows.some((row) => row.id === modelVersionId))
      .map(({ task, positions, way }) => ({
        assemblyId: id,
        modelVersionId,
        task,
        path: way ?? null,
        positions,
      })),
  )
}

/** What was chosen with what is added: a position is done in one way, the one that was said last. */
function merged(before: VisitItem[], more: VisitItem[]): VisitItem[] {
  const kept = before
    .map((item) => {
      const others = more.filter(
        (each) => each.assemblyId === item.assemblyId && each.task === item.task && each.path,
      )
      return {
        ...item,
        positions: item.positions.filter(
          (position) => !others.some((each) => each.positions.includes(position)),
        ),
      }
    })
    .filter((item) => item.positions.length > 0)
  return [...kept, ...more]
}

function changesWay(before: VisitItem[], item: VisitItem): boolean {
  return before.some(
    (each) =>
      each.assemblyId === item.assemblyId &&
      each.task === item.task &&
      each.positions.some((position) => item.positions.includes(position)) &&
      (each.path ?? null) !== item.path,
  )
}

function recompose(
  state: SheetState,
  input: Parameters<typeof recomposeSheet>[2],
  practices: Parameters<typeof recomposeSheet>[3],
): ReturnType<typeof recomposeSheet> {
  const settled = new Set(
    state.steps.filter(({ state: is }) => is === 'done' || is === 'skipped').map(({ step }) => step.key),
  )
  try {
    return recomposeSheet(
      state.steps.map(({ step }) => step),
      (key) => settled.has(key),
      input,
      practices,
    )
  } catch (error) {
    const problem = problemOf(error)
    throw problem?.kind === 'invalid' ? invalid({ items: problem.message }) : error
  }
}

function withAgain(parts: SheetContent['parts'], again: SheetContent['parts']): SheetContent['parts'] {
  return parts.map((need) => {
    const more = again.find((each) => each.assemblyId === need.assemblyId && each.part === need.part)
    return more ? { ...need, quantity: Math.round((need.quantity + more.quantity) * 1e6) / 1e6 } : need
  })
}

async function tellVisit(
  actor: Actor,
  row: SheetRow,
  items: VisitItem[],
  { services, reason, minutes, total }: { services: string; reason: string; minutes: number; total: number },
): Promise<void> {
  const around = { machineId: row.machineId, assemblyId: row.assemblyIds[0] ?? null }
  const summary = `Sheet ${visitNumber(row.number)}, work added on the way: ${services} (${minutes >= 0 ? '+' : '−'}${Math.abs(Math.round(minutes))} min)`
  const visit = row.visitId ? await visits.byId(row.visitId) : null
  if (!visit) {
    await recordChange(actor, {
      entity: 'sheet',
      entityId: row.id,
      ...around,
      action: 'extended',
      summary,
      reason,
    })
    return
  }
  await editRow(
    actor,
    visits,
    { entity: 'visit', name: `visit ${visitNumber(visit.number)}` },
    visit,
    { items, minutes: Math.round(total) },
    { ...around, action: 'extended', summary, reason },
  )
}
