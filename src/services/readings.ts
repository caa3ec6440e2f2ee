import 'server-only'
import { v7 as uuid } from 'uuid'
import {
  isAcceptedAtOnce,
  judgeAgain,
  judgeLater,
  judgeReading,
  readMeterValue,
  readingSchema,
  settlementSchema,
  showMeterValue,
  type ReadingInput,
  type SettlementInput,
  type Verdict,
} from '@/core/hours'
import { conflict, invalid, notAllowed, notFound } from '@/core/problem'
import { check } from '@/core/problem/check'
import { mayDo } from '@/core/people'
import { write } from '@/db'
import { machines, type MachineRow } from '@/db/machines'
import { meterEvents, meters, type MeterEventRow, type MeterRow } from '@/db/meters'
import { readings, type ReadingRow } from '@/db/readings'
import { requirePermission, type Actor } from './actor'
import { recordChange } from './audit'
import { now } from './clock'
import { ourCompany } from './company'
import { instantOf } from './days'
import { asReading, faceOf, historyOf } from './meterHistory'

export type RecordedReading = { id: string; status: ReadingRow['status']; verdict: Verdict; shown: string }

/**
 * Records what a meter showed. Only what is not a number, not a known meter or not a past time is
 * refused; a reading in doubt is kept, and drives nothing until it is settled.
 */
export async function recordReading(
  actor: Actor,
  input: ReadingInput,
  source: ReadingRow['source'] = 'typed',
): Promise<RecordedReading> {
  requirePermission(actor, 'readings.enter')
  const reading = check(readingSchema, input)
  return keepReading(actor, reading, await pastInstant(reading.day, reading.time), source)
}

/** Judges and keeps a reading of a known instant: typed with its day and time, or taken at the bench. */
export function keepReading(
  actor: Actor,
  reading: Pick<ReadingInput, 'id' | 'meterId' | 'typed' | 'vouched' | 'readBy' | 'note'>,
  at: string,
  source: ReadingRow['source'],
): Promise<RecordedReading> {
  return write(async () => {
    const { meter, machine } = await meterAndMachine(reading.meterId)
    const raw = readOrRefuse(reading.typed, meter, 'typed')
    const { rows, history } = await historyOf(meter)
    const repeated = rows.find((row) => row.id === reading.id)
    const verdict = judgeReading(
      { ...history, readings: history.readings.filter((other) => other.id !== reading.id) },
      asReading({ id: reading.id, at, raw, decimals: meter.decimals }),
    )
    const shown = showMeterValue(raw, faceOf(meter))
    if (repeated) return { id: repeated.id, status: repeated.status, verdict, shown }
    const vouched = reading.vouched && verdict.possible
    const row = newRow(actor, meter, {
      id: reading.id,
      at,
      raw,
      typed: reading.typed,
      status: isAcceptedAtOnce(verdict.kind) || vouched ? 'accepted' : 'doubted',
      verdict,
      vouchedReason: vouched && !isAcceptedAtOnce(verdict.kind) ? reading.note || 'looked at again' : '',
      source,
      readBy: reading.readBy || actor.name,
      note: reading.note,
      supersedesId: null,
    })
    await readings.insert(row)
    await recordChange(actor, {
      entity: 'reading',
      entityId: row.id,
      machineId: machine.id,
      action: 'added',
      summary: `${meter.name} read: ${shown}${row.status === 'doubted' ? ', in doubt' : ''}`,
      reason: row.status === 'doubted' ? verdict.reason : '',
      after: row,
    })
    return { id: row.id, status: row.status, verdict, shown }
  })
}

/**
 * Settles a reading in doubt, or corrects one that turned out wrong. The row itself is never changed
 * beyond its status: a correction is a new row that names the one it supersedes. Readings in doubt on
 * the same meter are judged again afterwards.
 */
export async function settleReading(actor: Actor, input: SettlementInput): Promise<void> {
  const settlement = check(settlementSchema, input)
  await write(async () => {
    const row = await readings.byId(settlement.readingId)
    if (!row) throw notFound('This reading')
    requireSay(actor, row)
    if (row.status === 'superseded') {
      throw conflict('This reading was corrected or withdrawn meanwhile. Look at the list again.')
    }
    const { meter, machine } = await meterAndMachine(row.meterId)
    const context = { actor, row, meter, machine }
    switch (settlement.decision) {
      case 'vouch':
        await vouch(context, settlement.reason)
        break
      case 'correct':
        await correct(context, settlement)
        break
      case 'withdraw':
        await decide(context, 'superseded', settlement.reason, 'withdrawn', 'withdrawn')
        break
      case 'newMeter':
        await noteNewMeter(context, settlement)
        break
      case 'rollOver':
        await noteRollOver(context, settlement.reason)
        break
    }
    await judgeLaterOnes(actor, meter, machine, row.at)
    await judgeDoubtsAgain(actor, meter, machine)
  })
}

/** Readings that counted and no longer fit, now that one before them was settled otherwise, are in doubt again. */
async function judgeLaterOnes(
  actor: Actor,
  meter: MeterRow,
  machine: MachineRow,
  since: string,
): Promise<void> {
  const { rows, history } = await historyOf(meter)
  const vouched = new Set(rows.filter((row) => row.vouchedReason !== '').map((row) => row.id))
  for (const { id, verdict } of judgeLater(history, since, vouched)) {
    const row = rows.find((each) => each.id === id)!
    const values = { status: 'doubted' as const, verdict: verdict.kind, reason: verdict.reason }
    await readings.update({ id }, values)
    await recordChange(actor, {
      entity: 'reading',
      entityId: id,
      machineId: machine.id,
      action: 'judgedAgain',
      summary: `${meter.name} reading ${shownOf(row, meter)} no longer fits and is in doubt`,
      reason: verdict.reason,
      before: row,
      after: { ...row, ...values },
    })
  }
}

type Context = { actor: Actor; row: ReadingRow; meter: MeterRow; machine: MachineRow }

async function vouch({ actor, row, meter, machine }: Context, reason: string): Promise<void> {
  if (row.status !== 'doubted') throw conflict('This reading is not in doubt any more.')
  const { history } = await historyOf(meter)
  const verdict = judgeReading(history, asReading(row))
  if (!verdict.possible) {
    throw invalid({
      decision: `${verdict.reason} Correct it, withdraw it, or say what happened to the meter.`,
    })
  }
  await decide({ actor, row, meter, machine }, 'accepted', reason, 'vouched', 'kept as right')
}

async function correct(
  context: Context,
  settlement: Extract<SettlementInput, { decision: 'correct' }>,
): Promise<void> {
  const { actor, row, meter, machine } = context
  if (await readings.byId(settlement.id)) return
  const at = await pastInstant(settlement.day, settlement.time)
  const raw = readOrRefuse(settlement.typed, meter, 'typed')
  const { history } = await historyOf(meter)
  const others = { ...history, readings: history.readings.filter((reading) => reading.id !== row.id) }
  const verdict = judgeReading(others, asReading({ id: settlement.id, at, raw, decimals: meter.decimals }))
  // Whoever corrects has looked twice and says why; only what contradicts its neighbours stays in doubt.
  const status = verdict.possible ? 'accepted' : 'doubted'
  const corrected = newRow(actor, meter, {
    id: settlement.id,
    at,
    raw,
    typed: settlement.typed,
    status,
    verdict,
    vouchedReason: settlement.reason,
    source: row.source,
    readBy: row.readBy,
    note: row.note,
    supersedesId: row.id,
  })
  await readings.update({ id: row.id }, { status: 'superseded', settledAt: now(), settledById: actor.id })
  await readings.insert(corrected)
  await recordChange(actor, {
    entity: 'reading',
    entityId: corrected.id,
    machineId: machine.id,
    action: 'corrected',
    summary: `${meter.name} reading ${shownOf(row, meter)} corrected to ${shownOf(corrected, meter)}`,
    reason: settlement.reason,
    before: row,
    after: corrected,
  })
}

/** Writes what a person decided about a reading as it stands, and why. */
async function decide(
  { actor, row, meter, machine }: Context,
  status: 'accepted' | 'superseded',
  reason: string,
  action: string,
  words: string,
): Promise<void> {
  const values = { status, vouchedReason: reason, settledAt: now(), settledById: actor.id }
  await readings.update({ id: row.id }, values)
  await recordChange(actor, {
    entity: 'reading',
    entityId: row.id,
    machineId: machine.id,
    action,
    summary: `${meter.name} reading ${shownOf(row, meter)} ${words}`,
    reason,
    before: row,
    after: { ...row, ...values },
  })
}

async function noteNewMeter(
  context: Context,
  settlement: Extract<SettlementInput, { decision: 'newMeter' }>,
): Promise<void> {
  const { row, meter } = context
  const at = await pastInstant(settlement.day, settlement.time)
  if (at > row.at) throw invalid({ day: 'The new meter must have been fitted before this reading.' })
  const lastRaw = settlement.oldLastTyped
    ? readOrRefuse(settlement.oldLastTyped, meter, 'oldLastTyped')
    : null
  const firstRaw = readOrRefuse(settlement.newFirstTyped, meter, 'newFirstTyped')
  const { history } = await historyOf(meter)
  const later = history.readings.find(
    (reading) => reading.at >= at && reading.id !== row.id && reading.at < row.at,
  )
  if (later) throw invalid({ day: 'There are accepted readings between this day and the doubted one.' })
  if (lastRaw !== null) {
    const last = judgeReading(history, asReading({ id: 'old', at, raw: lastRaw, decimals: meter.decimals }))
    if (!last.possible) throw invalid({ oldLastTyped: last.reason })
  }
  await insertEvent(
    context,
    { kind: 'change', at, lastRaw, firstRaw, span: null, note: settlement.reason },
    'Meter changed',
  )
  await acceptAfterEvent(context, 'newFirstTyped')
}

async function noteRollOver(context: Context, reason: string): Promise<void> {
  const { row, meter } = context
  if (meter.digits === null) {
    throw invalid({ decision: 'Say first how many digits this meter has: edit the meter.' })
  }
  const at = new Date(Date.parse(row.at) - 1).toISOString()
  await insertEvent(
    context,
    { kind: 'rollOver', at, lastRaw: null, firstRaw: null, span: 10 ** meter.digits, note: reason },
    'Meter went through zero',
  )
  await acceptAfterEvent(context, 'decision')
}

async function insertEvent(
  { actor, meter, machine }: Context,
  event: Pick<MeterEventRow, 'kind' | 'at' | 'lastRaw' | 'firstRaw' | 'span' | 'note'>,
  summary: string,
): Promise<void> {
  const row: MeterEventRow = {
    id: uuid(),
    meterId: meter.id,
    decimals: meter.decimals,
    status: 'active',
    supersedesId: null,
    recordedAt: now(),
    recordedById: actor.id,
    ...event,
  }
  await meterEvents.insert(row)
  await recordChange(actor, {
    entity: 'meter',
    entityId: meter.id,
    machineId: machine.id,
    action: event.kind,
    summary: `${summary}: ${meter.name}`,
    reason: event.note,
    after: row,
  })
}

/** The doubted reading must make sense now that the event explains it; otherwise nothing is kept. */
async function acceptAfterEvent({ actor, row, meter }: Context, field: string): Promise<void> {
  const { history } = await historyOf(meter)
  const verdict = judgeReading(
    { ...history, readings: history.readings.filter(({ id }) => id !== row.id) },
    asReading(row),
  )
  if (!verdict.possible) throw invalid({ [field]: `The reading would still not fit: ${verdict.reason}` })
  await readings.update({ id: row.id }, { status: 'accepted', settledAt: now(), settledById: actor.id })
}

async function judgeDoubtsAgain(actor: Actor, meter: MeterRow, machine: MachineRow): Promise<void> {
  const { rows, history } = await historyOf(meter)
  const doubted = rows.filter((row) => row.status === 'doubted')
  for (const { id, verdict } of judgeAgain(history, doubted.map(asReading))) {
    const row = doubted.find((doubt) => doubt.id === id)!
    if (!isAcceptedAtOnce(verdict.kind)) {
      if (verdict.reason !== row.reason)
        await readings.update({ id }, { verdict: verdict.kind, reason: verdict.reason })
      continue
    }
    const values = {
      status: 'accepted' as const,
      verdict: verdict.kind,
      reason: verdict.reason,
      settledAt: now(),
      settledById: actor.id,
    }
    await readings.update({ id }, values)
    await recordChange(actor, {
      entity: 'reading',
      entityId: id,
      machineId: machine.id,
      action: 'judgedAgain',
      summary: `${meter.name} reading ${shownOf(row, meter)} fits now and counts`,
      before: row,
      after: { ...row, ...values },
    })
  }
}

function newRow(
  actor: Actor,
  meter: MeterRow,
  values: Pick<
    ReadingRow,
    'id' | 'at' | 'raw' | 'typed' | 'status' | 'vouchedReason' | 'source' | 'readBy' | 'note' | 'supersedesId'
  > & {
    verdict: Verdict
  },
): ReadingRow {
  const { verdict, ...rest } = values
  return {
    ...rest,
    meterId: meter.id,
    decimals: meter.decimals,
    verdict: verdict.kind,
    reason: verdict.reason,
    recordedAt: now(),
    recordedById: actor.id,
    settledAt: null,
    settledById: null,
  }
}

/** Coordinators settle any reading; whoever entered one may still set it right. */
function requireSay(actor: Actor, row: ReadingRow): void {
  if (mayDo(actor.role, 'readings.settle')) return
  if (mayDo(actor.role, 'readings.enter') && row.recordedById === actor.id) return
  throw notAllowed('Only a coordinator, or whoever entered this reading, can settle it.')
}

async function meterAndMachine(meterId: string): Promise<{ meter: MeterRow; machine: MachineRow }> {
  const meter = await meters.byId(meterId)
  const machine = meter && (await machines.byId(meter.machineId))
  if (!meter || !machine) throw invalid({ meterId: 'This meter is not known.' })
  if (meter.retiredOn) throw invalid({ meterId: `${meter.name} is retired and takes no more readings.` })
  if (machine.retiredOn)
    throw invalid({ meterId: `${machine.number} is retired. Bring it back into service first.` })
  return { meter, machine }
}

function readOrRefuse(typed: string, meter: MeterRow, field: string): number {
  const read = readMeterValue(typed, faceOf(meter))
  if (!read.ok) throw invalid({ [field]: read.reason })
  return read.raw
}

/** The instant of a day and time on the company's clocks. @throws `invalid` where it is still to come */
export async function pastInstant(day: string, time: string): Promise<string> {
  const { timeZone } = await ourCompany()
  const at = instantOf(day, time, timeZone)
  const present = now()
  // A minute of grace: a phone's clock may run ahead of ours.
  if (Date.parse(at) <= Date.parse(present) + 60_000) return at < present ? at : present
  const startOfDay = instantOf(day, '00:00', timeZone)
  throw invalid(
    startOfDay > present ? { day: 'This day is still to come.' } : { time: 'This time is still to come.' },
  )
}

function shownOf(row: ReadingRow, meter: MeterRow): string {
  return showMeterValue(row.raw, { ...faceOf(meter), decimals: row.decimals })
}
