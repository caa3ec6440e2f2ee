import 'server-only'
import { v7 as uuid } from 'uuid'
import { showDay } from '@/core/calendar'
import {
  judgeLater,
  judgeReading,
  presumedChange,
  showMeterValue,
  type History,
  type MeterEventToo,
  type SettlementInput,
} from '@/core/hours'
import { invalid } from '@/core/problem'
import type { MachineRow } from '@/db/fleet'
import { meterEvents, meters, type MeterEventRow, type MeterRow, readings, type ReadingRow } from '@/db/hours'
import { type Actor, recordChange, now, ourCompany, dayOf, timeOf, editRow } from '../house'
import { asReading, faceOf, historyOf } from './meterHistory'
import { pastInstant, readOrRefuse } from './readingInput'

/** A reading that is being settled, with its meter and machine. */
export type Settling = { actor: Actor; row: ReadingRow; meter: MeterRow; machine: MachineRow }

type Change = Pick<MeterEventRow, 'at' | 'lastRaw' | 'firstRaw' | 'assumed' | 'note'>

/** Tells that the meter was replaced before a reading, as a person says it. Called inside `write()`. */
export async function noteNewMeter(
  context: Settling,
  settlement: Extract<SettlementInput, { decision: 'newMeter' }>,
): Promise<void> {
  const { row, meter } = context
  const { history, rows } = await historyOf(meter)
  const typed = await pastInstant(settlement.day, settlement.time)
  if (typed > row.at) throw invalid({ day: 'The new meter must have been fitted before this reading.' })
  // Days and times are typed to the minute: within it, the last reading was still the old meter's.
  const within = rows.findLast(
    (each) =>
      each.status === 'accepted' &&
      each.id !== row.id &&
      each.at >= typed &&
      each.at < row.at &&
      Date.parse(each.at) < Date.parse(typed) + 60_000,
  )
  const at = within ? new Date(Date.parse(within.at) + 1).toISOString() : typed
  const later = history.readings.find((each) => each.at >= at && each.id !== row.id && each.at < row.at)
  if (later) throw invalid({ day: 'There are accepted readings between this day and the doubted one.' })
  const firstRaw = readOrRefuse(settlement.newFirstTyped, meter, 'newFirstTyped')
  if (firstRaw > row.raw)
    throw invalid({ newFirstTyped: 'It shows less than that now: it cannot have started there.' })
  const old = oldLast(settlement, meter, history, at)
  await tellChange(context, { at, firstRaw, ...old, note: settlement.reason })
}

/** What the old meter showed last: read, estimated by its use, or left out. */
function oldLast(
  settlement: Extract<SettlementInput, { decision: 'newMeter' }>,
  meter: MeterRow,
  history: History,
  at: string,
): Pick<Change, 'lastRaw' | 'assumed'> {
  if (settlement.oldLast === 'estimate') {
    const { band } = judgeReading(history, { at, value: 0 })
    return { lastRaw: band && Math.round(band.expected * 10 ** meter.decimals), assumed: band ? 1 : 0 }
  }
  if (settlement.oldLast === 'none' || settlement.oldLastTyped === '') return { lastRaw: null, assumed: 0 }
  const lastRaw = readOrRefuse(settlement.oldLastTyped, meter, 'oldLastTyped')
  const { possible, reason } = judgeReading(
    history,
    asReading({ id: 'old', at, raw: lastRaw, decimals: meter.decimals }),
  )
  if (!possible) throw invalid({ oldLastTyped: reason })
  return { lastRaw, assumed: 0 }
}

/**
 * Tells that the meter was found replaced, with nothing known but what it shows and perhaps what the old
 * one showed last: the rest is presumed from the machine's use, and marked so. Called inside `write()`.
 */
export async function noteFoundReplaced(
  context: Settling,
  oldLastTyped: string,
  note: string,
): Promise<void> {
  const { row, meter } = context
  const { history } = await historyOf(meter)
  const scale = 10 ** meter.decimals
  const presumed = presumedChange(history, asReading(row), 0)
  if (oldLastTyped === '')
    return tellChange(context, {
      // It counted more than the clock had: it came with hours on it, and was fitted when it was read.
      at: presumed?.at ?? row.at,
      firstRaw: presumed ? 0 : row.raw,
      lastRaw: presumed && Math.round(presumed.lastValue * scale),
      assumed: presumed ? 1 : 0,
      note,
    })
  const lastRaw = readOrRefuse(oldLastTyped, meter, 'oldLastTyped')
  const judged = judgeReading(
    history,
    asReading({ id: 'old', at: row.at, raw: lastRaw, decimals: meter.decimals }),
  )
  if (!judged.possible) throw invalid({ oldLastTyped: judged.reason })
  const { previous } = judged
  const before = previous ? lastRaw / scale - previous.value : 0
  const counted = row.raw / scale
  const gap = previous ? Date.parse(row.at) - Date.parse(previous.at) : 0
  const fits = meter.kind === 'strokes' || before + counted <= gap / 3_600_000
  const share = fits && before + counted > 0 ? before / (before + counted) : 1
  const at = previous
    ? new Date(Date.parse(previous.at) + Math.max(Math.min(1, gap), gap * share)).toISOString()
    : row.at
  await tellChange(context, { at, firstRaw: fits ? 0 : row.raw, lastRaw, assumed: 0, note })
}

async function tellChange(context: Settling, change: Change): Promise<void> {
  await insertEvent(context, { kind: 'change', span: null, digitsTold: 0, ...change }, 'Meter changed')
  await acceptAfterEvent(context, 'newFirstTyped', change)
}

/** Tells that the counter went through zero before a reading. Called inside `write()`. */
export async function noteRollOver(
  context: Settling,
  { reason, digits }: Extract<SettlementInput, { decision: 'rollOver' }>,
): Promise<void> {
  const { actor, row, meter } = context
  const told = meter.digits === null ? Number(digits ?? 0) : meter.digits
  if (!told) throw invalid({ digits: 'Say how many digits this meter has before the point.' })
  const { history } = await historyOf(meter)
  const highest = Math.max(...history.readings.map(({ value }) => value), 0)
  if (highest >= 10 ** told)
    throw invalid({
      digits: `It has shown ${showMeterValue(Math.round(highest * 10 ** meter.decimals), faceOf(meter))}: that takes more digits.`,
    })
  if (meter.digits === null)
    await setDigits(actor, meter, told, `${meter.name} has ${told} digits before the point`)
  const withDigits = { ...context, meter: { ...meter, digits: told } }
  const change = {
    at: new Date(Date.parse(row.at) - 1).toISOString(),
    lastRaw: null,
    firstRaw: null,
    assumed: 0,
    note: reason,
  }
  await insertEvent(
    withDigits,
    { kind: 'rollOver', span: 10 ** told, digitsTold: meter.digits === null ? 1 : 0, ...change },
    'Meter went through zero',
  )
  await acceptAfterEvent(withDigits, 'decision', change)
}

async function insertEvent(
  { actor, row, meter, machine }: Settling,
  event: Change & Pick<MeterEventRow, 'kind' | 'span' | 'digitsTold'>,
  summary: string,
): Promise<void> {
  const told: MeterEventRow = {
    id: uuid(),
    meterId: meter.id,
    decimals: meter.decimals,
    readingId: row.id,
    status: 'active',
    supersedesId: null,
    recordedAt: now(),
    recordedById: actor.id,
    ...event,
  }
  await meterEvents.insert(told)
  await recordChange(actor, {
    entity: 'meter',
    entityId: meter.id,
    machineId: machine.id,
    action: event.kind,
    summary: `${summary}: ${meter.name}`,
    reason: event.note,
    after: told,
  })
}

/**
 * The doubted reading must make sense now that the event explains it, between those before and after it;
 * otherwise nothing is kept: one doubt is not settled by making many.
 */
async function acceptAfterEvent(
  { actor, row, meter }: Settling,
  field: string,
  change: Change,
): Promise<void> {
  const { history } = await historyOf(meter)
  const others = { ...history, readings: history.readings.filter(({ id }) => id !== row.id) }
  const verdict = judgeReading(others, asReading(row))
  if (!verdict.possible) {
    const counted = (row.raw - (change.firstRaw ?? row.raw)) / 10 ** meter.decimals
    const latest = new Date(Date.parse(row.at) - counted * 3_600_000).toISOString()
    if (change.firstRaw !== null && meter.kind !== 'strokes' && latest < change.at) {
      const { timeZone } = await ourCompany()
      const shown = (raw: number) => showMeterValue(raw, faceOf(meter))
      throw invalid({
        day: `It shows ${shown(row.raw)}: started at ${shown(change.firstRaw)}, it was fitted on ${showDay(dayOf(latest, timeZone))} at ${timeOf(latest, timeZone)} at the latest. Say when, or what it started at.`,
      })
    }
    throw invalid({ [field]: `The reading would still not fit: ${verdict.reason}` })
  }
  await readings.update({ id: row.id }, { status: 'accepted', settledAt: now(), settledById: actor.id })
}

/** The change or roll-over that a reading told of, if it stands. */
export async function eventToldBy(readingId: string): Promise<MeterEventRow | null> {
  return meterEvents.find({ readingId, status: 'active' })
}

/**
 * What becomes of the change or roll-over that a reading told of, now that the reading is withdrawn or
 * corrected. It goes with it, so that one act is taken back whole, unless readings after it stand on it,
 * or the corrected value makes sense only with it. Called inside `write()`, with the reading superseded.
 *
 * @param corrected the reading that takes its place; null where it is withdrawn
 */
export async function settleEventToo(
  { actor, row, meter, machine }: Settling,
  corrected: { id: string; at: string; raw: number } | null,
  said: MeterEventToo,
): Promise<void> {
  const event = await eventToldBy(row.id)
  if (!event) return
  const { history, rows, eventRows } = await historyOf(meter)
  const without = { ...history, events: history.events.filter(({ id }) => id !== event.id) }
  const vouched = new Set(rows.filter((each) => each.vouchedReason !== '').map((each) => each.id))
  const stoodOn = judgeLater(without, row.at, vouched).some(({ verdict }) => !verdict.possible)
  const reading = corrected && asReading({ ...corrected, decimals: meter.decimals })
  const stays =
    said === '' ? stoodOn || (reading !== null && fitsOnly(reading, history, without)) : said === 'stays'
  if (stays) {
    const next = rows.find((each) => each.status === 'accepted' && each.at > event.at)
    await meterEvents.update({ id: event.id }, { readingId: corrected?.id ?? next?.id ?? null })
    if (event.kind === 'rollOver' && corrected && corrected.at <= event.at)
      await meterEvents.update({ id: event.id }, { at: new Date(Date.parse(corrected.at) - 1).toISOString() })
    return
  }
  await meterEvents.update({ id: event.id }, { status: 'superseded' })
  await recordChange(actor, {
    entity: 'meter',
    entityId: meter.id,
    machineId: machine.id,
    action: 'takenBack',
    summary: `${event.kind === 'change' ? 'Meter changed' : 'Meter went through zero'}: taken back with its reading, ${meter.name}`,
    before: event,
    after: { ...event, status: 'superseded' },
  })
  const usedElsewhere = eventRows.some((each) => each.kind === 'rollOver' && each.id !== event.id)
  const current = await meters.byId(meter.id)
  if (event.digitsTold === 1 && !usedElsewhere && current && event.span === 10 ** (current.digits ?? 0))
    await setDigits(actor, current, null, `${meter.name}: its digits are not known after all`)
}

function fitsOnly(reading: ReturnType<typeof asReading>, withEvent: History, without: History): boolean {
  const of = (history: History) =>
    judgeReading({ ...history, readings: history.readings.filter(({ id }) => id !== reading.id) }, reading)
      .possible
  return !of(without) && of(withEvent)
}

/** What the meter's face is known to have before the point; null where nobody has said. */
function setDigits(actor: Actor, meter: MeterRow, digits: number | null, summary: string) {
  return editRow(
    actor,
    meters,
    { entity: 'meter', name: meter.name },
    meter,
    { digits },
    { machineId: meter.machineId, action: 'changed', summary },
  )
}
