import 'server-only'
import { addDays, showDay } from '@/core/calendar'
import {
  handSchema,
  snoozeSchema,
  type HandInput,
  type Mark,
  type MarkedAs,
  type Marking,
  type SnoozeInput,
} from '@/core/plan'
import { invalid, notFound, check, idSchema } from '@/core/problem'
import { kept, write } from '@/db/house'
import { marks, type MarkRow } from '@/db/plan'
import { people } from '@/db/access'
import { requirePermission, type Actor, recordChange, now, ourCompany, present, dayOf } from '../house'

/** Nothing is put off for longer than this at a time, in days. */
const longest = 60

/** What was put off and is not due again yet, and what was handed to somebody. */
export async function listMarks(_actor: Actor): Promise<Mark[]> {
  const { today } = present(await ourCompany())
  return kept(`marks ${today}`, () => loadMarks(today))
}

async function loadMarks(today: string): Promise<Mark[]> {
  const [rows, names, company] = await Promise.all([
    marks.all({ status: 'active' }, [['recordedAt', 'ASC']]),
    people.every(),
    ourCompany(),
  ])
  const nameOf = (id: string | null) => names.find((person) => person.id === id)?.name ?? null
  return rows
    .filter((row) => row.kind === 'hand' || (row.until ?? '') > today)
    .map((row) => ({
      id: row.id,
      subject: row.subject,
      label: row.label,
      about: row.about,
      kind: row.kind,
      until: row.until,
      reason: row.reason,
      to: nameOf(row.toId),
      by: nameOf(row.recordedById) ?? '',
      day: dayOf(row.recordedAt, company.timeZone),
    }))
}

/** Puts a row of Today off until a day; it comes back by itself on that day. */
export async function snooze(actor: Actor, input: SnoozeInput): Promise<void> {
  requirePermission(actor, 'visits.plan')
  const { until, reason, ...asked } = check(snoozeSchema, input)
  const { today } = present(await ourCompany())
  if (until <= today) throw invalid({ until: 'Choose a day to come.' })
  if (until > addDays(today, longest))
    throw invalid({ until: `At most ${longest} days at a time: it would be forgotten.` })
  await keepEach(actor, asked, { kind: 'snooze', until, reason, toId: null }, async (label) => ({
    action: 'putOff',
    summary: `${label} put off until ${showDay(until, today)}`,
  }))
}

/** Hands a row of Today to somebody; it stays on the list with their name. */
export async function handOn(actor: Actor, input: HandInput): Promise<void> {
  requirePermission(actor, 'visits.plan')
  const { toId, note, ...asked } = check(handSchema, input)
  await keepEach(actor, asked, { kind: 'hand', until: null, reason: note, toId }, async (label) => {
    const person = await people.byId(toId)
    if (!person || person.retiredOn || person.role === 'viewer')
      throw invalid({ toId: 'Choose somebody who works here.' })
    return { action: 'handedOn', summary: `${label} handed to ${person.name}` }
  })
}

/** Brings a row back, or takes it back from whoever it was handed to. */
export async function clearMark(actor: Actor, asked: string): Promise<void> {
  requirePermission(actor, 'visits.plan')
  const id = check(idSchema, asked)
  await write(async () => {
    const row = await marks.byId(id)
    if (!row) throw notFound('This entry')
    if (row.status !== 'active') return
    await marks.update({ id }, { status: 'superseded' })
    await recordChange(actor, {
      entity: 'mark',
      entityId: id,
      action: 'broughtBack',
      summary: `${row.label} ${row.kind === 'snooze' ? 'brought back' : 'taken back'}`,
    })
  })
}

/** What was asked for one row, or for each of several that one row stands for, in one act. */
async function keepEach(
  actor: Actor,
  { also = [], ...first }: Marking & { also?: Marking[] },
  values: Pick<MarkRow, 'kind' | 'until' | 'reason' | 'toId'>,
  told: (label: string) => Promise<{ action: string; summary: string }>,
): Promise<void> {
  await write(async () => {
    for (const { id, subject, label, about = null } of [first, ...also])
      await keep(actor, { id, subject, label, about, ...values }, () => told(label))
  })
}

/** A row is put off once and handed to one person: the newest word holds. */
async function keep(
  actor: Actor,
  values: Omit<MarkRow, 'status' | 'recordedAt' | 'recordedById'>,
  told: () => Promise<{ action: string; summary: string }>,
): Promise<void> {
  await write(async () => {
    if (await marks.byId(values.id)) return
    const change = await told()
    const before = await marks.all({ subject: values.subject, kind: values.kind, status: 'active' })
    // One cylinder put off by itself leaves the mark of all three to the other two.
    const same = before.filter((row) => samePositions(row.about, values.about))
    await marks.update({ id: same.map((row) => row.id) }, { status: 'superseded' })
    await marks.insert({ ...values, status: 'active', recordedAt: now(), recordedById: actor.id })
    await recordChange(actor, {
      ...change,
      entity: 'mark',
      entityId: values.id,
      reason: values.reason,
    })
  })
}

function samePositions(a: MarkedAs | null, b: MarkedAs | null): boolean {
  const key = (about: MarkedAs | null) => [...(about?.positions ?? [])].sort().join(' ')
  return a === null || key(a) === key(b)
}
