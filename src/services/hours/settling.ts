import 'server-only'
import {
  judgeAgain,
  judgeLater,
  judgeReading,
  outvotedBy,
  settleBlame,
  settlementSchema,
  type SettlementInput,
} from '@/core/hours'
import { conflict, invalid, notAllowed, notFound, check } from '@/core/problem'
import { mayDo } from '@/core/access'
import { write } from '@/db/house'
import type { MachineRow } from '@/db/fleet'
import { type MeterRow, readings, type ReadingRow } from '@/db/hours'
import { type Actor, recordChange, now } from '../house'
import {
  eventToldBy,
  noteFoundReplaced,
  noteNewMeter,
  noteRollOver,
  settleEventToo,
  type Settling,
} from './meterChanges'
import { asReading, historyOf } from './meterHistory'
import { meterAndMachine, pastInstant, readOrRefuse } from './readingInput'
import { shownOf, newRow } from './readingRows'

/**
 * Settles a reading in doubt, or corrects one that turned out wrong. The row itself is never changed
 * beyond its status: a correction is a new row that names the one it supersedes. Readings in doubt on
 * the same meter are judged again afterwards.
 */
export async function settleReading(actor: Actor, input: SettlementInput): Promise<void> {
  const settlement = check(settlementSchema, input)
  await settling(actor, settlement.readingId, async (context) => {
    if (await isSettledSo(context, settlement)) return false
    requireStanding(context.row)
    switch (settlement.decision) {
      case 'vouch':
        await vouch(context, settlement.reason)
        break
      case 'correct':
        await correct(context, settlement)
        break
      case 'withdraw':
        await decide(context, 'superseded', settlement.reason, 'withdrawn', 'withdrawn')
        await settleEventToo(context, null, settlement.meterEvent ?? '')
        break
      case 'newMeter':
        await noteNewMeter(context, settlement)
        break
      case 'rollOver':
        await noteRollOver(context, settlement)
        break
    }
    return true
  })
}

/** Settles a reading in doubt by telling that its meter was found replaced; what nobody saw is presumed. */
export async function settleAsReplaced(
  actor: Actor,
  { readingId, oldLastTyped, note }: { readingId: string; oldLastTyped: string; note: string },
): Promise<void> {
  await settling(actor, readingId, async (context) => {
    if (await eventToldBy(readingId)) return false
    requireStanding(context.row)
    await noteFoundReplaced(context, oldLastTyped, note)
    return true
  })
}

/** Decides about a reading, then judges again whatever hangs on it. */
async function settling(
  actor: Actor,
  readingId: string,
  decideIt: (context: Settling) => Promise<boolean>,
): Promise<void> {
  await write(async () => {
    const row = await readings.byId(readingId)
    if (!row) throw notFound('This reading')
    requireSay(actor, row)
    const { meter, machine } = await meterAndMachine(row.meterId)
    if (!(await decideIt({ actor, row, meter, machine }))) return
    const fresh = (await meterAndMachine(row.meterId)).meter
    await judgeLaterOnes(actor, fresh, machine, row.at)
    await clearOutvoted(actor, fresh, machine)
    await judgeDoubtsAgain(actor, fresh, machine)
    await blameAgain(actor, fresh, machine)
  })
}

/** The very same was said before: an answer that was lost on the way is asked for again, not done again. */
async function isSettledSo({ actor, row }: Settling, settlement: SettlementInput): Promise<boolean> {
  if (settlement.decision === 'correct') return (await readings.byId(settlement.id)) !== null
  if (row.settledById !== actor.id) return false
  switch (settlement.decision) {
    case 'vouch':
      return row.status === 'accepted' && row.vouchedReason === settlement.reason
    case 'withdraw':
      return row.status === 'superseded' && row.vouchedReason === settlement.reason
    case 'newMeter':
    case 'rollOver':
      return row.status === 'accepted' && (await eventToldBy(row.id)) !== null
  }
}

function requireStanding(row: ReadingRow): void {
  if (row.status === 'superseded')
    throw conflict('This reading was corrected or withdrawn meanwhile. Look at the list again.')
}

/**
 * Where readings in doubt agree with each other and with everything but one that counts, that one is in
 * doubt and they count.
 */
export async function blameAgain(actor: Actor, meter: MeterRow, machine: MachineRow): Promise<void> {
  const { rows, history } = await historyOf(meter)
  const found = settleBlame(history, rows.filter((row) => row.status === 'doubted').map(asReading))
  const row = found && rows.find((each) => each.id === found.blamed)
  if (!found || !row) return
  const reason = `${found.verdict.reason} ${found.cleared.length} later readings agree with each other, and not with this one.`
  const values = { status: 'doubted' as const, verdict: found.verdict.kind, reason, outvoted: 1 }
  const summary = `${meter.name} reading ${shownOf(row, meter)} is in doubt: ${found.cleared.length} others contradict it`
  await restate(actor, machine, row, values, summary)
  await judgeDoubtsAgain(actor, meter, machine)
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
    const summary = `${meter.name} reading ${shownOf(row, meter)} no longer fits and is in doubt`
    await restate(actor, machine, row, values, summary)
  }
}

async function vouch({ actor, row, meter, machine }: Settling, reason: string): Promise<void> {
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
  context: Settling,
  settlement: Extract<SettlementInput, { decision: 'correct' }>,
): Promise<void> {
  const { actor, row, meter, machine } = context
  const at = await pastInstant(settlement.day, settlement.time)
  const before = await historyOf(meter)
  const without = before.history.readings.filter((reading) => reading.id !== row.id)
  const raw = readOrRefuse(settlement.typed, meter, 'typed', {
    history: { ...before.history, readings: without },
    at,
  })
  await readings.update({ id: row.id }, { status: 'superseded', settledAt: now(), settledById: actor.id })
  await settleEventToo(context, { id: settlement.id, at, raw }, settlement.meterEvent ?? '')
  const { history: others } = await historyOf(meter)
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
  { actor, row, meter, machine }: Settling,
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

/**
 * What outvoted a reading was withdrawn or corrected, and is not two against one any more: it counts
 * again, and whoever still contradicts it waits, as it was before.
 */
async function clearOutvoted(actor: Actor, meter: MeterRow, machine: MachineRow): Promise<void> {
  const { rows, history } = await historyOf(meter)
  for (const row of rows.filter((each) => each.status === 'doubted' && each.outvoted === 1)) {
    const against = outvotedBy(history, asReading(row))
    if (against.length > 1) continue
    const summary = `${meter.name} reading ${shownOf(row, meter)} is not contradicted by two any more`
    await restate(actor, machine, row, { status: 'accepted', reason: '', outvoted: 0 }, summary)
    for (const other of rows.filter((each) => against.includes(each.id))) {
      const { kind, reason } = judgeReading(history, asReading(other))
      const says = `${meter.name} reading ${shownOf(other, meter)} is in doubt again`
      await restate(actor, machine, other, { status: 'doubted', verdict: kind, reason }, says)
    }
  }
}

/** Writes what judging again made of a reading, and why. */
async function restate(
  actor: Actor,
  machine: MachineRow,
  row: ReadingRow,
  values: Partial<ReadingRow>,
  summary: string,
): Promise<void> {
  await readings.update({ id: row.id }, values)
  await recordChange(actor, {
    entity: 'reading',
    entityId: row.id,
    machineId: machine.id,
    action: 'judgedAgain',
    summary,
    reason: values.reason ?? '',
    before: row,
    after: { ...row, ...values },
  })
}

async function judgeDoubtsAgain(actor: Actor, meter: MeterRow, machine: MachineRow): Promise<void> {
  const { rows, history } = await historyOf(meter)
  const doubted = rows.filter((row) => row.status === 'doubted')
  const vouched = new Set(doubted.filter((row) => row.vouchedReason !== '').map((row) => row.id))
  for (const { id, verdict, counts } of judgeAgain(history, doubted.map(asReading), vouched)) {
    const row = doubted.find((doubt) => doubt.id === id)!
    if (!counts) {
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
      outvoted: 0,
    }
    await restate(
      actor,
      machine,
      row,
      values,
      `${meter.name} reading ${shownOf(row, meter)} fits now and counts`,
    )
  }
}

/** Coordinators settle any reading; whoever entered one may still set it right. */
function requireSay(actor: Actor, row: ReadingRow): void {
  if (mayDo(actor.role, 'readings.settle')) return
  if (mayDo(actor.role, 'readings.enter') && row.recordedById === actor.id) return
  throw notAllowed('Only a coordinator, or whoever entered this reading, can settle it.')
}
