import 'server-only'
import { createHash, randomBytes } from 'node:crypto'
import { addDays, showDay } from '@/core/calendar'
import { toICalendar, type CalendarEvent } from '@/core/interchange'
import {
  feedSchema,
  markOn,
  serviceSubject,
  showMinutes,
  visitNumber,
  type FeedInput,
  type FeedView,
  type Running,
  visitFor,
  type VisitLine,
} from '@/core/plan'
import { invalid, notFound, check, idSchema } from '@/core/problem'
import type { ClockView, WearView } from '@/core/wear'
import { laidUpWords } from '@/core/winter'
import { inSentence } from '@/core/units'
import { write } from '@/db/house'
import { feeds, type FeedRow } from '@/db/plan'
import { people } from '@/db/access'
import { machines, yards } from '@/db/fleet'
import {
  requirePermission,
  type Actor,
  recordChange,
  now,
  ourCompany,
  present,
  dayOf,
  instantOf,
} from '../house'
import { workDays } from './goingOn'
import { listMarks } from './marks'
import { listOpenVisits } from './visits'
import { listWear } from '../wear'
import { laidUpMachines } from '../winter'

/** How far ahead due days are told, in days. */
const ahead = 120

/** The calendar links of the company, those in use first. */
export async function listFeeds(actor: Actor): Promise<FeedView[]> {
  requirePermission(actor, 'visits.plan')
  const [rows, yardRows, names, { timeZone }] = await Promise.all([
    feeds.all({}, [['recordedAt', 'DESC']]),
    yards.every(),
    people.every(),
    ourCompany(),
  ])
  const nameOf = (id: string | null) => names.find((person) => person.id === id)?.name ?? ''
  return rows
    .map((row): FeedView => ({
      id: row.id,
      name: row.name,
      of:
        [yardRows.find((yard) => yard.id === row.yardId)?.name, nameOf(row.personId)]
          .filter(Boolean)
          .join(', ') || 'everything',
      madeBy: nameOf(row.recordedById),
      madeOn: dayOf(row.recordedAt, timeZone),
      readOn: row.readAt && dayOf(row.readAt, timeZone),
      revoked: row.revokedAt ? { by: nameOf(row.revokedById), day: dayOf(row.revokedAt, timeZone) } : null,
    }))
    .sort((a, b) => Number(a.revoked !== null) - Number(b.revoked !== null))
}

/**
 * Makes a private calendar link. Whoever has it can read it, so it is shown this once and only a hash
 * of it is kept.
 *
 * @returns the path to subscribe to
 */
export async function makeFeed(actor: Actor, input: FeedInput): Promise<{ path: string }> {
  requirePermission(actor, 'visits.plan')
  const { id, name, yardId, personId } = check(feedSchema, input)
  const token = randomBytes(24).toString('base64url')
  await write(async () => {
    if (await feeds.byId(id))
      throw invalid({ name: 'This link was made already. Close this and look at the list.' })
    if (yardId !== null && !(await yards.byId(yardId))) throw notFound('This yard')
    if (personId !== null && !(await people.byId(personId))) throw notFound('This person')
    await feeds.insert({
      id,
      name,
      tokenHash: hashOf(token),
      yardId,
      personId,
      readAt: null,
      revokedAt: null,
      revokedById: null,
      recordedAt: now(),
      recordedById: actor.id,
    })
    await recordChange(actor, {
      entity: 'feed',
      entityId: id,
      action: 'made',
      summary: `Calendar link made: ${name}`,
    })
  })
  return { path: `/feeds/${token}.ics` }
}

/** Ends a link at once; calendars that still ask are told so. */
export async function revokeFeed(actor: Actor, asked: string): Promise<void> {
  requirePermission(actor, 'visits.plan')
  const id = check(idSchema, asked)
  await write(async () => {
    const row = await feeds.byId(id)
    if (!row) throw notFound('This link')
    if (row.revokedAt !== null) return
    await feeds.update({ id }, { revokedAt: now(), revokedById: actor.id })
    await recordChange(actor, {
      entity: 'feed',
      entityId: id,
      action: 'revoked',
      summary: `Calendar link revoked: ${row.name}`,
    })
  })
}

export type ReadFeed = { state: 'open'; text: string } | { state: 'revoked' | 'unknown' }

/** What a calendar gets for a link: nobody signs in, the link itself is the key. */
export async function readFeed(token: string): Promise<ReadFeed> {
  const row = await feeds.find({ tokenHash: hashOf(token) })
  if (!row) return { state: 'unknown' }
  const owner = await people.byId(row.personId ?? row.recordedById)
  // Whoever has left takes no calendar along.
  if (row.revokedAt !== null || !owner || owner.retiredOn) return { state: 'revoked' }
  const text = await calendarOf(row)
  const { timeZone } = await ourCompany()
  // Once a day is enough to see that it is in use; reading must not queue behind every other write.
  if (row.readAt === null || dayOf(row.readAt, timeZone) !== dayOf(now(), timeZone))
    await write(() => feeds.update({ id: row.id }, { readAt: now() }))
  return { state: 'open', text }
}

function hashOf(token: string): string {
  return createHash('sha256').update(token).digest('hex')
}

async function calendarOf(feed: FeedRow): Promise<string> {
  const reader: Actor = { id: feed.recordedById, name: feed.name, role: 'viewer' }
  const [wear, open, marks, yardRows, company, held] = await Promise.all([
    listWear(reader),
    listOpenVisits(reader),
    listMarks(reader),
    yards.every(),
    ourCompany(),
    heldByNumber(),
  ])
  const { today, instant } = present(company)
  const yard = yardRows.find((each) => each.id === feed.yardId)
  const person = feed.personId ? await people.byId(feed.personId) : null
  const handed = marks.filter((mark) => mark.kind === 'hand' && mark.to === person?.name)
  const until = addDays(today, ahead)
  const visits = open.filter(
    (visit) =>
      (feed.yardId === null || visit.yardId === feed.yardId) &&
      (feed.personId === null || visit.leadId === feed.personId),
  )
  const due = wear
    .filter((view) => feed.yardId === null || view.yardId === feed.yardId)
    .flatMap((view) => view.clocks.map((clock) => ({ view, clock })))
    .filter(
      ({ view, clock }) =>
        clock.aboutDay !== null &&
        clock.aboutDay <= until &&
        visitFor(view.assemblyId, clock, open) === null &&
        (feed.personId === null || handed.some((mark) => markOn(mark, serviceOf(view, clock)))),
    )
  const daysOf = await workDays()
  const name = [company.name, yard?.name, person?.name].filter(Boolean).join(', ')
  return toICalendar(
    name,
    [
      ...visits.flatMap((visit) =>
        visitEvents(visit, daysOf(visit), company.timeZone, held.get(visit.machineNumber ?? '')),
      ),
      ...due.map(({ view, clock }) => dueEvent(view, clock, today, held.get(view.machineNumber ?? ''))),
    ],
    instant,
  )
}

function serviceOf(view: WearView, { task, positions }: ClockView) {
  return {
    subject: serviceSubject(view.assemblyId, task, positions),
    positions,
    severity: 0,
    grounds: [],
  }
}

/** What stands on machines that must not be started, by their numbers. */
async function heldByNumber(): Promise<Map<string, string>> {
  const [held, rows] = await Promise.all([laidUpMachines(), machines.every()])
  return new Map(
    rows.flatMap(({ id, number }) => {
      const state = held.get(id)
      return state ? [[number, laidUpWords(state)] as const] : []
    }),
  )
}

/** A visit, and each later day of one that is longer than its technician's day. */
function visitEvents(
  visit: VisitLine,
  [first, ...later]: Running['days'],
  timeZone: string,
  laidUp = '',
): CalendarEvent[] {
  const services = visit.services.map(({ pump, name, where }) =>
    [pump, [name, where].filter(Boolean).join(', ')].filter(Boolean).join(': '),
  )
  const name = `${visit.machineNumber ?? visit.services[0]?.pump ?? ''} visit ${visitNumber(visit.number)}`
  const common = { place: visit.place, text: [laidUp, ...services].filter(Boolean).join('\n') }
  return [
    {
      ...common,
      uid: `visit-${visit.id}@atelier`,
      title: `${name}, ${visit.lead}`,
      when: visit.startTime
        ? { at: instantOf(visit.day, visit.startTime, timeZone), minutes: first!.minutes }
        : { day: visit.day },
    },
    ...later.map(({ day, minutes }) => ({
      ...common,
      uid: `visit-${visit.id}-${day}@atelier`,
      title: `${name} goes on, ${visit.lead}, ${showMinutes(minutes)}`,
      when: { day },
    })),
  ]
}

/** What lies behind stands on today: a calendar does not look back. */
function dueEvent(view: WearView, clock: ClockView, today: string, laidUp = ''): CalendarEvent {
  const what = [inSentence(clock.name), clock.where].filter(Boolean).join(', ')
  const past = clock.aboutDay! < today
  const lines = [
    laidUp,
    clock.band && !past
      ? `Reached between ${showDay(clock.band.early, today)} and ${clock.band.late ? showDay(clock.band.late, today) : 'later'} (10 to 90 %)`
      : '',
    clock.lastResponsibleDay ? `Act by ${showDay(clock.lastResponsibleDay, today)}` : '',
    clock.leadTime.parts.length > 0
      ? `Missing, ${clock.leadTime.days} days to come: ${clock.leadTime.parts.join(', ')}`
      : '',
    ...clock.signs.map((sign) => sign.words),
  ]
  return {
    uid: `due-${view.assemblyId}-${clock.task}-${clock.positions[0]}@atelier`,
    title: `${past ? 'Past its limit' : 'Due'}: ${view.machineNumber ?? view.number} ${what}`,
    place: '',
    text: lines.filter(Boolean).join('\n'),
    when: { day: past ? today : clock.aboutDay! },
  }
}
