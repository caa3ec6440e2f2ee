/**
 * The colours of both themes. `mark` is for shapes only; words always use `ink`, which is dark enough
 * to read. Graphics read them as CSS variables (see `globals.css` for the short names).
 */
export const light = {
  ground: '#EEF1F0',
  panel: '#FFFFFF',
  ink: '#17242B',
  muted: '#5B6B73',
  line: '#D5DCDD',
  edge: '#8FA0A6',
  petrol: '#0F4C5C',
  onPetrol: '#FFFFFF',
  petrolTint: '#E2ECEE',
  status: {
    oxide: { mark: '#B3382C', ink: '#9A2C21', tint: '#F8EAE8' },
    brass: { mark: '#B97A10', ink: '#7A5005', tint: '#F9F1E0' },
    moss: { mark: '#3F7D58', ink: '#2C6043', tint: '#E5F0E9' },
    frost: { mark: '#3F7FBF', ink: '#22578C', tint: '#F0F5F9', mid: '#E4EDF4', deep: '#D6E4EF' },
  },
}

export const dark: typeof light = {
  ground: '#0F181C',
  panel: '#162228',
  ink: '#E4EBEB',
  muted: '#9BADB4',
  line: '#2B3B42',
  edge: '#5F757E',
  petrol: '#7CC0CE',
  onPetrol: '#0B1F26',
  petrolTint: '#1C3840',
  status: {
    oxide: { mark: '#E0705F', ink: '#F0948A', tint: '#3A2220' },
    brass: { mark: '#D79A35', ink: '#E9B761', tint: '#372B16' },
    moss: { mark: '#63A880', ink: '#8CC7A4', tint: '#1B3226' },
    frost: { mark: '#6AA5DD', ink: '#93C0EC', tint: '#17262F', mid: '#1A2E3C', deep: '#1F384B' },
  },
}
