import fc from 'fast-check'
import { heldInKits, kitFault, shareKitPrice } from '@/core/stores'

test('a kit’s price is shared by the loose prices, and the cents add up', () => {
  // By hand: 1000 over 2 x 300 and 1 x 100 is 857.14 and 142.86; the odd cent goes to the second.
  expect(
    shareKitPrice(1000, [
      { partId: 'seal', quantity: 2, looseCents: 300 },
      { partId: 'ring', quantity: 1, looseCents: 100 },
    ]),
  ).toEqual([857, 143])
  // Nobody knows what they cost loose: equally by piece.
  expect(
    shareKitPrice(100, [
      { partId: 'a', quantity: 2, looseCents: 0 },
      { partId: 'b', quantity: 1, looseCents: 0 },
    ]),
  ).toEqual([67, 33])
})

test('law: shares are never below nothing and add up to the price', () => {
  const piece = fc.record({
    partId: fc.uuid(),
    quantity: fc.integer({ min: 1, max: 12 }),
    looseCents: fc.integer({ min: 0, max: 50_000 }),
  })
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 1_000_000 }),
      fc.array(piece, { minLength: 1, maxLength: 12 }),
      (cents, pieces) => {
        const shares = shareKitPrice(cents, pieces)
        expect(shares.reduce((sum, share) => sum + share, 0)).toBe(cents)
        expect(shares.every((share) => share >= 0)).toBe(true)
      },
    ),
  )
})

test('a kit holds pieces: not itself, not a piece twice, not another kit', () => {
  const contents: Record<string, { partId: string; quantity: number }[]> = {
    other: [{ partId: 'kit', quantity: 1 }],
  }
  const of = (id: string) => contents[id] ?? []
  expect(kitFault('kit', [{ partId: 'seal', quantity: 3 }], of)).toBeNull()
  expect(kitFault('kit', [{ partId: 'kit', quantity: 1 }], of)).toContain('itself')
  expect(kitFault('kit', [{ partId: 'other', quantity: 1 }], of)).toContain('itself')
  expect(kitFault('new', [{ partId: 'other', quantity: 1 }], of)).toContain('not kits')
  expect(
    kitFault(
      'kit',
      [
        { partId: 'seal', quantity: 1 },
        { partId: 'seal', quantity: 2 },
      ],
      of,
    ),
  ).toContain('twice')
})

test('each part counts on every unopened kit that holds it', () => {
  const kits = [
    {
      contents: [
        { partId: 'seal', quantity: 3 },
        { partId: 'ring', quantity: 6 },
      ],
      lots: [
        { quantity: 2, expiresOn: '2030-01-01', placeId: 'harbour' },
        { quantity: 0, expiresOn: null, placeId: 'upland' },
      ],
    },
  ]
  expect(heldInKits(kits, 'ring')).toEqual([{ quantity: 12, expiresOn: '2030-01-01', placeId: 'harbour' }])
  expect(heldInKits(kits, 'plunger')).toEqual([])
})
