import { servicesOn } from '@/core/plan'

const today = '2026-10-14'
const clock = (name: string, state: string, lastResponsibleDay: string | null) => ({
  task: name,
  name,
  where: '',
  positions: [`${name}@1`],
  state,
  share: 0.5,
  lastResponsibleDay,
})
const view = (number: string, ...clocks: object[]) => ({
  assemblyId: number,
  number,
  title: 'Ostrel P3-200',
  unit: 'h',
  clocks,
})
const visit = (number: number, day: string, state = 'booked', services: object[] = []) => ({
  id: `visit ${number}`,
  number,
  day,
  state,
  services,
})
const services = (views: object[], visits: object[] = []) => {
  const { now, later } = servicesOn(views as never, visits as never, today)
  return [now, later].map((list) => list.map((each) => `${each.pump.number} ${each.clock.name}`))
}
test('what a machine carries is one list, overdue first, and what is far is for later', () => {
  expect(
    services([
      view(
        'P-04',
        clock('oil', 'healthy', '2026-11-13'),
        clock('seals', 'overdue', '2026-10-02'),
        clock('plungers', 'healthy', '2027-05-01'),
      ),
      view('A-01', clock('strainer', 'dueSoon', '2026-10-20'), clock('belt', 'healthy', null)),
    ]),
  ).toEqual([
    ['P-04 seals', 'A-01 strainer', 'P-04 oil'],
    ['P-04 plungers', 'A-01 belt'],
  ])
})

test('where nothing is near the first three are told all the same', () => {
  const far = ['2028-01-01', '2027-01-01', '2029-01-01', '2030-01-01'].map((day, index) =>
    clock(`task ${index}`, 'healthy', day),
  )
  expect(services([view('P-04', ...far)])).toEqual([
    ['P-04 task 1', 'P-04 task 0', 'P-04 task 2'],
    ['P-04 task 3'],
  ])
})

test('a service tells the visit it is on, and none that is over', () => {
  const item = [{ assemblyId: 'P-04', task: 'seals', positions: ['seals@1'] }]
  const on = (state: string) =>
    servicesOn(
      [view('P-04', clock('seals', 'overdue', '2026-10-02'))] as never,
      [visit(7, '2026-10-20', state, item)] as never,
      today,
    ).now[0]!.visit?.number
  expect([on('booked'), on('inWork'), on('cancelled'), on('done')]).toEqual([7, 7, undefined, undefined])
})
