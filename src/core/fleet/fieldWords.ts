import { assemblyKinds, bypassKinds, driveKinds, machineKinds, openingKinds, storageKinds } from './choices'
import { meterKinds } from '../hours'
import { roleNames } from '../access'
import { showNumber } from '../units'

const names: Record<string, string> = {
  number: 'Number',
  name: 'Name',
  kind: 'Kind',
  yardId: 'Yard',
  bay: 'Bay',
  crew: 'Crew',
  fromDay: 'From',
  toDay: 'Until',
  hoursPerDay: 'Hours a day',
  what: 'What for',
  meterId: 'Counted by',
  share: 'Duty share',
  basis: 'Known by',
  storage: 'Storage',
  inServiceSince: 'In service since',
  drive: 'Driven by',
  driveName: 'Engine or motor',
  drivePower: 'Power',
  workingPressure: 'Working pressure',
  flow: 'Flow',
  hoseLength: 'Hose length',
  hoseBore: 'Hose bore',
  tankVolume: 'Tank',
  bypass: 'By-pass',
  note: 'Note',
  retiredOn: 'Retired on',
  retiredReason: 'Reason for retiring',
  digits: 'Digits',
  decimals: 'Decimals',
  readingIntervalDays: 'Read every (days)',
  modelId: 'Model',
  serial: 'Serial number',
  usageScale: 'Counted in',
  openingKind: 'Taken over',
  openingUsage: 'Hours when taken over',
  takenOverAt: 'Taken over on',
  machineId: 'Machine',
  slot: 'Place',
  place: 'Place',
  maker: 'Maker',
  design: 'Design',
  signInName: 'Sign-in name',
  role: 'Role',
  timeZone: 'Time zone',
  currency: 'Currency',
  units: 'Units',
  raw: 'Meter value',
  typed: 'Typed',
  at: 'Taken at',
  status: 'Status',
  verdict: 'Verdict',
  reason: 'Reason',
  vouchedReason: 'Given reason',
  readBy: 'Read by',
  noticeDays: 'Notice (days)',
  dateOrder: 'Days are written',
  earlyCheckHours: 'Early check after (h)',
  hours: 'Hours',
  days: 'Days',
  firstHours: 'First interval (hours)',
  firstDays: 'First interval (days)',
  early: 'Early tolerance',
  late: 'Late tolerance',
  factor: 'Factor',
  makersNumber: 'Maker’s number',
  unit: 'Counted in',
  packSize: 'In a pack',
  price: 'Price',
  priceCents: 'Price (cents)',
  leadDays: 'Comes within (days)',
  minimum: 'Least to have',
  bin: 'Bin',
  fits: 'Serves as',
}

const words: Record<string, Record<string, string>> = {
  kind: { ...machineKinds, ...assemblyKinds, ...meterKinds },
  storage: storageKinds,
  drive: driveKinds,
  bypass: bypassKinds,
  openingKind: openingKinds,
  role: roleNames,
  usageScale: { h: 'hours', strokes: 'strokes' },
}

// What a reader of a reading's change already sees in its summary, or cannot use.
const left = new Set([
  'id',
  'supersedesId',
  'recordedAt',
  'recordedById',
  'settledAt',
  'settledById',
  'meterId',
  'raw',
  'decimals',
  'verdict',
  'reason',
  'source',
])

/** A stored field's name as people read it. */
export function fieldName(field: string): string {
  return names[field] ?? field
}

export function isWorthShowing(field: string): boolean {
  return !left.has(field) && field in names
}

/** A stored value in words: a choice by its label, a quantity as typed, nothing as a dash. */
export function showValue(field: string, value: unknown): string {
  if (value === null || value === undefined || value === '') return '–'
  if (typeof value === 'object') {
    const quantity = value as { value?: number; unit?: string }
    if (quantity.unit !== undefined && quantity.value !== undefined)
      return `${quantity.value}\u00a0${quantity.unit}`
    return Object.values(value).join(', ')
  }
  if (typeof value === 'number') return showNumber(value)
  return words[field]?.[String(value)] ?? String(value)
}
