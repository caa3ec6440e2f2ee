import fc from 'fast-check'
import { dayListOf, type DayVisit } from '@/core/plan'

const tool = (name: string, more = {}) => ({
  ...{ key: name, name, special: false, temporary: false, removalOnly: false },
  ...{ torqueWrench: false, contingency: false },
  ...more,
})
const line = (number: string, quantity: number, more = {}) => ({
  ...{ key: `lot-${number} yard ${number}`, partId: number, number, name: number, unit: 'piece', bin: 'A-1' },
  ...{ place: 'Harbour yard', lotId: `lot-${number}`, placeId: 'yard', lot: 'lot 12', expiresOn: null },
  ...{ quantity, leftOver: false },
  ...more,
})
const visit = (number: number, more = {}, pick = {}) =>
  ({
    visit: {
      ...{ id: `${number}`, number, machineNumber: `T-${number}`, machineName: '', minutes: 60, helpers: [] },
      ...{ helperMinutes: 0, services: [], tools: [], consumables: [], qualifications: [], steps: [] },
      ...more,
    },
    pick: { take: [], open: [], afterOpening: [], short: [], picked: [], spares: [], unknown: [], ...pick },
  }) as unknown as DayVisit

test('parts add up over the visits by lot and bin, a tool is taken once, drops are summed', () => {
  const need = (quantity: number) => ({ name: 'thread lubricant', quantity, unit: 'mL', applications: 4 })
  const list = dayListOf([
    visit(
      4,
      {
        tools: [tool('8 mm key'), tool('Puller', { special: true, contingency: true })],
        consumables: [need(1.2)],
      },
      { take: [line('HP-20', 3)] },
    ),
    visit(
      7,
      { tools: [tool('8 mm key'), tool('Puller', { special: true })], consumables: [need(0.6)] },
      { take: [line('HP-20', 2), line('OR-9', 1)] },
    ),
  ])
  expect(
    list.parts.map(({ number, quantity, bin, lot, visits }) => [number, quantity, bin, lot, visits]),
  ).toEqual([
    ['HP-20', 5, 'A-1', 'lot 12', ['0004', '0007']],
    ['OR-9', 1, 'A-1', 'lot 12', ['0007']],
  ])
  // In case on one visit and for certain on the other: for certain.
  expect(list.tools.map(({ name, visits }) => [name, visits])).toEqual([
    ['Puller', ['0004', '0007']],
    ['8 mm key', ['0004', '0007']],
  ])
  expect(list.toolsInCase).toEqual([])
  expect(list.consumables).toMatchObject([{ quantity: 1.8, applications: 8, visits: ['0004', '0007'] }])
  expect(list.minutes).toBe(120)
})

test('what lies in another yard is to be brought over, and only the rest is short', () => {
  const short = {
    ...{ partId: 'p', number: 'PL-20', name: 'plunger', unit: 'piece', quantity: 3 },
    transfers: [{ lotId: 'l', lot: 9, placeId: 'y', place: 'Upland yard', quantity: 2 }],
  }
  const list = dayListOf([visit(4, {}, { short: [short] })])
  expect(list.parts).toMatchObject([{ number: 'PL-20', quantity: 2, lies: 'away', place: 'Upland yard' }])
  expect(list.short).toEqual([{ name: 'PL-20 plunger', quantity: 1, unit: 'piece', visits: ['0004'] }])
})

test('what is wanted first goes in last; each heavy lift is told once', () => {
  const lift = { text: 'Lift the head off', where: '', lift: 'with help: 28 kg', caution: '' }
  const list = dayListOf([
    visit(4, { steps: [lift, lift], tools: [tool('Slide hammer', { special: true }), tool('8 mm key')] }),
    visit(7),
  ])
  expect(list.lifts).toEqual([{ words: 'with help: 28 kg', what: 'Lift the head off', visit: '0004' }])
  expect(list.loading.map(({ what }) => what)).toEqual([
    'Lifting gear',
    'Slide hammer',
    'Bag of visit 0007, T-7',
    'Bag of visit 0004, T-4',
    'Hand tools, locks and tags',
  ])
})

test('law: the union loses nothing and doubles nothing', () => {
  const names = fc.constantFrom('a', 'b', 'c', 'd')
  const some = fc.array(
    fc.record({
      tools: fc.uniqueArray(names),
      take: fc.uniqueArray(fc.tuple(names, fc.integer({ min: 1, max: 9 })), { selector: ([name]) => name }),
    }),
    { maxLength: 6 },
  )
  fc.assert(
    fc.property(some, (visits) => {
      const list = dayListOf(
        visits.map(({ tools, take }, at) =>
          visit(
            at + 1,
            { tools: tools.map((name) => tool(name)) },
            { take: take.map(([name, count]) => line(name, count)) },
          ),
        ),
      )
      expect(list.tools.map(({ name }) => name).sort()).toEqual(
        [...new Set(visits.flatMap(({ tools }) => tools))].sort(),
      )
      for (const name of ['a', 'b', 'c', 'd']) {
        const wanted = visits.flatMap(({ take }) => take).filter(([each]) => each === name)
        const sum = wanted.reduce((all, [, count]) => all + count, 0)
        expect(list.parts.filter(({ number }) => number === name).map(({ quantity }) => quantity)).toEqual(
          sum > 0 ? [sum] : [],
        )
      }
      expect(list.loading.filter(({ what }) => what.startsWith('Bag'))).toHaveLength(visits.length)
    }),
  )
})
