import fc from 'fast-check'
import {
  causes,
  damageKeys,
  damagesOf,
  dispositionRefusal,
  findingSortKeys,
  findingWords,
  matesOf,
  probableCauses,
  usualDisposition,
  type Damage,
  type FindingSort,
  type SeenDamage,
} from '@/core/inspection'
import { dutyFactors, type DutyKey } from '@/core/wear'

const seen = (
  sort: FindingSort,
  damages: Damage[],
  index = 1,
  extent: SeenDamage['extent'] = '',
): SeenDamage => ({
  sort,
  name: `${sort}, cylinder ${index}`,
  index,
  damages,
  extent,
})
const strongest = (findings: SeenDamage[], duties: DutyKey[] = []) =>
  probableCauses(findings, duties)[0]?.cause

describe('each row of the evidence table points where the handbook says', () => {
  test.each<[FindingSort, Damage, keyof typeof causes]>([
    ['valve', 'pitting', 'cavitation'],
    ['manifold', 'pitting', 'cavitation'],
    ['plunger', 'scoring', 'grit'],
    ['seal', 'scoring', 'grit'],
    ['valve', 'wornTaper', 'grit'],
    ['seal', 'glazed', 'heat'],
    ['seal', 'flattened', 'heat'],
    ['seal', 'melted', 'heat'],
    ['seal', 'extrusion', 'overPressure'],
    ['seal', 'torn', 'overPressure'],
    ['seal', 'swollen', 'chemical'],
    ['plunger', 'crack', 'mechanical'],
    ['oring', 'cut', 'assembly'],
    ['oil', 'milky', 'waterInOil'],
    ['oil', 'rising', 'waterInOil'],
    ['oil', 'metal', 'bearings'],
    ['bearing', 'play', 'bearings'],
    ['manifold', 'crack', 'frost'],
  ])('%s %s -> %s', (sort, damage, cause) => {
    expect(strongest([seen(sort, [damage])])).toBe(cause)
  })
})

test('evidence combines as 1 - Π(1 - w), and the same on further cylinders speaks half as much again each', () => {
  const one = probableCauses([seen('valve', ['pitting'])])[0]!
  expect(one.strength).toBeCloseTo(0.5)
  const three = probableCauses([1, 2, 3].map((index) => seen('valve', ['pitting'], index)))[0]!
  // 0.5 × (1 + 0.5 × 2) = 1, capped at 0.9.
  expect(three.strength).toBeCloseTo(0.9)
  const two = probableCauses([seen('valve', ['pitting'], 1, 'slight'), seen('valve', ['washout'], 2)])[0]!
  // 0.5 × 0.6 and 0.25: 1 - 0.7 × 0.75.
  expect(two).toMatchObject({ cause: 'cavitation', says: 'speaks for' })
  expect(two.strength).toBeCloseTo(0.475)
  expect(two.evidence.map(({ words }) => words)).toEqual([
    'Pitted: valve, cylinder 1; bubbles collapse on plate and seat',
    'Stepped or washed out: valve, cylinder 2; the plate pounds its seat',
  ])
})

test('hard duty strengthens what a finding speaks for and is no evidence by itself', () => {
  expect(probableCauses([], ['hotInlet', 'starvedInlet'])).toEqual([])
  const plain = probableCauses([seen('valve', ['pitting'])])[0]!
  const starved = probableCauses([seen('valve', ['pitting'])], ['starvedInlet'])[0]!
  expect(starved.strength).toBeCloseTo(1 - 0.5 * 0.7)
  expect(starved.strength).toBeGreaterThan(plain.strength)
  expect(starved.evidence.map(({ words }) => words)).toContain('Its duty: starved or lifted inlet')
  // Heat and dry running are as likely by the look alone; the duty tells them apart.
  const glazed = [seen('seal', ['glazed'])]
  const duty = probableCauses(glazed, ['longBypass'])
  expect(duty[0]!.cause).toBe('heat')
  expect(duty[0]!.strength - duty[1]!.strength).toBeGreaterThan(
    probableCauses(glazed)[0]!.strength - probableCauses(glazed)[1]!.strength,
  )
})

test('a cause says what to check on the machine, what only looks first, each with its caution', () => {
  const [cavitation] = probableCauses([seen('valve', ['pitting'])])
  expect(cavitation!.checks.map(({ key }) => key)).toEqual(['tankLevel', 'inletTemp', 'strainer', 'suction'])
  expect(cavitation!.checks.every(({ risk }) => risk === 'look')).toBe(true)
  const [water] = probableCauses([seen('oil', ['milky'])])
  expect(water!.checks.at(-1)).toMatchObject({ risk: 'running', caution: expect.stringContaining('injects') })
})

const anyFinding = fc
  .record({
    sort: fc.constantFrom(...findingSortKeys),
    index: fc.integer({ min: 1, max: 4 }),
    damages: fc.subarray(damageKeys, { maxLength: 4 }),
    extent: fc.constantFrom('', 'slight', 'clear', 'severe') as fc.Arbitrary<SeenDamage['extent']>,
  })
  .map(({ sort, index, damages, extent }) => seen(sort, damages, index, extent))
const anyDuties = fc.subarray(Object.keys(dutyFactors) as DutyKey[])

test('laws: order does not matter, more evidence never weakens, nothing is ever certain', () => {
  fc.assert(
    fc.property(fc.array(anyFinding, { maxLength: 6 }), anyDuties, anyFinding, (findings, duties, more) => {
      const ranking = probableCauses(findings, duties)
      expect(probableCauses([...findings].reverse(), [...duties].reverse())).toEqual(ranking)
      const after = probableCauses([...findings, more], duties)
      for (const before of ranking) {
        const same = after.find(({ cause }) => cause === before.cause)!
        expect(same.strength).toBeGreaterThanOrEqual(before.strength - 1e-9)
        expect(before.strength).toBeLessThan(1)
        expect(before.strength).toBeGreaterThan(0)
      }
      for (let at = 1; at < ranking.length; at += 1)
        expect(ranking[at - 1]!.strength).toBeGreaterThanOrEqual(ranking[at]!.strength)
    }),
  )
})

test.each<[FindingSort, Damage[], boolean, string]>([
  ['seal', [], true, 'renew'],
  ['valve', [], false, 'reuse'],
  ['seal', ['flattened'], false, 'renew'],
  ['seal', ['extrusion'], true, 'renewMate'],
  ['plunger', ['scoring'], false, 'renewMate'],
  ['valve', ['dirt', 'scale'], false, 'clean'],
  ['valve', ['dirt', 'pitting'], false, 'renew'],
  ['manifold', ['crack'], false, 'stop'],
  ['oil', ['metal'], true, 'stop'],
  ['oil', ['milky'], true, 'renew'],
  ['oring', ['cut'], false, 'renew'],
])('%s with %j, always renewed %s: usually %s', (sort, damages, always, disposition) => {
  expect(usualDisposition(sort, damages, always)).toBe(disposition)
})

test('what may go back: never a crack; what is always renewed, and a damaged elastomer, only with a reason', () => {
  expect(dispositionRefusal('plunger', ['crack'], 'reuse', false, 'no other here')).toMatch(/never goes back/)
  expect(dispositionRefusal('seal', [], 'reuse', true, '')).toMatch(/always renewed/)
  expect(dispositionRefusal('seal', [], 'reuse', true, 'no part left')).toBeNull()
  expect(dispositionRefusal('oilSeal', ['flattened'], 'clean', false, '')).toMatch(/damaged seal is renewed/)
  expect(dispositionRefusal('valve', ['pitting'], 'reuse', false, '')).toMatch(/Say why it goes back/)
  expect(dispositionRefusal('valve', ['dirt'], 'clean', false, '')).toBeNull()
  expect(dispositionRefusal('valve', ['pitting'], 'renew', false, '')).toBeNull()
})

test('the usual decision always holds by the rules, whatever is seen', () => {
  fc.assert(
    fc.property(anyFinding, fc.boolean(), ({ sort, damages }, always) => {
      const usual = usualDisposition(sort, damages, always)
      expect(dispositionRefusal(sort, damages, usual, always, '')).toBeNull()
    }),
  )
})

test('every sort is looked at for something, its mates are on the same cylinder, and findings read as words', () => {
  for (const sort of findingSortKeys) expect(damagesOf[sort].length).toBeGreaterThan(2)
  expect(matesOf('seal')).toEqual(['plunger'])
  expect(matesOf('valve')).toEqual([])
  expect(findingWords(['pitting', 'spring'], 'clear')).toBe('Pitted, weak or broken spring (clear)')
  expect(findingWords([], '')).toBe('Nothing seen')
})
