import path from 'node:path'
import sqlite3 from 'sqlite3'
import { dataFolder, demoEnv, makeDemo, startApp, type RunningApp } from '../support/app'
import { eventually, openBrowser, Person } from '../support/browser'
import { demoApp } from '../support/demo'
import { cookieOf } from '../support/session'

jest.setTimeout(180_000)

/** What has the focus, in words. */
const focused = (person: Person) =>
  person.page.evaluate(
    () => (document.activeElement as HTMLElement | null)?.innerText.replace(/\s+/g, ' ') ?? '',
  )

const firstCells = (person: Person) =>
  person.page.$$eval('table.list tbody tr[aria-rowindex]', (rows) =>
    rows.map((row) => row.querySelector('a')!.textContent!.split(' ')[0]!),
  )

describe('the fleet of the demo', () => {
  const demo = demoApp()

  test('from Fleet, worst first, to the machine, to its overdue service, to a booked visit, by keyboard', async () => {
    const person = await demo.someone('coordinator')
    const { keyboard } = person.page
    await person.goTo('/fleet')
    await person.sees('are past a limit.')
    // Nobody sorted anything: what is past its limit stands first, and says so in words.
    const past = Number((await person.text()).match(/(\d+) are past a limit/)![1])
    const words = await person.page.$$eval('table.list tbody tr[aria-rowindex]', (rows) =>
      rows.map((row) => row.textContent!),
    )
    const isPast = words.map((row) => /, (overdue|past its limit)/.test(row))
    expect(isPast.indexOf(false)).toBe(past)
    expect((await firstCells(person)).slice(0, past)).toContain('T-04')
    const first = await person.row('T-04')
    expect(first).toContain('Renew high-pressure seals')
    expect(first).toContain('past its limit')
    expect(first).toContain('66 h past')
    expect(first).toContain('none booked')
    await person.page.focus('#machine-search')
    for (let row = 0; row < past && !(await focused(person)).includes('T-04'); row += 1)
      await keyboard.press('ArrowDown')
    expect(await focused(person)).toContain('T-04')
    await keyboard.press('Enter')
    await person.sees('Due on it')
    expect(await person.page.$eval('.due-services li', (row) => row.textContent)).toContain(
      'Renew high-pressure seals, past its limit',
    )
    for (let tabs = 0; (await focused(person)) !== 'Book'; tabs += 1) {
      expect(tabs).toBeLessThan(40)
      await keyboard.press('Tab')
    }
    await keyboard.press('Enter')
    await person.sees('Technician')
    await eventually(async () =>
      expect(
        await person.page.evaluate(() => document.activeElement?.closest('[role=dialog]') !== null),
      ).toBe(true),
    )
    // What else is due on it is chosen along; Enter in the form books it.
    await person.page.focus('[role=dialog] input[name=note]')
    await keyboard.type('seals first')
    await keyboard.press('Enter')
    await person.page.waitForFunction(() => location.pathname.startsWith('/plan/'))
    await person.sees('Renew high-pressure seals')
    await person.goTo('/fleet')
    expect(await person.row('T-04')).toContain('14 Oct')
    expect(await person.row('T-04')).not.toContain('none booked')
    await person.goTo('/fleet/T-04')
    const due = await person.page.$eval('.due-services li', (row) => row.textContent)
    expect(due).toContain('On 14')
    // The visit is told once, under what is to come.
    const coming = await person.page.$$eval(
      '.part',
      (parts) =>
        parts
          .find((part) => part.querySelector('h2')!.textContent === 'Visits to come')!
          .querySelectorAll('a[href^="/plan/"]').length,
    )
    expect(coming).toBe(1)
    await person.press('Show all changes')
    await person.sees('Show the newest only')
    expect((await person.page.$$('.changes li')).length).toBeGreaterThan(7)
  })

  test('a form left with nothing typed asks nothing; what was typed is asked about, by every way out', async () => {
    const person = await demo.someone('coordinator')
    const asked: string[] = []
    person.page.on('dialog', (dialog) => asked.push(dialog.type()))
    for (const form of ['/fleet/new', '/fleet/T-04/edit', '/fleet/pumps/new', '/settings?part=company']) {
      await person.goTo(form)
      await person.page.mouse.click(700, 12)
      await person.press('Today', '.rail')
      await person.sees('Wednesday 14 October')
      expect([form, asked]).toEqual([form, []])
    }
    await person.goTo('/fleet/T-04/edit')
    await person.type('Name', 'another name')
    await person.press('Today', '.rail')
    await person.sees('Wednesday 14 October')
    expect(asked).toEqual(['confirm'])
    await person.goTo('/fleet/T-04/edit')
    await person.type('Name', 'another name')
    await person.goTo('/today')
    expect(asked).toEqual(['confirm', 'beforeunload'])
  })

  test('a day is typed and picked in the company’s order, whatever the browser’s language is', async () => {
    const person = await demo.someone('coordinator')
    const session = await person.page.createCDPSession()
    await session.send('Emulation.setLocaleOverride', { locale: 'en-GB' })
    await person.goTo('/settings?part=company')
    await person.choose('Days are written', 'Month, day, year: 10/14/2026')
    await person.press('Save settings')
    await person.sees('The settings are saved.')
    await person.goTo('/fleet/S-02')
    await person.press('Book a visit')
    await person.sees('Technician')
    expect(await person.holds('Day')).toBe('10/14/2026')
    // The order of another company is no day here, and is kept as it was typed.
    await person.type('Day', '20/10/2026')
    await person.press('Book it')
    await person.sees('This is no day: type one, or pick it from the calendar.')
    expect(await person.holds('Day')).toBe('20/10/2026')
    await person.type('Day', '10.19.26')
    await person.press('Calendar: Day')
    await person.press('20', '[role=dialog]')
    expect(await person.holds('Day')).toBe('10/20/2026')
    await person.type('Start', '730')
    await person.press('Book it')
    await person.sees('Tuesday 20 October')
    await person.sees('07:30')
    await person.goTo('/settings?part=company')
    await person.choose('Days are written', 'Day, month, year: 14/10/2026')
    await person.press('Save settings')
    await person.sees('The settings are saved.')
  })

  test('closed sheets are found by what stands on them', async () => {
    const person = await demo.someone('viewer')
    await person.goTo('/sheets')
    await person.sees(' sheets')
    const all = (await person.text()).match(/(\d+) sheets/)![1]!
    const found = () =>
      person.page.$$eval('[aria-label="Closed sheets"] li', (rows) =>
        rows.map((row) => row.textContent!.replace(/\s+/g, ' ').trim()),
      )
    await person.type('Search sheets', 'T-04 high-pressure')
    await person.page.waitForFunction(
      (count) => !document.body.innerText.includes(`${count} sheets`),
      {},
      all,
    )
    await eventually(async () => {
      const rows = await found()
      expect(rows.length).toBeGreaterThan(1)
      expect(rows.filter((row) => !row.includes('T-04'))).toEqual([])
    })
    await person.press('Breakdowns only')
    await eventually(async () => {
      const rows = await found()
      expect(rows.length).toBeGreaterThan(0)
      expect(rows.filter((row) => !row.includes('breakdown'))).toEqual([])
    })
    await person.type('Search sheets', 'nothing of the kind')
    await person.sees('No closed sheet fits.')
    await person.type('Search sheets', '')
    await person.press('Breakdowns only')
    await person.sees(`${all} sheets`)
    // All of them scroll, portion by portion.
    for (let step = 0; step < 20; step += 1) {
      await person.page.evaluate(() => window.scrollTo(0, document.body.scrollHeight))
      await new Promise((resolve) => setTimeout(resolve, 100))
    }
    await eventually(async () => expect(await person.page.$(`li[aria-posinset="${all}"]`)).not.toBeNull())
    expect((await person.page.$$('[aria-label="Closed sheets"] li')).length).toBeLessThan(80)
  })

  test('on a phone the bar shows what a role uses, and folds the rest with the way out', async () => {
    const phone = { width: 390, height: 844 }
    const shown = (person: Person) =>
      person.page.$$eval('.rail-nav .rail-item', (items) =>
        items.flatMap((item) => (item.getClientRects().length > 0 ? [item.textContent!] : [])),
      )
    const technician = await demo.someone('technician', phone)
    await technician.goTo('/today')
    expect(await shown(technician)).toEqual(['Today', 'Hours', 'Fleet', 'Sheets', 'More'])
    const coordinator = await demo.someone('coordinator', phone)
    await coordinator.goTo('/today')
    expect(await shown(coordinator)).toEqual(['Today', 'Hours', 'Fleet', 'Plan', 'More'])
    await coordinator.press('More')
    await coordinator.press('Stores')
    await coordinator.page.waitForFunction(() => location.pathname === '/stores')
    // What is folded says by More that it is open.
    expect(await coordinator.page.$eval('.rail-more', (more) => more.getAttribute('aria-current'))).toBe(
      'true',
    )
    const own = await Person.at(demo.browser, demo.app.url, phone)
    await own.signInAs('viewer')
    await own.press('More')
    await own.sees('A. Coyle, viewer')
    await own.page.keyboard.press('Escape')
    await own.press('More')
    await own.page.$$eval('[role=menuitem]', (items) => (items.at(-1) as HTMLElement).click())
    await own.sees('Sign in to the fleet')
  })

  test('a search finds a service, and groups stand worst first', async () => {
    const person = await demo.someone('viewer')
    await person.goTo('/fleet')
    await person.type('Search machine, pump, service', 'inlet filter')
    const pastOnly = await person.page.$$eval('select option', (options) =>
      options.map((each) => each.textContent!).find((each) => each.startsWith('Past a limit'))!,
    )
    await person.choose('Which machines', pastOnly)
    await eventually(async () => expect((await firstCells(person)).length).toBeLessThan(8))
    const found = await person.page.$$eval('table.list tbody tr[aria-rowindex]', (rows) =>
      rows.map((row) => row.textContent!),
    )
    expect(found.length).toBeGreaterThan(0)
    expect(found.filter((row) => !/, (overdue|past its limit)/.test(row))).toEqual([])
    await person.choose('Which machines', 'In service (24)')
    await person.type('Search machine, pump, service', '')
    await person.choose('Group by', 'By how it stands')
    const groups = await person.page.$$eval('.group-row th', (all) => all.map((each) => each.textContent))
    expect(groups[0]).toContain('Overdue')
    expect(groups.at(-1)).toContain('No service clock runs')
    await person.goTo('/fleet/pumps')
    const [worst] = await person.page.$$eval('table.list tbody tr[aria-rowindex]', (rows) =>
      rows.map((row) => row.textContent!),
    )
    expect(worst).toMatch(/, overdue/)
  })
})

describe('a fleet of 400 machines', () => {
  const data = dataFolder()
  let app: RunningApp
  let browser: Awaited<ReturnType<typeof openBrowser>>
  beforeAll(async () => {
    await makeDemo(data.folder)
    await manyMachines(path.join(data.folder, 'atelier.sqlite'), 376)
    app = await startApp(data.folder, demoEnv)
    browser = await openBrowser()
  }, 240_000)
  afterAll(async () => {
    await browser?.close()
    await app?.stop()
    data.remove()
  })

  test('it scrolls under its head, is walked by the arrow keys, grouped and searched', async () => {
    const person = await Person.at(browser, app.url)
    await person.page.browserContext().setCookie(await cookieOf(data.folder, 'lindqvist'))
    await person.goTo('/fleet')
    await person.sees('400 machines')
    const drawn = async () => (await firstCells(person)).length
    expect(await drawn()).toBeLessThan(80)
    expect(await person.page.$eval('table.list', (table) => table.getAttribute('aria-rowcount'))).toBe('401')
    // To its end: the last rows are drawn and the head is still in sight.
    await person.page.evaluate(() => window.scrollTo(0, document.body.scrollHeight))
    await eventually(async () => expect(await person.page.$('tr[aria-rowindex="401"]')).not.toBeNull())
    expect(await drawn()).toBeLessThan(80)
    const head = await person.page.$eval('table.list th', (cell) => cell.getBoundingClientRect().top)
    expect(head).toBe(0)
    // The arrow keys go on where nothing was drawn yet.
    await person.page.evaluate(() => window.scrollTo(0, 0))
    await person.page.focus('#machine-search')
    await person.page.keyboard.press('ArrowDown')
    for (let row = 0; row < 60; row += 1) {
      const at = await focused(person)
      await person.page.keyboard.press('ArrowDown')
      await person.page.waitForFunction(
        (was) => (document.activeElement as HTMLElement).innerText.replace(/\s+/g, ' ') !== was,
        { polling: 20 },
        at,
      )
    }
    expect(
      await person.page.evaluate(() => document.activeElement!.closest('tr')!.getAttribute('aria-rowindex')),
    ).toBe('62')
    await person.choose('Group by', 'By yard')
    await person.sees('Harbour yard 3')
    await person.type('Search machine, pump, service', 'N-377')
    await person.sees('No machine fits')
    await person.type('Search machine, pump, service', 'N-376')
    await person.sees('N-376 further rig')
    await person.sees('1 machine')
  })
})

/** More machines, each like one of the demo with a meter of its own. */
async function manyMachines(file: string, count: number): Promise<void> {
  const database = new sqlite3.Database(file)
  const all = (sql: string, values: unknown[] = []) =>
    new Promise<Record<string, unknown>[]>((resolve, reject) =>
      database.all(sql, values, (error, rows) =>
        error ? reject(error) : resolve(rows as Record<string, unknown>[]),
      ),
    )
  const insert = (table: string, row: Record<string, unknown>) =>
    all(
      `INSERT INTO ${table} (${Object.keys(row).map((name) => `"${name}"`)}) VALUES (${Object.keys(row).map(() => '?')})`,
      Object.values(row),
    )
  const [machine] = await all(`SELECT * FROM machines WHERE number = 'T-04'`)
  const [meter] = await all(`SELECT * FROM meters WHERE "machineId" = ?`, [machine!.id])
  await all('BEGIN')
  for (let index = 1; index <= count; index += 1) {
    const id = `further-${index}`
    const number = `N-${String(index).padStart(3, '0')}`
    await insert('machines', { ...machine, id, number, name: 'further rig' })
    await insert('meters', { ...meter, id: `meter-${index}`, machineId: id })
  }
  await all('COMMIT')
  await new Promise((resolve) => database.close(resolve))
}
