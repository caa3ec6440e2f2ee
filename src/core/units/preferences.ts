/** The unit a company reads each dimension in. Torque is always shown in three units together. */
export type UnitPreferences = {
  pressure: string
  flow: string
  volume: string
  length: string
  temperature: '°C' | '°F'
}

export const metricUnits: UnitPreferences = {
  pressure: 'bar',
  flow: 'L/min',
  volume: 'L',
  length: 'm',
  temperature: '°C',
}

export const usUnits: UnitPreferences = {
  pressure: 'psi',
  flow: 'gal/min',
  volume: 'US gal',
  length: 'ft',
  temperature: '°F',
}
