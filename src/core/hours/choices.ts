export const meterKinds = {
  engine: 'Engine hours',
  pump: 'Pump hours',
  jetOn: 'Jet-on hours',
  strokes: 'Strokes',
} as const
