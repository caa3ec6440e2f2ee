import fc from 'fast-check'
import { foldSteps, placesWords } from '@/core/composing'

type Step = { phase: string; heading: string; where: string; text: string; stretch?: string }
const step = (text: string, where = '', more: Partial<Step> = {}): Step => ({
  phase: 'stripDown',
  heading: 'Seal stack out',
  where,
  text,
  ...more,
})
const told = (steps: Step[]) =>
  foldSteps(steps, ({ text }) => text).map(
    ({ places, runs }) => `${runs[0]!.map(({ text }) => text).join(' + ')} @ ${placesWords(places)}`,
  )
const [one, two, three] = ['cylinder 1', 'cylinder 2', 'cylinder 3']

test('one step at three cylinders is one line', () => {
  expect(told([step('look', one), step('look', two), step('look', three)])).toEqual([
    'look @ cylinders 1, 2 and 3',
  ])
})

test('several steps a cylinder stay together: through with one, then the next', () => {
  expect(
    told([
      step('prise the manifold off'),
      ...[three!, two!, one!].flatMap((at) => [step('count', at), step('press home', at)]),
    ]),
  ).toEqual(['prise the manifold off @ ', 'count + press home @ cylinder 3, then 2, then 1'])
})

test('what differs at one cylinder, or belongs to another phase, stands by itself', () => {
  expect(told([step('look', one), step('look at the burr', two), step('look', three)])).toEqual([
    'look @ cylinder 1',
    'look at the burr @ cylinder 2',
    'look @ cylinder 3',
  ])
  expect(told([step('fit', three), step('fit', two, { phase: 'rebuild' })])).toHaveLength(2)
  // The same cylinder once more is not the same work.
  expect(told([step('wipe', one), step('wipe', two), step('wipe', one)])).toHaveLength(2)
})

test('head by head, a whole stretch of phases is one', () => {
  const head = (name: string) => [
    step('open', name, { stretch: `pump/${name}` }),
    step('turn the shaft', '', { stretch: `pump/${name}` }),
    step('fit', name, { stretch: `pump/${name}`, phase: 'renew' }),
  ]
  expect(told([...head('head 1'), ...head('head 2')])).toEqual([
    'open + turn the shaft + fit @ heads 1 and 2',
  ])
})

test('law: unfolded, it is what it was, place by place, and nothing about the whole is folded', () => {
  const steps = fc.array(
    fc.record({
      phase: fc.constantFrom('stripDown', 'renew'),
      heading: fc.constantFrom('a', 'b'),
      where: fc.constantFrom('', 'cylinder 1', 'cylinder 2', 'cylinder 3'),
      text: fc.constantFrom('look', 'fit'),
    }),
    { maxLength: 14 },
  )
  fc.assert(
    fc.property(steps, (all) => {
      const folded = foldSteps<Step>(all, ({ text }) => text)
      expect(folded.flatMap(({ runs }) => runs.flat())).toEqual(all)
      for (const { places, runs } of folded) {
        expect(places).toEqual(runs.map((run) => run[0]!.where))
        expect(new Set(places).size).toBe(places.length)
        if (places.length > 1) expect(places).not.toContain('')
      }
    }),
  )
})
