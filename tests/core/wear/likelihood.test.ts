import fc from 'fast-check'
import { likelyWords, renewalChance, takeAlong } from '@/core/wear'

test('a guess of one in four gives way to findings of our own', () => {
  expect(renewalChance({ looked: 0, renewed: 0 })).toBe(0.25)
  // (2 + 1) of (36 + 4).
  expect(renewalChance({ looked: 36, renewed: 2 })).toBeCloseTo(0.075, 12)
  expect(renewalChance({ looked: 396, renewed: 99 })).toBeCloseTo(0.25, 12)
})

test('as many go along as keep one too few below one in twenty', () => {
  // Of three at a quarter: none bad 27 of 64, one 27, two 9, three 1. Three bad: 1.6 %, two or more: 15.6 %.
  expect(takeAlong(0.25, 3)).toBe(2)
  expect(takeAlong(0.25, 3, 0.2)).toBe(1)
  expect(takeAlong(0.01, 3)).toBe(0)
  expect(takeAlong(0.9, 3)).toBe(3)
  expect([takeAlong(0, 6), takeAlong(0.5, 0)]).toEqual([0, 0])
  expect(likelyWords({ looked: 18, renewed: 4 }, 3)).toBe('take 2: renewed 4 of 18 times')
  expect(likelyWords({ looked: 0, renewed: 0 }, 3)).toBe(
    'take 2: a guess until there are findings of our own',
  )
})

test('by any count over all outcomes: it suffices, and one fewer would not', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.001, max: 0.999, noNaN: true }),
      fc.integer({ min: 1, max: 9 }),
      fc.double({ min: 0.001, max: 0.5, noNaN: true }),
      (chance, pieces, risk) => {
        // Every way in which the pieces can turn out, by itself.
        const tooFew = (taken: number) =>
          Array.from({ length: 2 ** pieces }, (_, ways) =>
            Array.from({ length: pieces }, (__, at) => (ways >> at) & 1),
          ).reduce((sum, bad) => {
            const count = bad.filter(Boolean).length
            return count > taken ? sum + chance ** count * (1 - chance) ** (pieces - count) : sum
          }, 0)
        const take = takeAlong(chance, pieces, risk)
        expect(tooFew(take)).toBeLessThanOrEqual(risk + 1e-9)
        if (take > 0) expect(tooFew(take - 1)).toBeGreaterThan(risk - 1e-9)
      },
    ),
  )
})
