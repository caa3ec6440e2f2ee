export const storageKinds = {
  heated: 'Heated',
  indoorsUnheated: 'Indoors, unheated',
  outdoors: 'Outdoors',
} as const
export const machineKinds = {
  trailer: 'Trailer',
  van: 'Van',
  cart: 'Cart',
  chemicalRig: 'Low-pressure chemical rig',
  hotWaterSkid: 'Hot-water skid',
  cuttingTable: 'Cutting table',
  other: 'Other',
} as const
export const driveKinds = {
  petrol: 'Petrol engine',
  diesel: 'Diesel engine',
  electric: 'Electric motor',
  vehicle: 'Vehicle’s own engine',
} as const
/** What drives a pump, as models ask it; null where a machine does not tell: a vehicle's engine may be either. */
export const driveFact = (drive: keyof typeof driveKinds): string | null =>
  drive === 'vehicle' ? null : drive

export const bypassKinds = {
  tank: 'Back to the tank',
  inlet: 'Back to the pump inlet',
  none: 'No by-pass',
} as const
export const assemblyKinds = {
  pump: 'Pump',
  engine: 'Engine',
  motor: 'Electric motor',
  heater: 'Burner and coil',
  accessory: 'Accessory',
} as const
export const openingKinds = {
  new: 'New, 0 on it',
  known: 'Used, known hours',
  assumed: 'Used, hours estimated',
  unknown: 'Used, hours unknown',
} as const

export const keys = (labels: object) => Object.keys(labels)
