import type { MachineInput } from '@/core/fleet'
import { day, id, json, longText, text, whole, table } from '../house'

export type MachineRow = Omit<MachineInput, 'version'> & {
  retiredOn: string | null
  retiredReason: string
  createdAt: string
  version: number
}

const quantities = ['drivePower', 'workingPressure', 'flow', 'hoseLength', 'hoseBore', 'tankVolume'] as const

export const machines = table<MachineRow>(
  'machines',
  {
    id,
    number: text,
    name: text,
    kind: text,
    yardId: text,
    bay: text,
    crew: text,
    storage: text,
    inServiceSince: day,
    drive: text,
    driveName: text,
    ...Object.fromEntries(quantities.map((column) => [column, json])),
    bypass: text,
    note: longText,
    retiredOn: day,
    retiredReason: text,
    createdAt: text,
    version: whole,
  },
  [...quantities],
)
