export const keys = (labels: object) => Object.keys(labels)

/** Where machines stand: from how many °C outside it freezes there, and why. */
export type PlacesInput = {
  /** Null: never. */
  heated: { standsC: number | null; reason: string }
  indoorsUnheated: { standsC: number | null; reason: string }
  outdoors: { standsC: number | null; reason: string }
}
export const usualPlaces: PlacesInput = {
  heated: { standsC: null, reason: 'Ours: a heated store never freezes, unless its heating is doubtful.' },
  indoorsUnheated: { standsC: -4, reason: 'Ours: walls hold some hours of frost off.' },
  outdoors: { standsC: 0, reason: 'Ours: water freezes at 0 °C.' },
}
export const eveningNames = {
  '': 'Laid up for the winter',
  indoors: 'Works on: every evening indoors',
  drained: 'Works on: every evening drained',
  fluid: 'Works on: every evening with fluid drawn in',
} as const
/** Minutes that an evening's routine takes. Ours. */
export const eveningMinutes = { indoors: 10, drained: 15, fluid: 15 } as const
export const fluidNames = {
  propylene: 'Propylene glycol',
  ethylene: 'Ethylene glycol, poisonous',
  alcohol: 'Alcohol blend, flammable',
} as const
export const soldNames = { concentrate: 'Concentrate, to be mixed', ready: 'Ready to use' } as const
export const winterNoteNames = {
  protected: 'Protected without a sheet',
  proof: 'Measured',
  water: 'Water was connected',
  thawed: 'Thawed and looked at: tight under pressure',
  left: 'Left as it is, by name',
  returned: 'Back at work',
  evening: 'Evening routine done',
  damage: 'Frost damage found',
} as const
