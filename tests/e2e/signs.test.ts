import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import ICAL from 'ical.js'
import type { ElementHandle } from 'puppeteer-core'
import type { Person } from '../support/browser'
import { demoApp } from '../support/demo'

const demo = demoApp()
jest.setTimeout(180_000)

/** Presses a button of the row of Today that has these words. */
const inRow = (person: Person, words: string[], button: string) =>
  person.page.$$eval(
    '.today li',
    (rows, wanted, name) =>
      [
        ...rows
          .find((row) => wanted.every((word) => row.textContent!.includes(word)))!
          .querySelectorAll<HTMLElement>('button, a'),
      ]
        .find((each) => each.textContent === name)!
        .click(),
    words,
    button,
  )

test('a sign is entered with its figures, brings one cylinder forward, is told on Today, and is settled there', async () => {
  const person = await demo.someone('technician')
  await person.goTo('/fleet/T-12')
  await person.press('Report a sign')
  await person.sees('What was seen?')
  await person.press('Report it')
  await person.sees('Choose what was seen.')
  await person.choose('Seen on', 'P-12 Ostrel P3-200')
  await person.choose('Sign', 'Pressure low')
  // Cheap and safe before what opens the pump; half of the figures is refused and nothing is lost.
  await person.sees('First checks, cheapest and safest first')
  await person.type('In words', 'gauge at 150, foam lance gone')
  await person.type('Nozzle size', '5')
  await person.type('Pressure', '150')
  await person.press('Report it')
  await person.sees('All four figures are needed to compare')
  await person.type('Flow', '14')
  await person.type('Usual flow', '16')
  await person.sees('Look at the by-pass line first')
  const likely = await person.page.$$eval('[role=dialog] .likely li .strong', (all) =>
    all.map((each) => each.textContent),
  )
  expect(likely[0]).toBe('Unloader')
  await person.choose('Sign', 'Weep or drip at a weep hole')
  await person.type('Drips a minute', '12')
  await person.choose('Brings forward', 'Renew plungers (likely)')
  await person.press('Plunger, cylinder 3')
  expect(await person.holds('To be seen to by')).toBe('19/10/2026')
  await person.press('Report it')
  await person.sees('It stands on Today until it is settled.')
  await person.sees('brings forward: Renew plungers, cylinder 3')

  await person.goTo('/today')
  const told = await person.row('T-12', 'Renew plungers')
  expect(told).toContain('gauge at 150, foam lance gone, 12 drips a minute')
  expect(told).toContain('brought forward')
  await person.goTo('/fleet/pumps/P-12')
  expect(await person.row('Renew plungers', 'cylinder 3')).toContain('by 19 Oct')
  await person.goTo('/today')
  await inRow(person, ['T-12', 'Renew plungers'], 'Settle')
  await person.sees('How did it end?')
  await person.press('Settle it')
  await person.sees('Say how it ended.')
  await person.press('It came from somewhere else')
  await person.type('What was found or done', 'hose end above it')
  await person.press('Settle it')
  await person.sees('goes by its own limit again')
  await person.page.waitForFunction(
    () => !document.querySelector('.today')!.textContent!.includes('gauge at 150'),
  )
  await person.goTo('/fleet/T-12')
  await person.press('One settled')
  await person.sees('It came from somewhere else: hose end above it')
  await person.press('Open again')
  await person.sees('It stands on Today again.')
})

test('a sign that nobody has looked at is a row of its own and leads to its first checks', async () => {
  const person = await demo.someone('viewer')
  await person.goTo('/today')
  expect(await person.row('S-02', 'Pressure pulsing')).toContain('Rattles when the tank is low')
  await inRow(person, ['S-02', 'Pressure pulsing'], 'First checks')
  await person.page.waitForFunction(() => location.hash === '#signs')
  await person.press('First checks')
  await person.sees('Water supply: tank level, valves open')
  await person.sees('The maker’s manual, local rules and qualified people come first.')
})

test('an early check is recorded from Today; what it found becomes a sign that names the service', async () => {
  const person = await demo.someone('technician')
  await person.goTo('/today')
  await person.page.select('[aria-label="Kind"]', 'earlyCheck')
  expect(await person.row('T-12', 'Early check')).toMatch(/of 20\sh/)
  await inRow(person, ['T-12', 'Early check'], 'Record')
  await person.sees('What did it show?')
  await person.press('Something was found')
  await person.press('Record the check')
  await person.sees('Say what was found.')
  await person.choose('Sign', 'Oil leak')
  await person.type('In words', 'oil film at the filter housing')
  await person.press('Record the check')
  await person.sees('The check is on the record.')
  await person.page.select('[aria-label="Kind"]', 'sign')
  await person.sees('oil film at the filter housing')
  expect(await person.row('T-12', 'Oil leak')).toContain('oil film at the filter housing')
  await person.goTo('/fleet/pumps/P-12')
  await person.sees('after the service on sheet')
})

test('any figure opens what it was made from', async () => {
  const person = await demo.someone('viewer')
  await person.goTo('/fleet/pumps/P-11')
  await person.page.$$eval('.clocks tr', (rows) =>
    [...rows]
      .find((row) => row.textContent!.includes('Renew outlet valves'))!
      .querySelector<HTMLElement>('.figure-button')!
      .click(),
  )
  await person.sees('Last responsible day')
  const worked = (
    await person.page.$eval('.worked-out', (table) => (table as HTMLElement).innerText)
  ).replaceAll('\u00a0', ' ')
  expect(worked).toContain('Limit by hours\t900 h')
  expect(worked).toContain('its own limit: Sand in the dock water')
  expect(worked).toMatch(
    /less 0 days for parts less 2 days’ notice|less \d+ days for parts less 2 days’ notice/,
  )
  expect(worked).toMatch(/Use to come\tabout [\d.]+ h a day/)
})

test('a part is moved to another bore from its cell, and its hours go with it', async () => {
  const person = await demo.someone('coordinator')
  await person.goTo('/fleet/pumps/P-07')
  await person.page.waitForSelector('.position-grid button')
  const press = (row: string, column: number) =>
    person.page.$$eval(
      '.position-grid tr',
      (rows, name, at) =>
        [...rows]
          .find((each) => each.textContent!.startsWith(name))!
          .querySelectorAll<HTMLElement>('button')
          [at]!.click(),
      row,
      column,
    )
  await press('Outlet valve', 0)
  await person.sees('Lives at outlet valve, cylinder 1')
  await person.press('Moved to another bore')
  await person.sees('Where did the part of outlet valve, cylinder 1 go?')
  await person.press('Note the move')
  await person.sees('Choose where it goes.')
  await person.choose('It went to', 'Inlet valve, cylinder 2')
  await person.press('Note the move')
  await person.sees('Its hours went with it.')
  await person.sees('Moved to inlet valve, cylinder 2')
})

test('what a pump was taken over with is entered part by part', async () => {
  const person = await demo.someone('coordinator')
  await person.goTo('/fleet/pumps/P-07')
  await person.press('Taken over with')
  await person.sees('when it was taken over?')
  const first = await person.page.$eval('.take-over-line legend', (each) => each.textContent!)
  const id = await person.page.$eval('.take-over-line input', (each) => each.id)
  await person.page.click(`[id="${id}"]`, { count: 3 })
  await person.page.keyboard.type('12')
  await person.page.select('.take-over-line select', 'known')
  await person.press('Save', '[role=dialog]')
  await person.sees('Their clocks go by it.')
  await person.sees(`was taken over with: ${first} 12 h`)
})

test('a calendar link is made, read by a calendar without signing in, and revoked', async () => {
  const person = await demo.someone('coordinator')
  await person.goTo('/settings?part=calendars')
  await person.press('Make a calendar link')
  await person.press('Make the link')
  await person.sees('Say whose calendar it goes into.')
  await person.type('For whose calendar', 'Office wall')
  await person.choose('Yard', 'Harbour yard')
  await person.press('Make the link')
  await person.sees('Copy this link now; it is not shown again.')
  const link = await person.page.$eval('.made-link', (field) => (field as HTMLInputElement).value)
  const answer = await fetch(link)
  expect([answer.status, answer.headers.get('content-type')]).toEqual([200, 'text/calendar; charset=utf-8'])
  const calendar = new ICAL.Component(ICAL.parse(await answer.text()))
  const events = calendar.getAllSubcomponents('vevent').map((each) => new ICAL.Event(each).summary)
  expect(events.length).toBeGreaterThan(5)
  expect(events.some((title) => title.includes('T-04'))).toBe(true)
  // T-12 stands in the other yard.
  expect(events.some((title) => title.includes('T-12'))).toBe(false)
  await person.press('Revoke')
  await person.sees('It cannot be brought back')
  await person.press('Revoke it')
  await person.sees('The link is revoked.')
  const gone = await fetch(link)
  expect([gone.status, await gone.text()]).toEqual([
    410,
    'This calendar link was revoked. Ask a coordinator for a new one.',
  ])
  expect((await fetch(link.replace(/.{9}\.ics$/, 'invented1.ics'))).status).toBe(404)
})

test('a PDF is kept with its machine, opened, and taken off; what is no photo is refused by name', async () => {
  const person = await demo.someone('coordinator')
  await person.goTo('/fleet/T-14')
  await person.sees('Photos of plates and joints')
  const folder = mkdtempSync(path.join(tmpdir(), 'atelier-files-'))
  const file = (name: string, text: string) => {
    writeFileSync(path.join(folder, name), text)
    return path.join(folder, name)
  }
  const input = (await person.page.$('input[type=file]')) as ElementHandle<HTMLInputElement>
  await input.uploadFile(file('wiring.pdf', '%PDF-1.4\n% a page'), file('notes.jpg', 'not a photo'))
  await person.sees('“notes.jpg” is neither a photo')
  await person.sees('It is kept with the machine.')
  await person.sees('wiring.pdf')
  const answer = await person.page.evaluate(async () => {
    const link = [...document.querySelectorAll('a')].find((each) => each.textContent === 'wiring.pdf')!
    const got = await fetch(link.href)
    return [got.status, got.headers.get('content-type'), (await got.text()).slice(0, 8)]
  })
  expect(answer).toEqual([200, 'application/pdf', '%PDF-1.4'])
  await person.press('Take off wiring.pdf')
  await person.press('Take it off')
  await person.sees('It is taken off.')
  await person.sees('Photos of plates and joints')
  rmSync(folder, { recursive: true })
})

test('a service that was put off comes back for a new sign on one cylinder, and says so', async () => {
  const person = await demo.someone('coordinator')
  await person.goTo('/today')
  await person.page.select('[aria-label="Kind"]', 'bundle')
  const seals = ['P-04', 'Renew high-pressure seals']
  await inRow(person, seals, 'Later')
  await person.type('Until', '2026-11-02')
  await person.type('Why it can wait', 'hull job first')
  await person.press('Put it off')
  await person.sees('It comes back on that day, or before if something new or worse comes up.')
  await person.page.waitForFunction(
    ([pump, service]) =>
      ![...document.querySelectorAll('.today-row')].some(
        (row) => row.textContent!.includes(pump!) && row.textContent!.includes(service!),
      ),
    {},
    seals,
  )

  // Somebody sees it weep under one of its cylinders.
  await person.goTo('/fleet/pumps/P-04')
  await person.press('Report a sign')
  await person.choose('Sign', 'Weep or drip at a weep hole')
  await person.type('In words', 'wet under the first one')
  await person.type('Drips a minute', '12')
  const service = await person.page.$$eval('[role=dialog] option', (all) =>
    all.map((each) => each.textContent!).find((each) => each.startsWith('Renew high-pressure seals')),
  )
  await person.choose('Brings forward', service!)
  await person.press('High-pressure seal, cylinder 1')
  await person.press('Report it')
  await person.sees('It stands on Today until it is settled.')
  await person.goTo('/today')
  const back = await person.row('P-04', 'Renew high-pressure seals', 'cylinder 1')
  expect(back).toContain('Something new came up: put off until 2 Nov by H. Lindqvist (hull job first)')
  // Cylinder 2, put off with it, stays away.
  expect(await person.row('P-04', 'Renew high-pressure seals', 'cylinder 2', 'Book')).toBe('')
})
