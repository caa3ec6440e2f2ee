import fc from 'fast-check'
import { inWalkingOrder, readMessage, usePerWeek } from '@/core/round'

const machines = [
  { number: 'T-04', name: 'silo trailer' },
  { number: 'T-09', name: 'hull trailer' },
  { number: 'T-1', name: 'old trailer' },
  { number: 'T-12', name: 'quarry trailer' },
  { number: 'V-12', name: 'market van' },
]

const stop = (number: string, yardName: string, bay: string, crew = '') => ({ number, yardName, bay, crew })

test('by crew each crew’s machines come together, nobody’s own last', () => {
  const order = inWalkingOrder(
    [
      stop('K-01', 'Harbour yard', '1'),
      stop('T-12', 'Upland yard', '1', 'crew 2'),
      stop('T-04', 'Harbour yard', '4', 'crew 10'),
      stop('T-09', 'Harbour yard', '2', 'crew 2'),
    ],
    'crew',
  )
  expect(order.map((each) => each.number)).toEqual(['T-09', 'T-12', 'T-04', 'K-01'])
})

test('the round walks yard by yard and bay by bay, 2 before 11, without a bay last', () => {
  const order = inWalkingOrder([
    stop('T-12', 'Upland yard', '1'),
    stop('V-11', 'Harbour yard', '11'),
    stop('K-01', 'Harbour yard', ''),
    stop('T-09', 'Harbour yard', '2'),
    stop('T-04', 'Harbour yard', '2'),
  ])
  expect(order.map((each) => each.number)).toEqual(['T-04', 'T-09', 'V-11', 'K-01', 'T-12'])
})

test.each([
  ['T-04 5246.8', 'T-04', '5246.8'],
  ['t04: 5 246,8 h', 'T-04', '5 246,8'],
  ['T 04 = 5246.8', 'T-04', '5246.8'],
  ['5246.8 on T-04.', 'T-04', '5246.8'],
  ['hull trailer 4835.1', 'T-09', '4835.1'],
  ['Market van: 1,290.5 this morning', 'V-12', '1,290.5'],
  ['T-12 3101.0', 'T-12', '3101.0'],
  ['T-1 88.2', 'T-1', '88.2'],
])('“%s” is %s at %s', (text, number, typed) => {
  expect(readMessage(text, machines, [])).toEqual([{ text, number, typed, doubt: '' }])
})

test.each([
  ['Z-99 12', 'Names no machine.'],
  ['T-04 will text later', 'Has no value.'],
  ['T-04 5246 5250', 'Has more than one number.'],
])('“%s” is kept with its doubt: %s', (text, doubt) => {
  expect(readMessage(text, machines, [])[0]!.doubt).toBe(doubt)
})

test('a machine named twice is doubted both times, and several lines are read one by one', () => {
  const lines = readMessage('T-04 5246.8\n\nT-09 4835.1; V-12 1290\nT04 5247.0', machines, [])
  expect(lines.map(({ number, doubt }) => [number, doubt])).toEqual([
    ['T-04', 'T-04 is named twice.'],
    ['T-09', ''],
    ['V-12', ''],
    ['T-04', 'T-04 is named twice.'],
  ])
})

test('a bare column is for the machines still to read, in order; what is too much is said', () => {
  const lines = readMessage('5246.8\n4 835,1\n12', machines, ['T-04', 'T-09'])
  expect(lines.map(({ number, typed, doubt }) => [number, typed, doubt])).toEqual([
    ['T-04', '5246.8', ''],
    ['T-09', '4 835,1', ''],
    [null, '12', 'There are more values than machines to read.'],
  ])
})

test('law: whatever is pasted, no line is lost and nothing is thrown', () => {
  fc.assert(
    fc.property(fc.array(fc.string({ maxLength: 30 })), (lines) => {
      const text = lines.join('\n')
      const kept = text
        .split(/\r?\n|;/)
        .map((line) => line.replace(/\t/g, ' ').trim())
        .filter(Boolean)
      expect(readMessage(text, machines, []).map((line) => line.text)).toEqual(kept)
    }),
  )
})

test('use by week, oldest first; nothing is said of weeks before the first reading', () => {
  const day = (index: number) => new Date(Date.UTC(2026, 0, 1 + index)).toISOString()
  const points = [0, 7, 14].map((at) => ({ at: day(at), hours: at * 3 }))
  const hoursAt = (at: string) => ((Date.parse(at) - Date.parse(day(0))) / 86_400_000) * 3
  expect(usePerWeek(points, day(14), 3, hoursAt)).toEqual([null, 21, 21])
})
