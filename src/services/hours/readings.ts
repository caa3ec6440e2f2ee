import 'server-only'
import {
  isAcceptedAtOnce,
  judgeReading,
  meterValue,
  readingSchema,
  showMeterValue,
  type ReadingInput,
} from '@/core/hours'
import { conflict, check } from '@/core/problem'
import { showNumber } from '@/core/units'
import { write } from '@/db/house'
import { type MeterRow, readings, type ReadingRow } from '@/db/hours'
import { requirePermission, type Actor, recordChange, ourCompany, timeOf } from '../house'
import { asReading, faceOf, historyOf } from './meterHistory'
import { meterAndMachine, pastInstant, readOrRefuse } from './readingInput'
import { blameAgain } from './settling'
import { type RecordedReading, newRow } from './readingRows'

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
  reading: Pick<ReadingInput, 'id' | 'meterId' | 'typed' | 'vouched' | 'readBy' | 'note' | 'seenLast'>,
  at: string,
  source: ReadingRow['source'],
): Promise<RecordedReading> {
  return write(async () => {
    const { meter, machine } = await meterAndMachine(reading.meterId)
    const { rows, history } = await historyOf(meter)
    const raw = readOrRefuse(reading.typed, meter, 'typed', { history, at })
    const repeated = rows.find((row) => row.id === reading.id)
    if (!repeated && (await readings.byId(reading.id)))
      throw conflict('Its number is that of a reading of another meter: enter it again.')
    if (!repeated) await refuseIfReadMeanwhile(actor, meter, rows, reading.seenLast)
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
    if (row.status === 'doubted') await blameAgain(actor, meter, machine)
    const { status } = (await readings.byId(row.id))!
    return { id: row.id, status, verdict, shown }
  })
}

/**
 * Somebody else has read this meter since the person last looked: says who and what, and saves nothing.
 * Sent again without `seenLast` it is kept as one more reading. Called inside `write()`, so that of two
 * at the same moment one comes second.
 */
async function refuseIfReadMeanwhile(
  actor: Actor,
  meter: MeterRow,
  rows: ReadingRow[],
  seenLast: string | undefined,
): Promise<void> {
  if (seenLast === undefined) return
  const newest = rows.findLast((row) => row.status !== 'superseded' && row.at > seenLast)
  if (!newest || newest.recordedById === actor.id) return
  const { timeZone } = await ourCompany()
  const shown = showNumber(meterValue(newest.raw, newest.decimals), meter.decimals)
  throw conflict(
    `${newest.readBy} has entered ${shown} at ${timeOf(newest.at, timeZone)}${newest.status === 'doubted' ? ', in doubt' : ''}. Yours is not saved: saving it again (Enter) keeps it as one more reading.`,
  )
}
