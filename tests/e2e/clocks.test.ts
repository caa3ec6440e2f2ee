import { readFileSync } from 'node:fs'
import type { Person } from '../support/browser'
import { demoApp } from '../support/demo'

const demo = demoApp()

jest.setTimeout(180_000)

const coordinator = () => demo.someone('coordinator')

/** The words of the first list row that contains all of these. */
const row = (person: Person, ...words: string[]) => person.row(...words)

test('Today lists services by the last day on which acting is in time, and each row leads to its pump', async () => {
  const person = await coordinator()
  await person.goTo('/today')
  await person.sees('Wednesday 14 October')
  // By the last day on which acting is in time: what is late already, then day after day.
  const acts = await person.page.$$eval('.due-row', (rows) =>
    rows.map(
      (each) =>
        (each as HTMLElement).innerText
          .replaceAll('\u00a0', ' ')
          .match(/act (now|by (\d+ )?[A-Z][a-z]{2}( \d{4})?)/)![0],
    ),
  )
  expect(acts.length).toBeGreaterThan(5)
  const days = acts.map((act) =>
    act === 'act now' ? 0 : Date.parse(`${/\d{4}$/.test(act) ? act.slice(7) : `${act.slice(7)} 2026`} UTC`),
  )
  expect(days).toEqual([...days].sort((a, b) => a - b))
  expect(await row(person, 'T-04', 'Renew high-pressure seals', 'cylinders 1 and 2')).toContain('past')
  expect(await row(person, 'T-09', 'One reading in doubt')).toContain('Settle')
})

test('a reading moves the clocks of its pumps; recording the renewal takes the part off Today', async () => {
  const person = await coordinator()
  await person.goTo('/fleet/pumps/P-31')
  expect(await row(person, 'Renew inlet filter element')).toContain('102 of 100 h')
  await person.goTo('/fleet/R-03')
  await person.press('Add reading')
  await person.sees('Reading of R-03')
  const last = Number((await person.text()).match(/Last reading ([\d ]+\.\d)/)![1]!.replaceAll(' ', ''))
  await person.type('Engine hours: the meter shows', (last + 5).toFixed(1))
  await person.press('Save reading')
  await person.sees('is recorded.')
  await person.goTo('/fleet/pumps/P-31')
  const filter = await row(person, 'Renew inlet filter element')
  // 5 h of the engine are 4 h of this pump.
  expect(filter).toContain('106 of 100 h')
  await person.press('Record a renewal')
  await person.choose('Service', 'Renew inlet filter element')
  await person.type('Renewed on', '2026-10-15')
  await person.press('Record it')
  await person.sees('This day is still to come.')
  await person.type('Renewed on', '2026-10-14')
  await person.choose('Why the old part came out', 'Renewed in time')
  await person.press('Record it')
  await person.sees('The clocks of those parts start again.')
  await person.page.waitForFunction(() =>
    [...document.querySelectorAll('tr')].some((each) =>
      /inlet filter element.*\s0 of 100/s.test((each as HTMLElement).innerText.replaceAll('\u00a0', ' ')),
    ),
  )
  await person.goTo('/today')
  await person.sees('Wednesday 14 October')
  const due = await person.page.$$eval('.due-row', (rows) => rows.map((each) => each.textContent!))
  expect(due.filter((text) => text.includes('P-31') && text.includes('inlet filter'))).toEqual([])
})

test('one cylinder renewed on its own has a life of its own, in the list and in the grid', async () => {
  const person = await coordinator()
  await person.goTo('/fleet/pumps/P-12')
  await person.press('Record a renewal')
  await person.choose('Service', 'Renew high-pressure seals')
  await person.press('High-pressure seal, cylinder 1')
  await person.press('High-pressure seal, cylinder 3')
  await person.choose('Why the old part came out', 'It had failed')
  await person.type('Note', 'weeping at cylinder 2')
  await person.press('Record it')
  await person.sees('The clocks of those parts start again.')
  await person.sees('cylinders 1 and 3')
  expect(await row(person, 'Renew high-pressure seals', 'cylinder 2')).toContain('0 of 800 h')
  await person.sees('weeping at cylinder 2')
  const cells = await person.page.$$eval('.position-grid svg', (all) =>
    all.map((each) => each.getAttribute('aria-label')),
  )
  expect(
    cells.some((cell) =>
      /^0 of 800 h, healthy; the part before came out early/.test(cell!.replaceAll('\u00a0', ' ')),
    ),
  ).toBe(true)
})

test('model data is published by pasting it, and what is wrong with it is named by its path', async () => {
  const person = await coordinator()
  await person.goTo('/models')
  await person.press('Tarnwick H900')
  await person.sees('No data yet')
  await person.press('Publish its data')
  const model = JSON.parse(readFileSync('src/demo/models/ostrel-p3-200.json', 'utf8'))
  const paste = async (text: string) => {
    const field = await person.field('Model data, as JSON')
    await field.evaluate((element, value) => {
      const set = Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value')!.set!
      set.call(element, value)
      element.dispatchEvent(new Event('input', { bubbles: true }))
    }, text)
  }
  await paste('{ "format": 1 ')
  await person.press('Read it', '[role=dialog]')
  await person.sees('This is not JSON')
  await paste(
    JSON.stringify({ ...model, maker: 'Tarnwick', name: 'H900', tasks: [{ ...model.tasks[0], at: 'lid' }] }),
  )
  await person.press('Read it', '[role=dialog]')
  await person.sees('There is no “lid” among the access nodes.')
  await person.sees('tasks.0.at')
  await paste(JSON.stringify({ ...model, maker: 'Tarnwick', name: 'H900' }))
  await person.press('Read it', '[role=dialog]')
  await person.sees('Tarnwick H900, version 1: new in the library.')
  await person.press('Publish', '[role=dialog]')
  await person.sees('Tarnwick H900: version 1 is published.')
  await person.sees('40 N·m = 354 in-lb = 29.5 ft-lb')

  // Its pumps have no clocks until somebody says how old their parts are.
  await person.goTo('/fleet/pumps/P-14')
  await person.sees('Its clocks have not been started yet.')
  await person.press('Start its clocks')
  await person.sees('How old are its parts?')
  await person.press('Start the clocks')
  await person.sees('The clocks of P-14 run.')
  await person.sees('of 1 200 h')
})

test('a viewer sees the clocks and can change nothing', async () => {
  const person = await demo.someone('viewer')
  await person.goTo('/fleet/pumps/P-04')
  await person.sees('Services, most urgent first')
  expect(await person.text()).not.toContain('Record a renewal')
  await person.goTo('/models')
  expect(await person.text()).not.toContain('Add pump model')
})

test('a visit is booked from what is due, prepared, changed, and cancelled with undo; Today and Plan follow', async () => {
  const person = await coordinator()
  await person.goTo('/fleet/pumps/P-04')
  await person.press('Book a visit')
  await person.sees('Technician')
  // Whoever has least to do is chosen already.
  expect(await person.holds('Technician')).not.toBe('')
  await person.choose('Technician', 'Choose a technician')
  await person.press('Book it')
  await person.sees('Choose a technician.')
  await person.choose('Technician', 'L. Varga')
  await person.type('Day', '2026-10-01')
  await person.press('Book it')
  await person.sees('This day has passed.')
  await person.type('Day', '2026-10-16')
  await person.press('Book it')
  await person.sees('The visit is booked.')
  await person.sees('Friday 16 October')
  await person.sees('Steps, in order')
  const visit = await person.text()
  // Made safe before anything is opened, and the shared way in counted once.
  expect(visit.indexOf('Isolate and lock out')).toBeLessThan(
    visit.indexOf('Manifold off') === -1 ? Infinity : visit.indexOf('Crack all eight screws loose'),
  )
  expect(visit).toContain('Saved')
  expect(visit).toContain('any injection wound is an emergency')
  expect(visit).toContain('20 N·m = 177 in-lb = 14.8 ft-lb')
  expect(visit).toContain('Only if something stayed in the bore:')
  expect(visit).toMatch(/High-pressure seal HP-20, bin H-09\s+there\s+2/)
  const number = visit.match(/Visit (\d{4})/)![1]!

  await person.goTo('/today')
  expect(await row(person, 'T-04', 'Renew high-pressure seals', 'cylinders 1 and 2')).toMatch(/on 16 Oct/i)
  await person.goTo('/fleet/pumps/P-04')
  await person.press('Book a visit')
  await person.sees('Technician')
  // What is booked already is not offered again.
  const offered = await person.page.$$eval('[role=dialog] .choices label', (all) =>
    all.map((each) => each.textContent),
  )
  expect(offered.some((text) => text!.includes('Renew high-pressure seals, cylinders 1 and 2'))).toBe(false)
  await person.press('Cancel', '[role=dialog]')

  await person.goTo('/plan')
  await person.sees('Week of 12 Oct')
  await person.press('T-04')
  await person.sees('Steps, in order')
  await person.press('Change')
  await person.type('Day', '2026-10-20')
  await person.choose('Technician', 'T. Brandt')
  await person.press('Save')
  await person.sees('Tuesday 20 October')
  await person.sees('T. Brandt')
  await person.press('Cancel visit')
  await person.type('Why is it cancelled?', 'machine stays out')
  await person.press(`Cancel visit ${number}`)
  await person.sees('Cancelled. machine stays out')
  await person.press('Undo')
  await person.sees('stands again')
  await person.goTo('/fleet/T-04')
  await person.sees(`Visit ${number}`)
  await person.sees(`Visit ${number} booked for 16 Oct 2026`)
})
