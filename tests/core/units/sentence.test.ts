import { inSentence } from '@/core/units'

test.each([
  ['Seal kit', 'seal kit'],
  ['O-ring of the cap', 'O-ring of the cap'],
  ['HP seals', 'HP seals'],
  ['P-32', 'P-32'],
  ['A lever', 'a lever'],
  ['', ''],
])('%s within a sentence', (name, words) => {
  expect(inSentence(name)).toBe(words)
})
