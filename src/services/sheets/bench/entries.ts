import 'server-only'
import { conflict, notFound, problemOf, check } from '@/core/problem'
import {
  sheetState,
  mostEntriesAtOnce,
  payloadSchemas,
  refusal,
  seenBy,
  sentEntriesSchema,
  sentEntrySchema,
  takeInReasonSchema,
  type Payloads,
  type SentEntry,
  type SheetEntry,
} from '@/core/sheets'
import { visitNumber } from '@/core/plan'
import { attempt, write } from '@/db/house'
import { people } from '@/db/access'
import { readings } from '@/db/hours'
import { sheetEntries, sheets, type SheetRow } from '@/db/sheets'
import { parts, stockLots } from '@/db/stores'
import { requirePermission, type Actor, recordChange, now } from '../../house'
import { keepReading, settleReading } from '../../hours'
import { requirePhoto } from './photos'
import { asEntry } from '../rows'
import { entriesAfter, entriesOf } from '../sheets'

/** What became of the entries a device sent, and everything on the sheet that it had not seen. */
export type EntriesAnswer = {
  /** Kept, now or before: the device may forget them. */
  taken: string[]
  /** Not kept, each with the sentence that says why; the device keeps them until their author decides. */
  refused: { id: string; message: string }[]
  /** Not kept now: they are somebody else's, or something failed on our side. The device offers them again. */
  held: { id: string; why: 'author' | 'unforeseen'; message: string }[]
  entries: SheetEntry[]
  state: SheetRow['state']
  /** Our clock: a tablet whose own is wrong reckons its timers by it. */
  now: string
  /** Who is signed in, by the session that the list came with. */
  actor: { id: string; name: string }
}

/** Whose entries are kept, and who takes them in where the author cannot send them any more. */
type Author = { id: string; name: string; takenIn: { by: Actor; why: string } | null }

/**
 * Takes in what a device has written on a sheet. Each entry is answered by itself: one that was kept
 * before is kept once; one that comes in after the signing is kept as late and changes nothing; one that
 * cannot be is refused with a sentence; one of another author than whoever is signed in is held until
 * that author sends it; and none of these spoils the others. Entries are appended, never changed.
 *
 * @param sent the list as it came, in any order
 * @param sentAt the device's own time when it sent them: what lies between an entry and that is how
 *   long it waited, so that a clock which is wrong does not matter
 * @throws `notFound` for an unknown sheet, `invalid` for a list that is none
 */
export async function appendEntries(
  actor: Actor,
  sheetId: string,
  sent: unknown,
  sentAt: string | null,
): Promise<EntriesAnswer> {
  requirePermission(actor, 'sheets.work')
  const list = asList(sent)
  return takeInList(actor, sheetId, list, sentAt, async (authorId) =>
    authorId === actor.id ? { id: actor.id, name: actor.name, takenIn: null } : null,
  )
}

/**
 * Takes in, for authors who cannot send them any more, what waits on a device: they stay the authors, and
 * the record names whoever took it in, and why.
 */
export async function takeInEntries(
  actor: Actor,
  sheetId: string,
  sent: unknown,
  why: unknown,
  sentAt: string | null,
): Promise<EntriesAnswer> {
  requirePermission(actor, 'sheets.takeIn')
  const list = asList(sent)
  const reason = check(takeInReasonSchema, why)
  const known = new Map((await people.every()).map((person) => [person.id, person]))
  return takeInList(actor, sheetId, list, sentAt, async (authorId) => {
    if (authorId === actor.id) return { id: actor.id, name: actor.name, takenIn: null }
    const person = known.get(authorId)
    return person ? { id: person.id, name: person.name, takenIn: { by: actor, why: reason } } : null
  })
}

/** A list of entries by its length first: what is far too long is not looked at one by one. */
function asList(sent: unknown): unknown[] {
  if (Array.isArray(sent) && sent.length > mostEntriesAtOnce)
    return check(sentEntriesSchema, sent.slice(0, mostEntriesAtOnce + 1))
  return check(sentEntriesSchema, sent)
}

async function takeInList(
  actor: Actor,
  sheetId: string,
  list: unknown[],
  sentAt: string | null,
  authorOf: (authorId: string) => Promise<Author | null>,
): Promise<EntriesAnswer> {
  const { good, refused } = checkEach(list)
  // What nobody needs to wait for: then only what has come since is read while others cannot write.
  await entriesOf(sheetId)
  return write(async () => {
    const [sheet, entries, elsewhere] = await Promise.all([
      sheets.byId(sheetId),
      entriesOf(sheetId),
      usedElsewhere(sheetId, good),
    ])
    if (!sheet) throw notFound('This sheet')
    const taken: string[] = []
    const held: EntriesAnswer['held'] = []
    const known = new Set(entries.map((entry) => entry.id))
    const takenIn = new Map<string, number>()
    for (const entry of good.sort((a, b) => a.deviceSeq - b.deviceSeq)) {
      const { id, authorId } = entry
      if (known.has(id)) {
        taken.push(id)
        continue
      }
      if (elsewhere.has(id)) {
        refused.push({ id, message: 'Its number is that of another entry: write it again.' })
        continue
      }
      const author = await authorOf(authorId)
      if (!author) {
        held.push({ id, why: 'author', message: `It waits for ${await nameOf(authorId)}, who made it.` })
        continue
      }
      try {
        const kept = await attempt(() => takeIn(author, actor, sheet, entries, entry, sentAt))
        entries.push(kept)
        known.add(kept.id)
        taken.push(kept.id)
        if (author.takenIn) takenIn.set(author.name, (takenIn.get(author.name) ?? 0) + 1)
      } catch (error) {
        const problem = problemOf(error)
        if (problem) refused.push({ id, message: problem.message })
        else held.push({ id, why: 'unforeseen', message: unforeseen(error) })
      }
    }
    for (const [name, count] of takenIn) await tellTakenIn(actor, sheet, name, count, entries)
    const seen = Math.min(...good.map((entry) => entry.seenUpTo), entries.at(-1)?.sequence ?? 0)
    return {
      taken,
      refused,
      held,
      entries: entries.filter((entry) => entry.sequence > seen),
      state: sheet.state,
      now: now(),
      actor: { id: actor.id, name: actor.name },
    }
  })
}

/** Each entry by its own schema: what is none is refused and spoils no other. */
function checkEach(list: unknown[]): { good: SentEntry[]; refused: EntriesAnswer['refused'] } {
  const good: SentEntry[] = []
  const refused: EntriesAnswer['refused'] = []
  for (const each of list) {
    try {
      good.push(check(sentEntrySchema, each))
    } catch (error) {
      const problem = problemOf(error)
      if (!problem) throw error
      const said = problem.kind === 'invalid' ? Object.values(problem.fields)[0] : undefined
      const id = (each as { id?: unknown } | null)?.id
      refused.push({ id: typeof id === 'string' ? id : '', message: said ?? problem.message })
    }
  }
  return { good, refused }
}

/** Ids that entries of other sheets have. */
async function usedElsewhere(sheetId: string, list: SentEntry[]): Promise<Set<string>> {
  const rows = await sheetEntries.all({ id: list.map((entry) => entry.id) })
  return new Set(rows.filter((row) => row.sheetId !== sheetId).map((row) => row.id))
}

async function nameOf(personId: string): Promise<string> {
  return (await people.byId(personId))?.name ?? 'somebody who is not known here'
}

function unforeseen(error: unknown): string {
  process.stderr.write(`${error instanceof Error ? error.stack : String(error)}\n`)
  return 'Something went wrong on our side. It is kept on this device and sent again.'
}

async function tellTakenIn(
  actor: Actor,
  sheet: SheetRow,
  name: string,
  count: number,
  entries: SheetEntry[],
): Promise<void> {
  await recordChange(actor, {
    entity: 'sheet',
    entityId: sheet.id,
    machineId: sheet.machineId,
    assemblyId: sheet.assemblyIds[0] ?? null,
    action: 'takenIn',
    summary: `Sheet ${visitNumber(sheet.number)}: ${count === 1 ? 'one entry' : `${count} entries`} of ${name} taken in from a device`,
    reason: entries.findLast((entry) => entry.takenInWhy)?.takenInWhy ?? '',
  })
}

/** What has come in on a sheet since a device last looked. */
export async function entriesSince(actor: Actor, sheetId: string, after: number): Promise<EntriesAnswer> {
  const sheet = await sheets.byId(sheetId)
  if (!sheet) throw notFound('This sheet')
  return {
    taken: [],
    refused: [],
    held: [],
    entries: await entriesAfter(sheetId, after),
    state: sheet.state,
    now: now(),
    actor: { id: actor.id, name: actor.name },
  }
}

async function takeIn(
  author: Author,
  actor: Actor,
  sheet: SheetRow,
  entries: SheetEntry[],
  sent: SentEntry,
  sentAt: string | null,
): Promise<SheetEntry> {
  const receivedAt = now()
  const late = sheet.state !== 'open'
  const before = entries.findLast((entry) => entry.deviceId === sent.deviceId)?.at ?? sheet.startedAt
  const at = instantOfEntry(sent.deviceTime, sentAt, receivedAt, before)
  let payload = check(payloadSchemas[sent.kind] as never, sent.payload) as Payloads[typeof sent.kind]
  if (!late) {
    // Judged by what its device had seen: what was right there is not refused for what it could not know.
    const state = sheetState(seenBy(entries, sent))!
    const reason = refusal(state, { ...sent, payload }, { byName: author.name, now: at })
    if (reason) throw conflict(reason)
    if (sent.kind === 'photo') await requirePhoto(sheet.id, payload as Payloads['photo'])
    if (sent.kind === 'part') payload = await withLot(payload as Payloads['part'])
    if (sent.kind === 'takeBack') await takeReadingBack(actor, entries, payload as Payloads['takeBack'])
    if (sent.kind === 'reading')
      payload = await readMeter(actor, author.name, sent.id, payload as Payloads['reading'], at)
  }
  const row = {
    id: sent.id,
    sheetId: sheet.id,
    sequence: (entries.at(-1)?.sequence ?? 0) + 1,
    deviceId: sent.deviceId,
    deviceSeq: sent.deviceSeq,
    seenUpTo: sent.seenUpTo,
    deviceTime: sent.deviceTime,
    at,
    receivedAt,
    stepKey: sent.stepKey,
    kind: sent.kind,
    payload,
    byId: author.id,
    byName: author.name,
    takenInById: author.takenIn?.by.id ?? null,
    takenInByName: author.takenIn?.by.name ?? '',
    takenInWhy: author.takenIn?.why ?? '',
    late: late ? 1 : 0,
  }
  await sheetEntries.insert(row)
  return asEntry(row)
}

/**
 * When it happened on our clock: now, less how long it waited on its device, which does not hang on what
 * that clock shows; never before the sheet or what the same device wrote before, should its clock jump.
 */
function instantOfEntry(
  deviceTime: string,
  sentAt: string | null,
  receivedAt: string,
  earliest: string,
): string {
  const waited = sentAt === null ? 0 : Math.max(0, Date.parse(sentAt) - Date.parse(deviceTime))
  const at = new Date(Date.parse(receivedAt) - (Number.isFinite(waited) ? waited : 0)).toISOString()
  return at < earliest ? earliest : at
}

/** The sheet's reading is an ordinary reading: judged as any other, and in doubt where it does not fit. */
async function readMeter(
  actor: Actor,
  readBy: string,
  id: string,
  payload: Payloads['reading'],
  at: string,
): Promise<Payloads['reading']> {
  if (payload.unreadable !== '') return payload
  const recorded = await keepReading(
    actor,
    {
      id,
      meterId: payload.meterId,
      typed: payload.typed,
      vouched: payload.vouched,
      readBy,
      note: '',
    },
    at,
    'sheet',
  )
  const row = await readings.byId(recorded.id)
  return {
    ...payload,
    readingId: recorded.id,
    shown: recorded.shown,
    status: recorded.status === 'accepted' ? 'accepted' : 'doubted',
    reason: row?.status === 'doubted' ? recorded.verdict.reason : '',
  }
}

/** Taking back the sheet's reading withdraws it from the machine as well. */
async function takeReadingBack(
  actor: Actor,
  entries: SheetEntry[],
  { of, reason }: Payloads['takeBack'],
): Promise<void> {
  const entry = entries.find((each) => each.id === of)
  if (entry?.kind !== 'reading' || !entry.payload.readingId) return
  const row = await readings.byId(entry.payload.readingId)
  if (!row || row.status === 'superseded') return
  await settleReading(actor, {
    decision: 'withdraw',
    readingId: row.id,
    reason: reason || 'Taken back on its sheet',
  })
}

/** A part as it was used, with our number of its lot. @throws `conflict` for what the stores do not know */
async function withLot(use: Payloads['part']): Promise<Payloads['part']> {
  const { partId, lotId, unit, quantity } = use
  if (unit === 'piece' && !Number.isInteger(quantity)) throw conflict('Pieces are used whole.')
  if (partId === null) {
    if (lotId !== null) throw conflict('A lot belongs to a part of the stores: choose the part too.')
    return { ...use, lot: null }
  }
  const part = await parts.byId(partId)
  if (!part) throw conflict('This part is not in the stores.')
  if (part.unit !== unit)
    throw conflict(`${part.number} is counted in ${part.unit === 'piece' ? 'pieces' : part.unit}.`)
  const lot = lotId === null ? null : await stockLots.byId(lotId)
  if (lotId !== null && lot?.partId !== partId) throw conflict(`${part.number} has no such lot.`)
  return { ...use, lot: lot?.number ?? null }
}
