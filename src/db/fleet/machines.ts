import type { MachineInput } from '@/core/fleet'
import { day, id, json, longText, orNull, text, table, type RowOf, retirable } from '../house'

const quantity = () => orNull(json<NonNullable<MachineInput['flow']>>())

export const machines = table('machines', {
  id,
  number: text(),
  name: text(),
  kind: text<MachineInput['kind']>(),
  yardId: text(),
  bay: text(),
  crew: text(),
  storage: text<MachineInput['storage']>(),
  inServiceSince: orNull(day()),
  drive: text<MachineInput['drive']>(),
  driveName: text(),
  drivePower: quantity(),
  workingPressure: quantity(),
  flow: quantity(),
  hoseLength: quantity(),
  hoseBore: quantity(),
  tankVolume: quantity(),
  bypass: text<MachineInput['bypass']>(),
  note: longText(),
  ...retirable,
})
export type MachineRow = RowOf<typeof machines>
