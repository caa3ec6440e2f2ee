import { v7 as uuid } from 'uuid'
import type { NewMachineInput } from '@/core/fleet'

/** A machine as the form would send it: a trailer with an engine-hour meter of five digits and one decimal. */
export function plainMachine(
  number: string,
  yardId: string,
  more: Partial<NewMachineInput> = {},
): NewMachineInput {
  return {
    id: uuid(),
    number,
    name: 'silo trailer',
    kind: 'trailer',
    yardId,
    bay: '4',
    crew: '',
    storage: 'outdoors',
    inServiceSince: '2024-03-01',
    drive: 'diesel',
    driveName: '',
    drivePower: { value: '18', unit: 'kW' } as never,
    workingPressure: { value: '200', unit: 'bar' } as never,
    flow: null,
    hoseLength: null,
    hoseBore: null,
    tankVolume: null,
    bypass: 'tank',
    note: '',
    meter: plainMeter(),
    pump: null,
    ...more,
  }
}

export function plainMeter(more: Partial<NewMachineInput['meter']> = {}): NewMachineInput['meter'] {
  return {
    id: uuid(),
    name: 'Engine hours',
    kind: 'engine',
    digits: 5,
    decimals: 1,
    readingIntervalDays: 7,
    firstTyped: '100',
    firstDay: '2026-06-01',
    ...more,
  }
}
