import { demoApp } from '../support/demo'

const demo = demoApp()

jest.setTimeout(180_000)

test('an interval of one pump: what it moves is shown, then saved, then taken back', async () => {
  const person = await demo.someone('coordinator')
  await person.goTo('/fleet/pumps/P-12')
  await person.press('Change a limit')
  await person.choose('Service', 'Renew high-pressure seals')
  expect(await person.holds('Every')).toBe('800')
  await person.type('Every', '0')
  await person.type('Why another limit', 'seals of another make')
  await person.press('Show what it moves')
  await person.sees('A limit is more than 0; leave it blank where there is none.')
  await person.type('Every', '600')
  await person.press('Show what it moves')
  await person.sees('What it moves')
  expect(await person.row('Renew high-pressure seals', '800 h → 600 h')).toContain('overdue')
  // What was shown holds for what was typed: another figure asks again.
  await person.type('Every', '760')
  await person.press('Show what it moves')
  await person.sees('800 h → 760 h')
  await person.press('Save it')
  await person.sees('The limit is saved; the clocks go by it.')
  await person.sees('its own limit: seals of another make')
  expect(await person.row('Renew high-pressure seals', ' of 760 h')).toContain('due soon')
  await person.sees('P-12: renew high-pressure seals every 760 h')
  await person.press('Renew high-pressure seals: back to the model')
  await person.sees('goes by the model again')
  await person.page.waitForFunction(() =>
    document.body.innerText.replaceAll('\u00a0', ' ').includes(' of 800 h'),
  )
})

test('hard duty is told with where it was seen, shortens what it touches, and stands on the pump', async () => {
  const person = await demo.someone('coordinator')
  await person.goTo('/fleet/pumps/P-37')
  await person.press('Hard duty')
  await person.press('Starved or lifted inlet')
  await person.press('Show what it moves')
  await person.sees('Say where it was seen or measured.')
  await person.type('Starved or lifted inlet: seen where', 'strainer half blocked, inlet gauge below zero')
  await person.press('Show what it moves')
  await person.sees('What it moves')
  expect(await person.row('Renew high-pressure seals', '800 h → 560 h')).not.toBe('')
  await person.press('Save it')
  await person.sees('Noted; the limits it touches are shortened.')
  await person.sees('hard duty: 560, not 800 h')
  await person.sees('A pump that pulls its water cavitates')
})

test('a cell of the grid opens the lives at its position, with why each ended and the sheets', async () => {
  const person = await demo.someone('viewer')
  await person.goTo('/fleet/pumps/P-37')
  await person.page.waitForSelector('.cell-button')
  await person.page.$$eval('.cell-button', (cells) =>
    (
      cells.find((cell) => cell.closest('tr')!.textContent!.startsWith('High-pressure seal')) as HTMLElement
    ).click(),
  )
  await person.sees('Lives at high-pressure seal, cylinder 1')
  await person.sees('there now')
  const rows = await person.page.$$eval('[role=dialog] tbody tr', (all) =>
    all.map((row) => (row as HTMLElement).innerText.replaceAll('\u00a0', ' ').replace(/\s+/g, ' ')),
  )
  // The demo’s seal eater: several in two years, each with its sheet and its reason.
  expect(rows.length).toBeGreaterThan(3)
  expect(rows.filter((row) => row.includes('It had failed')).length).toBeGreaterThan(0)
  expect(rows[1]).toMatch(/sheet \d{4}.*sheet \d{4}/)
  await person.press('Close')
})

test('the due list of a yard reads by the last responsible day, and goes out as CSV and JSON', async () => {
  const person = await demo.someone('viewer')
  await person.goTo('/today')
  await person.press('Due list')
  await person.sees('Due list, all yards')
  await person.press('Upland yard')
  await person.sees('Due list, Upland yard')
  const machines = await person.page.$$eval('tbody tr td:nth-child(2) .strong', (all) =>
    all.map((each) => each.textContent),
  )
  expect(machines.length).toBeGreaterThan(0)
  const upland = 'T-12 T-14 T-15 V-21 V-22 V-24 V-25 R-08 S-03 K-02 C-01 C-02'.split(' ')
  expect(machines.filter((number) => !upland.includes(number!))).toEqual([])
  const fetched = (path: string) => person.page.evaluate(async (href) => (await fetch(href)).text(), path)
  const csv = (await fetched('/api/due?format=csv')).split('\r\n')
  expect(csv[0]).toContain('machine,name,yard,pump,model,service,where,state,used,limit,unit')
  const lines = JSON.parse(await fetched('/api/due?format=json')) as Record<string, string>[]
  expect(lines).toHaveLength(csv.length - 2)
  const actBy = lines.map((line) => line['last responsible day']!)
  expect([...actBy].sort()).toEqual(actBy)
  expect(lines.some((line) => line.machine === 'T-04' && line.service === 'Renew high-pressure seals')).toBe(
    true,
  )
})

test('from an overdue row to a booked visit by keyboard alone: down, Enter, Enter', async () => {
  const person = await demo.someone('coordinator')
  await person.goTo('/today')
  await person.sees('the last day on which acting')
  const { keyboard } = person.page
  // Down to the first row that is not on a visit already.
  const focused = () => person.page.evaluate(() => document.activeElement?.textContent?.trim() ?? '')
  for (let row = 0; row < 20 && (await focused()) !== 'Book all this'; row += 1)
    await keyboard.press('ArrowDown')
  expect(await focused()).toBe('Book all this')
  await keyboard.press('Enter')
  await person.sees('Book it')
  await person.page.waitForFunction(() => (document.activeElement as HTMLInputElement | null)?.name === 'day')
  await keyboard.press('Enter')
  // Three actions: to the row, Enter, Enter. What was due is off the list, and on a visit.
  await person.sees('Booked for')
})

test('Today is narrowed to a yard, a kind and a technician, and says when nothing is left', async () => {
  const person = await demo.someone('viewer')
  await person.goTo('/today')
  await person.press('Upland yard')
  await person.page.waitForFunction(
    () => ![...document.querySelectorAll('.due-row')].some((row) => row.textContent!.includes('T-04')),
  )
  expect(await person.row('T-12', 'Renew outlet valves')).not.toBe('')
  const only = (kind: string) => person.page.select('[aria-label="Kind"]', kind)
  await only('doubt')
  await person.sees('Nothing of this kind, here, today.')
  await only('reading')
  await person.page.waitForFunction(() => document.querySelectorAll('.due-row').length === 0)
  expect(await person.row('V-21', 'last read')).not.toBe('')
  await person.press('All yards')
  await only('visit')
  await person.page.select('[aria-label="Technician"]', 'M. Osei')
  await person.page.waitForFunction(
    () => !document.querySelector('.today')!.textContent!.includes('L. Varga'),
  )
})

test('a row of Today is put off with a reason and brought back; another is handed to somebody', async () => {
  const person = await demo.someone('coordinator')
  await person.goTo('/today')
  await person.page.select('[aria-label="Kind"]', 'reading')
  const inRow = (machine: string, button: string) =>
    person.page.$$eval(
      '.machine-row',
      (rows, wanted, name) =>
        [...rows.find((row) => row.textContent!.includes(wanted))!.querySelectorAll('button')]
          .find((each) => each.textContent === name)!
          .click(),
      machine,
      button,
    )
  await inRow('R-08', 'Later')
  await person.type('Until', '2026-10-14')
  await person.type('Why it can wait', 'rig is at the tip until Friday')
  await person.press('Put it off')
  await person.sees('Choose a day to come.')
  await person.type('Until', '2026-10-16')
  await person.press('Put it off')
  await person.sees('It comes back on that day, or before if something new or worse comes up.')
  await person.sees('rig is at the tip until Friday')
  expect(await person.row('R-08', 'last read')).toBe('')
  await inRow('V-21', 'Hand on')
  await person.choose('To', 'M. Osei')
  await person.press('Hand it on')
  await person.sees('with M. Osei')
  await person.page.select('[aria-label="Technician"]', 'M. Osei')
  await person.page.waitForFunction(() => !document.querySelector('.today')!.textContent!.includes('V-24'))
  expect(await person.row('V-21', 'with M. Osei')).not.toBe('')
  await person.page.select('[aria-label="Technician"]', '')
  await person.press('Bring back')
  await person.page.waitForFunction(() =>
    [...document.querySelectorAll('.machine-row')].some((row) => row.textContent!.includes('R-08')),
  )
})
