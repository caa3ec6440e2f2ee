import { servesAs, type Fit, type StandsFor } from '@/core/stores'

const fit = (modelId: string, part: string): Fit => ({ modelId, part })
const old = {
  id: 'old',
  fits: [fit('A', 'inletSeat'), fit('A', 'outletSeat'), fit('B', 'inletSeat')],
  insteadOf: [],
}
const stands = (over: Partial<StandsFor>): StandsFor => ({
  partId: 'old',
  kind: 'alternative',
  modelId: null,
  positions: [],
  approval: 'the maker',
  ...over,
})
const served = (fits: Fit[], ...insteadOf: StandsFor[]) =>
  servesAs({ id: 'new', fits, insteadOf }, (id) => (id === 'old' ? old : undefined))

test('an approval for every model takes every place of the part it stands for', () => {
  expect(served([], stands({}))).toEqual(old.fits)
})

test('an approval for one model takes its places on that model only', () => {
  expect(served([], stands({ modelId: 'A' }))).toEqual([fit('A', 'inletSeat'), fit('A', 'outletSeat')])
})

test('an approval for one place of a model takes that place, and nothing on other models', () => {
  expect(served([], stands({ modelId: 'A', positions: ['outletSeat'] }))).toEqual([fit('A', 'outletSeat')])
  expect(served([], stands({ modelId: 'B', positions: ['outletSeat'] }))).toEqual([])
})

test('what it serves as of itself is told once, and a part unknown gives nothing', () => {
  expect(served([fit('A', 'inletSeat')], stands({ modelId: 'A', positions: ['inletSeat'] }))).toEqual([
    fit('A', 'inletSeat'),
  ])
  expect(served([], stands({ partId: 'lost' }))).toEqual([])
})
