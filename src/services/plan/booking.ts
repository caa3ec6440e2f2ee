import 'server-only'
import {
  bookingSchema,
  cancelSchema,
  isOpen,
  visitChangeSchema,
  visitNumber,
  type BookingInput,
  type CancelInput,
  type VisitChangeInput,
  type VisitItem,
} from '@/core/plan'
import { showDay } from '@/core/calendar'
import { conflict, invalid, notFound, check, referenceSchema, type Reference } from '@/core/problem'
import { write } from '@/db/house'
import { people } from '@/db/access'
import { machines } from '@/db/fleet'
import { sheets } from '@/db/sheets'
import { visits, type VisitRow } from '@/db/plan'
import { requirePermission, type Actor, recordChange, now, ourCompany, present, editRow } from '../house'
import { companyPractices } from '../practices'
import { composeOrRefuse, placeAndItems, unitsOf } from '../composing'
import { pouredOn, winterMinutes } from '../winter'
import { asLines, openStates } from './visits'

/**
 * Books a visit: some services of the pumps of one machine, or of one pump on a shelf, on a day for a
 * technician. Its minutes are composed, with the shared way in counted once.
 *
 * @param giving visits that give its services away in the same act
 * @throws `invalid` beside the field; `conflict` where one of the services is booked already
 */
export async function bookVisit(
  actor: Actor,
  input: BookingInput,
  giving: readonly string[] = [],
): Promise<{ number: string }> {
  requirePermission(actor, 'visits.plan')
  const {
    id,
    items: asked,
    winter = '',
    machineId = null,
    helpers = [],
    ...when
  } = check(bookingSchema, input)
  return write(async () => {
    const repeated = await visits.byId(id)
    if (repeated) return { number: visitNumber(repeated.number) }
    await requireDayToCome(when.day)
    await requireLead(when.leadId)
    await requireHelpers(helpers, when.leadId)
    const { items, place } =
      asked.length === 0 ? { items: [], place: await wholeMachine(machineId) } : await placeAndItems(asked)
    if (winter !== '' && place.machineId !== machineId)
      throw invalid({ items: 'These services are not on the machine of this visit.' })
    if (winter !== '') await requireNoWinter(place.machineId!, winter)
    const sheet = composeOrRefuse(items, await unitsOf(items), await companyPractices())
    await requireNotBooked(items, giving)
    const number = await nextVisitNumber()
    const row: VisitRow = {
      id,
      number,
      ...place,
      day: when.day,
      startTime: when.startTime || null,
      minutes: Math.round(
        sheet.minutes + (winter === '' ? 0 : await winterMinutes(place.machineId!, winter)),
      ),
      leadId: when.leadId,
      state: 'booked',
      items,
      note: when.note,
      endReason: '',
      winter,
      extraParts: winter === 'lay' ? await pouredOn(place.machineId!) : null,
      helperIds: helpers.length > 0 ? helpers : null,
      ...{ pinned: 0, approvedById: null, approvedAt: null },
      createdAt: now(),
      version: 1,
    }
    await visits.insert(row)
    await recordChange(actor, {
      entity: 'visit',
      entityId: id,
      entityVersion: 1,
      machineId: place.machineId,
      assemblyId: items[0]?.assemblyId ?? null,
      action: 'booked',
      summary: `Visit ${visitNumber(number)} booked for ${showDay(when.day)}: ${(await asLines([row]))[0]!.services.map(({ name }) => name).join(', ')}`,
      after: row,
    })
    return { number: visitNumber(number) }
  })
}

export async function changeVisit(actor: Actor, input: VisitChangeInput): Promise<void> {
  requirePermission(actor, 'visits.plan')
  const { id, version, ...values } = check(visitChangeSchema, input)
  await write(async () => {
    const row = await visits.byId(id)
    if (!row) throw notFound('This visit')
    if (!isOpen(row.state)) throw conflict('This visit is over or cancelled; book a new one.')
    if (values.day !== row.day) await requireDayToCome(values.day)
    await requireLead(values.leadId)
    const what = { entity: 'visit', name: `visit ${visitNumber(row.number)}` }
    await editRow(
      actor,
      visits,
      what,
      { id, version },
      {
        ...values,
        startTime: values.startTime || null,
        // What was approved was this day and this technician.
        ...(row.state === 'approved' &&
          (values.day !== row.day || values.leadId !== row.leadId) && { state: 'booked', ...notApproved }),
        ...(values.leadId !== row.leadId && { helperIds: without(row.helperIds, values.leadId) }),
      },
      {
        machineId: row.machineId,
        assemblyId: row.items[0]?.assemblyId ?? null,
        action: 'changed',
        summary: `Visit ${visitNumber(row.number)} changed`,
      },
    )
  })
}

export async function cancelVisit(actor: Actor, input: CancelInput): Promise<void> {
  requirePermission(actor, 'visits.plan')
  const { id, version, reason } = check(cancelSchema, input)
  await write(async () => {
    const sheet = await sheets.find({ visitId: id, state: ['open', 'signed'] })
    if (sheet)
      throw conflict(
        `Sheet ${visitNumber(sheet.number)} was opened for this visit: sign it or give it up there.`,
      )
    await setState(actor, { id, version }, { state: 'cancelled', endReason: reason }, 'cancelled', reason)
  })
}

/** Takes a cancelling back, unless its services were booked again meanwhile. */
export async function restoreVisit(actor: Actor, asked: Reference): Promise<void> {
  requirePermission(actor, 'visits.plan')
  const input = check(referenceSchema, asked)
  // In one write: nobody can book these services between looking and restoring.
  await write(async () => {
    const row = await visits.byId(input.id)
    if (row && row.state !== 'cancelled')
      throw conflict(`Visit ${visitNumber(row.number)} is not cancelled: there is nothing to take back.`)
    if (row) await requireNotBooked(row.items)
    await setState(actor, input, { state: 'booked', endReason: '' }, 'booked again', '')
  })
}

async function setState(
  actor: Actor,
  read: { id: string; version: number },
  values: Partial<VisitRow>,
  verb: string,
  reason: string,
): Promise<void> {
  await write(async () => {
    const row = await visits.byId(read.id)
    if (!row) throw notFound('This visit')
    await editRow(
      actor,
      visits,
      { entity: 'visit', name: `visit ${visitNumber(row.number)}` },
      read,
      values,
      {
        machineId: row.machineId,
        assemblyId: row.items[0]?.assemblyId ?? null,
        action: values.state ?? 'changed',
        summary: `Visit ${visitNumber(row.number)} ${verb}`,
        reason,
      },
    )
  })
}

async function wholeMachine(machineId: string | null): Promise<{ machineId: string; assemblyId: null }> {
  const machine = machineId === null ? null : await machines.byId(machineId)
  if (!machine || machine.retiredOn !== null) throw invalid({ machineId: 'Choose a machine that is in use.' })
  return { machineId: machine.id, assemblyId: null }
}

export async function requireNoWinter(machineId: string, winter: VisitRow['winter']): Promise<void> {
  const again = (await visits.all({ machineId, state: openStates })).find((visit) => visit.winter === winter)
  if (again)
    throw conflict(
      `Visit ${visitNumber(again.number)} does this already, on ${showDay(again.day)}. Change that one instead.`,
    )
}

export async function requireDayToCome(day: string): Promise<void> {
  if (day < present(await ourCompany()).today) throw invalid({ day: 'This day has passed.' })
}

/** Who helps is of the crew, and is not the lead. */
export async function requireHelpers(helperIds: readonly string[], leadId: string): Promise<void> {
  if (new Set([leadId, ...helperIds]).size < helperIds.length + 1)
    throw invalid({ helpers: 'Somebody is named twice on this visit.' })
  for (const id of helperIds) await requireLead(id, 'helpers')
}

/** A visit that nobody has approved, or not as it is now. */
export const notApproved = { approvedById: null, approvedAt: null }

export const without = (ids: readonly string[] | null, id: string): string[] | null =>
  ids?.filter((each) => each !== id) ?? null

export async function requireLead(personId: string, field: 'leadId' | 'helpers' = 'leadId'): Promise<void> {
  const person = await people.byId(personId)
  if (!person || person.retiredOn || person.role === 'viewer')
    throw invalid({ [field]: 'Choose a technician from the list.' })
}

/** @param but visits that give these services away in the same act */
export async function requireNotBooked(items: VisitItem[], but: readonly string[] = []): Promise<void> {
  const open = (await visits.all({ state: openStates })).filter(({ id }) => !but.includes(id))
  for (const visit of open) {
    const again = visit.items.find((booked) =>
      items.some(
        (item) =>
          item.assemblyId === booked.assemblyId &&
          item.task === booked.task &&
          item.positions.some((position) => booked.positions.includes(position)),
      ),
    )
    if (again)
      throw conflict(
        `One of these services is on visit ${visitNumber(visit.number)} already, on ${showDay(visit.day)}. Change that one instead.`,
      )
  }
}

async function nextVisitNumber(): Promise<number> {
  const [last] = await visits.all({}, [['number', 'DESC']], 1)
  return (last?.number ?? 0) + 1
}
