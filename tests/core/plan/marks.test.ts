import fc from 'fast-check'
import { endedBy, markOn, serviceSubject, type MarkedAs } from '@/core/plan'

const seals = (...cylinders: number[]) => cylinders.map((index) => `hpSeal@${index}`)
const row = (positions: string[], more: Partial<MarkedAs> = {}) => ({
  subject: serviceSubject('p12', 'hpSeals', positions),
  positions,
  severity: 1,
  grounds: [] as string[],
  ...more,
})
const mark = (positions: string[], more: Partial<MarkedAs> = {}) => {
  const { subject, ...about } = row(positions, more)
  return { subject, about }
}

test('a mark belongs to a task and its positions: also to some of them, never to others', () => {
  const all = mark(seals(1, 2, 3))
  expect(markOn(all, row(seals(1, 2, 3)))).toBe(true)
  // A cylinder that got a row of its own is still one of those put off; so are the two that are left.
  expect(markOn(all, row(seals(2)))).toBe(true)
  expect(markOn(all, row(seals(1, 3)))).toBe(true)
  // One cylinder put off says nothing of the other two, though the row begins with the same one.
  expect(markOn(mark(seals(1)), row(seals(1, 2, 3)))).toBe(false)
  expect(markOn(all, { ...row(seals(1)), subject: serviceSubject('p12', 'lpSeals', seals(1)) })).toBe(false)
  expect(markOn(all, { ...row(seals(1)), subject: serviceSubject('p14', 'hpSeals', seals(1)) })).toBe(false)
})

test('a new sign ends it, and so does a worse state; what was known does not', () => {
  const known = mark(seals(1, 2, 3), { grounds: ['sign-a'] })
  expect(endedBy(known, row(seals(1, 2, 3), { grounds: ['sign-a'] }))).toBeNull()
  expect(endedBy(known, row(seals(2), { grounds: ['sign-a', 'sign-b'] }))).toBe('new')
  expect(endedBy(known, row(seals(1), { severity: 2 }))).toBe('worse')
  // Healthier than it was, with the sign settled: nothing to come back for.
  expect(endedBy(known, row(seals(1), { severity: 0 }))).toBeNull()
})

test('what was put off before anybody noted what it was about holds for that very row, until a sign comes', () => {
  const old = { subject: serviceSubject('p12', 'hpSeals', seals(1, 2, 3)), about: null }
  expect(markOn(old, row(seals(1, 2, 3)))).toBe(true)
  expect(markOn(old, row(seals(2, 3)))).toBe(false)
  expect(endedBy(old, row(seals(1, 2, 3)))).toBeNull()
  expect(endedBy(old, row(seals(1), { grounds: ['sign'] }))).toBe('new')
})

test('law: a row with a sign that the mark did not know is never swallowed', () => {
  const set = fc.subarray(['a', 'b', 'c', 'd'])
  fc.assert(
    fc.property(set, set, set, set, fc.nat(3), fc.nat(3), (marked, shown, knew, has, was, is) => {
      const one = mark(marked, { grounds: knew, severity: was })
      const now = row(shown, { grounds: has, severity: is })
      const swallowed = markOn(one, now) && endedBy(one, now) === null
      const unknown = has.some((each) => !knew.includes(each)) || shown.some((each) => !marked.includes(each))
      if (unknown || is > was) expect(swallowed).toBe(false)
    }),
  )
})
