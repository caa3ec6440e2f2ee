import 'server-only'
import { conflict, notFound, problemOf } from '@/core/problem'
import { check } from '@/core/problem/check'
import {
  sheetState,
  payloadSchemas,
  refusal,
  seenBy,
  sentEntriesSchema,
  type Payloads,
  type SentEntry,
  type SheetEntry,
} from '@/core/sheet'
import { write } from '@/db'
import { readings } from '@/db/readings'
import { sheetEntries, sheets, type SheetRow } from '@/db/sheets'
import { parts, stockLots } from '@/db/stores'
import { requirePermission, type Actor } from './actor'
import { now } from './clock'
import { keepReading, settleReading } from './readings'
import { requirePhoto } from './sheetPhotos'
import { asEntry } from './sheetRows'
import { entriesOf } from './sheets'

/** What became of the entries a device sent, and everything on the sheet that it had not seen. */
export type EntriesAnswer = {
  /** Kept, now or before: the device may forget them. */
  taken: string[]
  /** Not kept, each with the sentence that says why; the device keeps them until their author decides. */
  refused: { id: string; message: string }[]
  entries: SheetEntry[]
  state: SheetRow['state']
  /** Our clock: a tablet whose own is wrong reckons its timers by it. */
  now: string
}

/**
 * Takes in what a device has written on a sheet. An entry that was kept before is kept once; one that
 * comes in after the signing is kept as late and changes nothing; one that cannot be is refused with a
 * sentence while the others are kept. Entries are appended, never changed.
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
  const list = check(sentEntriesSchema, sent)
  return write(async () => {
    const sheet = await sheets.byId(sheetId)
    if (!sheet) throw notFound('This sheet')
    const taken: string[] = []
    const refused: EntriesAnswer['refused'] = []
    const entries = await entriesOf(sheetId)
    const known = new Set(entries.map((entry) => entry.id))
    for (const entry of [...list].sort((a, b) => a.deviceSeq - b.deviceSeq)) {
      if (known.has(entry.id)) {
        taken.push(entry.id)
        continue
      }
      try {
        const kept = await takeIn(actor, sheet, entries, entry, sentAt)
        entries.push(kept)
        known.add(kept.id)
        taken.push(kept.id)
      } catch (error) {
        const problem = problemOf(error)
        if (!problem) throw error
        refused.push({ id: entry.id, message: problem.message })
      }
    }
    const seen = Math.min(...list.map((entry) => entry.seenUpTo))
    return {
      taken,
      refused,
      entries: entries.filter((entry) => entry.sequence > seen),
      state: sheet.state,
      now: now(),
    }
  })
}

/** What has come in on a sheet since a device last looked. */
export async function entriesSince(_actor: Actor, sheetId: string, after: number): Promise<EntriesAnswer> {
  const sheet = await sheets.byId(sheetId)
  if (!sheet) throw notFound('This sheet')
  return { taken: [], refused: [], entries: await entriesOf(sheetId, after), state: sheet.state, now: now() }
}

async function takeIn(
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
    const reason = refusal(state, { ...sent, payload }, { byName: actor.name, now: at })
    if (reason) throw conflict(reason)
    if (sent.kind === 'photo') await requirePhoto(sheet.id, payload as Payloads['photo'])
    if (sent.kind === 'part') payload = await withLot(payload as Payloads['part'])
    if (sent.kind === 'takeBack') await takeReadingBack(actor, entries, payload as Payloads['takeBack'])
    if (sent.kind === 'reading') payload = await readMeter(actor, sent.id, payload as Payloads['reading'], at)
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
    byId: actor.id,
    byName: actor.name,
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
      readBy: actor.name,
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
