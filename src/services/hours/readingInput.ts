import 'server-only'
import { judgeTyped, readMeterValue, type History } from '@/core/hours'
import { invalid } from '@/core/problem'
import { machines, type MachineRow } from '@/db/fleet'
import { meters, type MeterRow } from '@/db/hours'
import { now, ourCompany, instantOf } from '../house'
import { faceOf } from './meterHistory'

/** A meter that takes readings, with its machine. @throws `invalid` for one that does not */
export async function meterAndMachine(meterId: string): Promise<{ meter: MeterRow; machine: MachineRow }> {
  const meter = await meters.byId(meterId)
  const machine = meter && (await machines.byId(meter.machineId))
  if (!meter || !machine) throw invalid({ meterId: 'This meter is not known.' })
  if (meter.retiredOn) throw invalid({ meterId: `${meter.name} is retired and takes no more readings.` })
  if (machine.retiredOn)
    throw invalid({ meterId: `${machine.number} is retired. Bring it back into service first.` })
  return { meter, machine }
}

/**
 * What was typed, as a whole number of the meter's smallest digit.
 * @param judged where the reading has an instant: a refusal then names the value that would fit
 * @throws `invalid` beside its field
 */
export function readOrRefuse(
  typed: string,
  meter: MeterRow,
  field: string,
  judged?: { history: History; at: string },
): number {
  const read = readMeterValue(typed, faceOf(meter))
  if (read.ok) return read.raw
  throw invalid({ [field]: judged ? judgeTyped(typed, judged.history, judged.at).refusal : read.reason })
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
