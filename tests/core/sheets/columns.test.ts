import fc from 'fast-check'
import { foldColumns, mostColumns, numberSpans } from '@/core/sheets'

test('five columns stand by themselves, alike or not', () => {
  expect(foldColumns(['a', 'a', 'b', 'a', 'a'])).toEqual([[0], [1], [2], [3], [4]])
})

test('of more those that are alike are one', () => {
  expect(foldColumns(['a', 'a', 'b', 'a', 'a', 'a'])).toEqual([[0, 1, 3, 4, 5], [2]])
  expect(foldColumns(['a', 'b', 'a', 'b', 'c', 'a', 'a', 'a'])).toEqual([[0, 2, 5, 6, 7], [1, 3], [4]])
})

test('law: every column stands exactly once, and only with those that are alike', () => {
  fc.assert(
    fc.property(fc.array(fc.constantFrom('a', 'b', 'c'), { maxLength: 12 }), (keys) => {
      const groups = foldColumns(keys)
      expect(groups.flat().sort((a, b) => a - b)).toEqual(keys.map((_, column) => column))
      for (const group of groups) expect(new Set(group.map((column) => keys[column])).size).toBe(1)
      if (keys.length > mostColumns) expect(groups).toHaveLength(new Set(keys).size)
    }),
  )
})

test('numbers are told in spans', () => {
  const told = [[1], [1, 2], [1, 2, 3], [1, 2, 4, 5, 6], [3, 1, 8]].map(numberSpans)
  expect(told).toEqual(['1', '1, 2', '1–3', '1, 2, 4–6', '1, 3, 8'])
})
