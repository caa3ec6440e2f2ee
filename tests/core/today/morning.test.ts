import fc from 'fast-check'
import { firstOfEach, inMorningOrder, morningKinds, type MorningItem, type MorningKind } from '@/core/today'

const item = (subject: string, kind: MorningKind, actBy: string | null, weight = 0): MorningItem => ({
  subject,
  kind,
  label: subject,
  actBy,
  weight,
  yardId: null,
  lead: null,
  positions: [],
  severity: 0,
  grounds: [],
})

test('a far service whose parts take weeks stands before a near one, a meter to read between them', () => {
  const list = [
    item('near seals', 'bundle', '2026-10-18', 0.99),
    item('read R-08', 'reading', '2026-10-12'),
    item('far valves', 'bundle', '2026-10-07', 0.8),
    item('seal kits', 'part', '2026-10-14'),
    item('on the shelf', 'bundle', null, 1.2),
  ]
  expect(inMorningOrder(list).map((each) => each.subject)).toEqual([
    'far valves',
    'read R-08',
    'seal kits',
    'near seals',
    'on the shelf',
  ])
})

test('on one day visits to decide come before signs, and the more worn before the less', () => {
  const day = '2026-10-14'
  const list = [
    item('part', 'part', day),
    item('sign', 'sign', day),
    item('less worn', 'bundle', day, 0.9),
    item('more worn', 'bundle', day, 1.1),
  ]
  expect(inMorningOrder(list).map((each) => each.subject)).toEqual(['more worn', 'less worn', 'sign', 'part'])
})

test('it is the same list whatever order the rows come in, and none is lost', () => {
  const items = fc.uniqueArray(
    fc.record({
      subject: fc.string({ minLength: 1, maxLength: 6 }),
      kind: fc.constantFrom(...(Object.keys(morningKinds) as MorningKind[])),
      actBy: fc.option(fc.integer({ min: 10, max: 28 }).map((day) => `2026-10-${day}`)),
      weight: fc.integer({ min: 0, max: 3 }),
    }),
    { selector: (each) => each.subject, maxLength: 20 },
  )
  fc.assert(
    fc.property(items, fc.infiniteStream(fc.nat()), (some, noise) => {
      const list = some.map((each) => item(each.subject, each.kind, each.actBy, each.weight))
      const order = [...noise.take(list.length)]
      const shuffled = list.map((each, index) => ({ each, key: order[index]! })).sort((a, b) => a.key - b.key)
      const sorted = inMorningOrder(list)
      expect(inMorningOrder(shuffled.map(({ each }) => each))).toEqual(sorted)
      expect(new Set(sorted)).toEqual(new Set(list))
    }),
  )
})

test('a list of thousands shows the first of each kind in each yard, and says how many are left', () => {
  const many = Array.from({ length: 100 }, (_, index) => ({
    ...item(`s${index}`, 'bundle', '2026-10-14'),
    yardId: index % 2 ? 'a' : 'b',
  }))
  const { shown, left } = firstOfEach([...many, item('read', 'reading', '2026-10-20')], 10)
  expect(shown.map((each) => each.subject)).toEqual([
    ...Array.from({ length: 20 }, (_, index) => `s${index}`),
    'read',
  ])
  expect(left).toBe(80)
})
