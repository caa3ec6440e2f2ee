import fc from 'fast-check'
import { isLookedFor, type FoundBy, type SheetQuery } from '@/core/sheets'

const any: SheetQuery = { words: '', person: '', month: '', damage: '', cause: '', breakdown: false }
const sheet: FoundBy = {
  called: '0146 t-04 silo trailer',
  words: 'renew high-pressure seals cylinder 3 p-04 weeping at cylinder 3 torn',
  people: ['M. Osei', 'H. Lindqvist'],
  damages: ['torn'],
  causes: ['Cavitation: starved or hot inlet, air drawn in'],
  day: '2026-08-21',
  trigger: 'breakdown',
}
const finds = (query: Partial<SheetQuery>) => isLookedFor(sheet, { ...any, ...query })

test('a sheet is found by every word that stands on it, wherever that is', () => {
  expect(finds({})).toBe(true)
  expect(finds({ words: 'T-04 weeping' })).toBe(true)
  expect(finds({ words: 'silo p-04 seals breakdown' })).toBe(true)
  expect(finds({ words: 'T-04 plungers' })).toBe(false)
})

test('and by what is chosen, all of it together', () => {
  expect(finds({ person: 'H. Lindqvist', month: '2026-08', damage: 'torn', breakdown: true })).toBe(true)
  expect(finds({ person: 'L. Varga' })).toBe(false)
  expect(finds({ month: '2026-09' })).toBe(false)
  expect(finds({ damage: 'pitting' })).toBe(false)
  expect(finds({ cause: 'Cavitation: starved or hot inlet, air drawn in' })).toBe(true)
  expect(finds({ cause: 'Dirt' })).toBe(false)
  expect(isLookedFor({ ...sheet, trigger: 'planned' }, { ...any, breakdown: true })).toBe(false)
})

test('law: what is narrowed further is never more', () => {
  const query = fc.record({
    words: fc.constantFrom('', 't-04', 'seals', 'nothing of it'),
    person: fc.constantFrom('', 'M. Osei', 'L. Varga'),
    month: fc.constantFrom('', '2026-08', '2026-09'),
    damage: fc.constantFrom('', 'torn', 'pitting'),
    cause: fc.constantFrom('', 'Dirt'),
    breakdown: fc.boolean(),
  })
  fc.assert(
    fc.property(query, fc.constantFrom('words', 'person', 'month', 'damage', 'cause'), (asked, field) => {
      if (finds(asked)) expect(finds({ ...asked, [field]: '' })).toBe(true)
    }),
  )
})
