import fc from 'fast-check'
import { ownPath } from '@/core/problem'

test.each(['/', '/today', '/fleet/T-04?filter=late#signs', '/sheets/0190b0d2'])('%s is ours', (path) => {
  expect(ownPath(path)).toBe(path)
})

test.each([
  'https://elsewhere.example',
  '//elsewhere.example',
  '/\\elsewhere.example',
  '/\t/elsewhere.example',
  '/\n/elsewhere.example',
  '/\r\n/elsewhere.example',
  '\t//elsewhere.example',
  'javascript:alert(1)',
  '',
  undefined,
  ['/today'],
])('%j leads to the first page', (path) => {
  expect(ownPath(path)).toBe('/')
})

test('law: whatever is asked for, a browser that follows it stays here', () => {
  fc.assert(
    fc.property(
      fc.oneof(
        fc.string(),
        fc.string().map((text) => `/${text}`),
        fc.string().map((text) => `//${text}`),
      ),
      (text) => {
        expect(new URL(ownPath(text), 'http://yard.example').origin).toBe('http://yard.example')
      },
    ),
  )
})
