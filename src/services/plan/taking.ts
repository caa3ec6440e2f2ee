import 'server-only'
import { v5 as uuidFrom } from 'uuid'
import { isOpen, takeSchema, visitNumber, type TakeInput } from '@/core/plan'
import { showDay } from '@/core/calendar'
import { check, conflict, invalid, notFound } from '@/core/problem'
import { write } from '@/db/house'
import { sheets } from '@/db/sheets'
import { visits, type VisitRow } from '@/db/plan'
import { editRow, requirePermission, type Actor } from '../house'
import { composeOrRefuse, placeAndItems, unitsOf } from '../composing'
import { companyPractices } from '../practices'
import { pouredOn, winterMinutes } from '../winter'
import {
  bookVisit,
  cancelVisit,
  requireDayToCome,
  requireHelpers,
  requireLead,
  requireNotBooked,
  requireNoWinter,
  restoreVisit,
  without,
} from './booking'

/**
 * Takes what a plan proposes, all of it or nothing: visits moved, given other services or newly booked, and those
 * cancelled whose services they take over. Whoever changed one of them meanwhile is met with a conflict.
 *
 * @returns how many visits it touched, and the act that takes it back
 * @throws `conflict` where a visit is not as it was read; nothing is changed then
 */
export async function takePlan(actor: Actor, input: TakeInput): Promise<{ taken: number; back: TakeInput }> {
  requirePermission(actor, 'visits.plan')
  const { id, visits: wanted, cancel, restore, takesBack } = check(takeSchema, input)
  return write(async () => {
    const back: TakeInput = { id: uuidFrom('back', id), visits: [], cancel: [], restore: [], takesBack: true }
    const gone = new Set(cancel.map((each) => each.id))
    for (const each of cancel) {
      const row = await known(each.id)
      await cancelVisit(actor, { ...each, reason: 'Its services are on another visit' })
      back.restore.push({ id: each.id, version: row.version + 1 })
    }
    // First everything lets go of what it gives away, so that two visits may exchange services.
    const giving = wanted.flatMap(({ visitId }) => (visitId === null ? [] : [visitId]))
    for (const [at, each] of wanted.entries()) {
      if (each.visitId === null) {
        const bookedId = uuidFrom(`${at}`, id)
        if (each.items.length > 0) await requireNotBookedBut(each.items, [...giving, ...gone])
        const input = {
          id: bookedId,
          items: each.items,
          winter: each.winter ?? '',
          machineId: each.machineId ?? null,
          ...{ day: each.day, startTime: '', leadId: each.leadId, note: '', helpers: each.helpers ?? [] },
        }
        await bookVisit(actor, input, giving)
        back.cancel.push({ id: bookedId, version: 1 })
        continue
      }
      const row = await known(each.visitId)
      back.visits.push({
        ...{ visitId: row.id, version: row.version + 1, day: row.day, leadId: row.leadId },
        ...{ helpers: row.helperIds ?? [], winter: row.winter },
        items: row.items.map(({ assemblyId, task, positions }) => ({ assemblyId, task, positions })),
      })
      if (each.day !== row.day && !takesBack) await requireDayToCome(each.day)
      await rewriteVisit(actor, row, { ...each, version: each.version ?? 0 }, giving)
    }
    // What was let go of is taken by one only: looked at once all of it stands.
    for (const visitId of [...giving, ...back.cancel.map((each) => each.id)])
      await requireNotBooked((await known(visitId)).items, [visitId])
    // Last: what they held is theirs again only now.
    for (const each of restore) await restoreVisit(actor, each)
    return { taken: wanted.length + cancel.length + restore.length, back }
  })
}

async function known(id: string): Promise<VisitRow> {
  const row = await visits.byId(id)
  if (!row) throw notFound('This visit')
  return row
}

async function requireNotBookedBut(
  asked: TakeInput['visits'][number]['items'],
  but: string[],
): Promise<void> {
  const { items } = await placeAndItems(asked)
  await requireNotBooked(items, but)
}

/** Gives a visit another day, technician and services; its minutes are composed anew. */
async function rewriteVisit(
  actor: Actor,
  row: VisitRow,
  wanted: Pick<TakeInput['visits'][number], 'day' | 'leadId' | 'helpers' | 'winter' | 'items'> & {
    version: number
  },
  giving: string[],
): Promise<void> {
  if (!isOpen(row.state)) throw conflict(`Visit ${visitNumber(row.number)} is over or cancelled; plan anew.`)
  if (row.state === 'approved')
    throw conflict(`Visit ${visitNumber(row.number)} is approved: take the approval back first.`)
  const sheet = await sheets.find({ visitId: row.id, state: ['open', 'signed'] })
  if (sheet)
    throw conflict(
      `Sheet ${visitNumber(sheet.number)} was opened for visit ${visitNumber(row.number)}; plan anew.`,
    )
  await requireLead(wanted.leadId)
  const helpers = wanted.helpers ?? without(row.helperIds, wanted.leadId) ?? []
  await requireHelpers(helpers, wanted.leadId)
  const winter = wanted.winter ?? row.winter
  if (wanted.items.length === 0 && winter === '') throw invalid({ items: 'Choose at least one service.' })
  if (winter !== '' && row.winter === '') await requireNoWinter(row.machineId!, winter)
  const { items: asked, place } =
    wanted.items.length === 0
      ? { items: [], place: { machineId: row.machineId } }
      : await placeAndItems(wanted.items)
  if (place.machineId !== row.machineId)
    throw conflict(`A pump of visit ${visitNumber(row.number)} is on another machine now; plan anew.`)
  // The way of doing a service that was chosen when it was booked stays chosen.
  const items = asked.map((item) => {
    const before = row.items.find(
      ({ assemblyId, task }) => assemblyId === item.assemblyId && task === item.task,
    )
    return before ? { ...item, path: before.path, modelVersionId: before.modelVersionId } : item
  })
  await requireNotBooked(items, giving)
  const sheetOf = composeOrRefuse(items, await unitsOf(items), await companyPractices())
  const minutes = sheetOf.minutes + (winter === '' ? 0 : await winterMinutes(row.machineId!, winter))
  await editRow(
    actor,
    visits,
    { entity: 'visit', name: `visit ${visitNumber(row.number)}` },
    { id: row.id, version: wanted.version },
    {
      ...{ day: wanted.day, leadId: wanted.leadId, items, minutes: Math.round(minutes) },
      helperIds: helpers.length > 0 ? helpers : null,
      winter,
      extraParts: winter === 'lay' ? (row.extraParts ?? (await pouredOn(row.machineId!))) : null,
    },
    {
      machineId: row.machineId,
      assemblyId: items[0]?.assemblyId ?? null,
      action: 'changed',
      summary: `Visit ${visitNumber(row.number)} planned anew for ${showDay(wanted.day)}`,
    },
  )
}
