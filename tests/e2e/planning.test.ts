import type { Person } from '../support/browser'
import { eventually } from '../support/browser'
import { demoApp } from '../support/demo'

const demo = demoApp()
jest.setTimeout(300_000)

/** Presses the button whose name begins so, in a part of the page, and says its whole name. */
async function pressBegun(person: Person, begun: string, within = 'main'): Promise<string> {
  const handle = await person.page.waitForFunction(
    (words, scope) =>
      [...document.querySelectorAll<HTMLButtonElement>(`${scope} button`)].find(
        (each) => each.textContent!.startsWith(words) && !each.disabled,
      ),
    { polling: 40 },
    begun,
    within,
  )
  const button = handle.asElement()!
  const name = await button.evaluate((each) => (each as HTMLElement).textContent!)
  await (button as unknown as { click: () => Promise<void> }).click()
  return name
}
const count = (person: Person, selector: string) => person.page.$$eval(selector, (all) => all.length)
const booked = (person: Person) => count(person, '.horizon-block:not(.proposed)')

test('who works when is entered, with what is wrong beside its field', async () => {
  const person = await demo.someone('coordinator')
  await person.goTo('/plan/crew')
  await person.sees('nobody has said when they work')
  await person.press('Change')
  await person.type('Work on such a day', 'long')
  await person.press('Save')
  await eventually(async () =>
    expect(await person.errorOf('Work on such a day')).toContain('Enter 0 to 960 minutes.'),
  )
  await person.type('Work on such a day', '420')
  await person.press('Fri')
  await person.press('Save')
  await person.sees('Planning goes by it from now on.')
  await person.sees('Mon, Tue, Wed, Thu')
  await person.press('Change what planning goes by')
  await person.type('Stays free for breakdowns', '25')
  await person.press('Save')
  await person.sees('25 % of each day')
})

/** Presses the button so named in the row that holds some words. */
async function inRow(person: Person, words: string, name: string): Promise<void> {
  await person.page.waitForFunction(
    (text, button) =>
      [...document.querySelectorAll<HTMLElement>('.today-row')]
        .filter((row) => row.textContent!.includes(text))
        .some((row) => [...row.querySelectorAll('button')].some((each) => each.textContent === button)),
    { polling: 40 },
    words,
    name,
  )
  await person.page.$$eval(
    '.today-row',
    (rows, text, button) =>
      rows
        .filter((row) => row.textContent!.includes(text))
        .flatMap((row) => [...row.querySelectorAll('button')])
        .find((each) => each.textContent === button)!
        .click(),
    words,
    name,
  )
}

test('what is due on one machine is one row: opened, one service taken out, booked, and taken back', async () => {
  const person = await demo.someone('coordinator')
  await person.goTo('/today')
  const before = await person.row('V-12', 'Set valve clearance')
  expect(before).toContain('Change engine oil')
  expect(before).toMatch(/together 1 h 12 min one by one 1 h 48 min/)
  await inRow(person, 'V-12', 'Book all this')
  await person.sees('Together 1 h 12 min')
  await person.sees('The cheapest day on which everything is there.')
  await person.sees('It is made safe for winter: running it')
  // The oil is left for later: what the rest takes is told at once.
  await person.page.$$eval('[role=dialog] .choices label', (labels) =>
    (labels.find((each) => each.textContent!.includes('Change engine oil')) as HTMLElement).click(),
  )
  await eventually(async () => expect(await person.text()).not.toContain('Together 1 h 12 min'))
  await person.type('Day', '2026-10-18')
  await person.sees('has not the time for it.')
  await person.type('Day', '2026-10-15')
  await person.sees('Its crew wants to know 2 days before.')
  await person.press('Take that')
  await person.press('Book it')
  await person.sees('Booked for')
  await eventually(async () =>
    // Today and tomorrow its crew would not know of it.
    expect(await person.row('V-12', 'Set valve clearance', 'On 16 Oct')).toMatch(/Renew fuel filter/),
  )
  expect(await person.row('V-12', 'Change engine oil', 'Book')).not.toBe('')
  await person.press('Undo')
  await eventually(async () => expect(await person.row('V-12', 'Set valve clearance')).toBe(before))
})

test('what another choice takes is worked out though its field is left meanwhile, and one that could not be says so', async () => {
  const person = await demo.someone('coordinator')
  await person.goTo('/today')
  await inRow(person, 'V-12', 'Book all this')
  await person.sees('Together 1 h 12 min')
  let isCut = false
  const held: (() => void)[] = []
  await person.page.setRequestInterception(true)
  const hear = (request: import('puppeteer-core').HTTPRequest) => {
    if (request.method() !== 'POST') return void request.continue()
    if (isCut) return void request.abort()
    held.push(() => void request.continue())
  }
  person.page.on('request', hear)
  const tick = (name: string) =>
    person.page.$$eval(
      '[role=dialog] .choices label',
      (labels, wanted) => (labels.find((each) => each.textContent!.includes(wanted)) as HTMLElement).click(),
      name,
    )
  await tick('Change engine oil')
  await eventually(async () => expect(held).toHaveLength(1))
  // Leaving a field draws the form anew: the answer under way is still the one that counts.
  for (let press = 0; press < 6; press += 1) await person.page.keyboard.press('Tab')
  held.forEach((letGo) => letGo())
  await person.page.waitForSelector('.decide-weighed[aria-busy=false]')
  const without = await person.text()
  expect(without).not.toContain('Together 1 h 12 min')
  isCut = true
  await tick('Change engine oil')
  await person.sees('What is chosen now was not worked out: Atelier could not be reached.')
  person.page.off('request', hear)
  await person.page.setRequestInterception(false)
  await person.press('Work it out again')
  await person.sees('Together 1 h 12 min')
  expect(await person.text()).not.toContain('was not worked out')
})

test('a visit whose technician goes on leave no longer fits: it is named with why, and moved to where it does', async () => {
  const person = await demo.someone('coordinator')
  await person.goTo('/today')
  await inRow(person, 'V-12', 'Book all this')
  await person.sees('Together 1 h 12 min')
  await person.choose('Technician', 'T. Brandt')
  await person.type('Day', '2026-10-19')
  await person.press('Book it')
  await person.sees('Booked for')
  await person.goTo('/plan/crew')
  // The last of the crew is T. Brandt.
  await person.press('Change')
  await person.press('Add days away')
  await person.type('From, line 1', '2026-10-19')
  await person.type('To, line 1', '2026-10-20')
  await person.press('Save')
  await person.sees('Planning goes by it from now on.')
  await person.goTo('/today')
  await person.page.select('[aria-label="Kind"]', 'slip')
  await person.sees('T. Brandt has not the time for it.')
  await inRow(person, 'V-12', 'Find a better day')
  await person.sees('Booked for 19 Oct, T. Brandt.')
  await person.sees('The cheapest day on which everything is there.')
  await person.press('Change it')
  await eventually(async () => expect(await person.row('V-12', 'no longer fits')).toBe(''))
})

test('the visits of a day are approved in one act, and the van’s list of that day and a visit’s packet are printed', async () => {
  const person = await demo.someone('coordinator')
  await person.goTo('/plan/day?day=2026-10-16')
  await person.sees('T. Brandt')
  // What speaks against it is said first; it is approved all the same.
  await person.sees('PL-20: 2 missing on that day.')
  await person.press('Approve it')
  await person.sees('Approve all the same?')
  await person.press('Approve', '[role=dialog]')
  await person.sees('The visit is approved.')
  await eventually(async () => expect(await person.row('T-12', 'visit 0222')).toContain('approved'))
  // Everything once, with lots, where it lies, and what goes in first.
  expect(await person.row('OR-24 O-ring')).toMatch(/to bring over from Harbour yard, lot \d+, visit 0222 6/)
  expect(await person.row('Thread lubricant')).toMatch(/8 applications, visit 0222 about 2\.4 mL/)
  expect(await person.row('Guide pins, pair', 'counted back')).toContain('special')
  const loading = await person.page.$$eval('.loading li', (all) => all.map((each) => each.textContent!))
  expect(loading.findIndex((each) => each.startsWith('Bag of visit 0222'))).toBeGreaterThan(
    loading.findIndex((each) => each.startsWith('Guide pins')),
  )
  // On paper it stands without what is only for the screen.
  const pdf = await person.page.pdf({ format: 'a4' })
  expect(Buffer.from(pdf.slice(0, 5)).toString()).toBe('%PDF-')
  await person.press('Packet')
  await person.sees('The maker’s manual, local rules and qualified people come first.')
  expect(await person.row('Manifold screws', '8 of them')).toMatch(/20 N·m = 177 in-lb = 14\.8 ft-lb/)
  expect(await person.row('Isolate and lock out')).not.toBe('')
  // Approved, no plan moves it, and by hand only once the approval is taken back.
  await person.goTo('/plan/horizon')
  await (await person.page.waitForSelector('.horizon-block[aria-label^="Visit 0222"]'))!.click()
  await person.sees('It stays where it is')
  await person.press('Take approval back')
  await person.sees('The approval is taken back.')
})

test('work longer than its technician’s day goes on: the week and the lists of the days after it tell it', async () => {
  const person = await demo.someone('coordinator')
  const works = async (minutes: string) => {
    await person.goTo('/plan/crew')
    // The last of the crew is T. Brandt.
    await person.press('Change')
    await person.type('Work on such a day', minutes)
    await person.press('Fri')
    await person.press('Save')
    await person.sees('Planning goes by it from now on.')
  }
  // Fridays too, an hour a day.
  await works('60')
  // From a Friday on; Monday and Tuesday he is away.
  await person.goTo('/plan?week=2026-10-21')
  expect(await person.row('T-12', 'visit 0222 goes on')).toMatch(/since 16 Oct.*T\. Brandt/)
  await person.goTo('/plan/day?day=2026-10-21')
  await person.sees('its parts and tools came on its first day')
  expect(await person.row('T-12', 'visit 0222 goes on')).toMatch(/ 1 h /)
  await works('420')
  await person.goTo('/plan?week=2026-10-21')
  expect(await person.text()).not.toContain('goes on')
})

test('on the horizon a service is split off a visit by hand, and the visit is held in place', async () => {
  const person = await demo.someone('coordinator')
  await person.goTo('/plan/horizon')
  await (await person.page.waitForSelector('.horizon-block[aria-label^="Visit 0222"]'))!.click()
  await person.press('Add, take off, split or merge')
  await person.sees('Change the visit of T-12')
  await person.page.$$eval('[role=dialog] .choices label', (labels) =>
    (labels.find((each) => each.textContent!.includes('Renew inlet valves')) as HTMLElement).click(),
  )
  await person.press('Change it')
  await person.sees('Booked for')
  await eventually(async () =>
    expect(await count(person, '.horizon-block[aria-label^="Visit 0222"][aria-label*="3 services"]')).toBe(1),
  )
  await person.press('Undo')
  await eventually(async () =>
    expect(await count(person, '.horizon-block[aria-label^="Visit 0222"][aria-label*="4 services"]')).toBe(1),
  )
  await (await person.page.waitForSelector('.horizon-block[aria-label^="Visit 0222"]'))!.click()
  await person.press('Hold it in place')
  await person.sees('It stays where it is, whatever is proposed.')
  await eventually(async () =>
    expect(await count(person, '.horizon-block[aria-label^="Visit 0222"][aria-label*="held in place"]')).toBe(
      1,
    ),
  )
  await person.press('Let plans move it')
  await person.sees('Plans may move it again.')
})

test('a plan is proposed, read, taken in part, taken back, taken, and one visit moved by the keyboard', async () => {
  const person = await demo.someone('coordinator')
  await person.goTo('/plan/horizon?weeks=6')
  const before = await booked(person)
  await person.press('Propose 6 weeks')
  await person.sees('cheaper')
  const proposed = await count(person, '.horizon-proposals > li')
  expect(proposed).toBeGreaterThan(5)
  expect(await count(person, '.horizon-block.proposed')).toBe(proposed)
  await person.press('Why')
  await person.sees('one by one')
  // One is left out, the rest taken.
  await person.page.$eval('.horizon-proposals input', (box) => (box as HTMLInputElement).click())
  expect(await pressBegun(person, 'Take ', '.horizon-panel')).toBe(`Take ${proposed - 1}`)
  await person.sees(`${proposed - 1} changes are taken.`)
  await eventually(async () => expect(await booked(person)).toBeGreaterThan(before))
  const taken = await booked(person)
  await person.press('Undo')
  await eventually(async () => expect(await booked(person)).toBe(before))
  // Once more, all of it.
  await person.press('Propose 6 weeks')
  await person.sees('cheaper')
  await pressBegun(person, 'Take all', '.horizon-panel')
  await eventually(async () => expect(await booked(person)).toBeGreaterThanOrEqual(taken))
  // A visit that may move, by the keyboard; what it means stands beside it before anything is stored.
  const block = await person.page.waitForSelector('.horizon-block.movable')
  const name = await block!.evaluate((each) => each.getAttribute('aria-label')!.split(' to ')[0]!)
  await block!.click()
  await person.sees('Technician')
  await person.page.keyboard.press('ArrowRight')
  await person.sees('If moved to')
  await person.sees('It costs')
  await pressBegun(person, 'Move to', '.horizon-panel')
  await person.sees('Moved to')
  await person.press('Undo')
  await eventually(async () =>
    expect(await count(person, `.horizon-block[aria-label^="${name} to"]`)).toBe(1),
  )
})

test('what if a technician is away: what breaks, and a repair that is stored only when it is taken', async () => {
  const person = await demo.someone('coordinator')
  await person.goTo('/plan/horizon?weeks=6')
  // With what was taken before there is little to propose, and that it says.
  await person.press('Propose 6 weeks')
  await person.sees('cheaper')
  await pressBegun(person, 'Take none', '.horizon-panel').catch(() => person.press('Close'))
  await person.sees('What if')
  await person.press('Try it')
  await person.sees('Choose which.')
  const whole = await person.page.$$eval('.horizon-block:not(.proposed)', (all) =>
    all.map((each) => each.getAttribute('aria-label')),
  )
  await person.choose('Which', 'M. Osei')
  await person.type('To', '20 Nov 2026')
  await person.press('Try it')
  await person.sees('What breaks')
  await person.sees('M. Osei has not the time for it.')
  await person.sees('The smallest repair.')
  expect(await count(person, '.horizon-proposals > li')).toBeGreaterThan(0)
  await person.press('Take none')
  expect(
    await person.page.$$eval('.horizon-block:not(.proposed)', (all) =>
      all.map((each) => each.getAttribute('aria-label')),
    ),
  ).toEqual(whole)
})

test('a planner that the browser takes away says so, and nothing is changed', async () => {
  const person = await demo.someone('coordinator')
  await person.page.evaluateOnNewDocument(() => {
    class Dying extends EventTarget {
      onerror: ((event: Event) => void) | null = null
      postMessage() {
        setTimeout(() => this.onerror?.(new Event('error')), 50)
      }
      terminate() {}
    }
    ;(window as unknown as { Worker: unknown }).Worker = Dying
  })
  await person.goTo('/plan/horizon')
  const before = await booked(person)
  await person.press('Propose 12 weeks')
  await person.sees('The planner stopped unexpectedly. Nothing was changed: propose again.')
  expect(await booked(person)).toBe(before)
})

test('a visit is dragged with the mouse: what it would mean stands there, and nothing moves until it is said', async () => {
  const person = await demo.someone('coordinator')
  await person.goTo('/plan/horizon?weeks=6')
  const block = (await person.page.waitForSelector('.horizon-block.movable'))!
  const name = await block.evaluate((each) => each.getAttribute('aria-label')!.split(' to ')[0]!)
  await block.evaluate((each) => each.scrollIntoView({ block: 'center' }))
  const box = (await block.boundingBox())!
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
  const { mouse } = person.page
  await mouse.move(x, y)
  await mouse.down()
  await mouse.move(x + 48, y, { steps: 6 })
  await mouse.up()
  await person.sees('If moved to')
  await person.press('Leave it')
  await eventually(async () => expect(await person.text()).not.toContain('If moved to'))
  expect(await count(person, `.horizon-block[aria-label^="${name} to"]`)).toBe(1)
})
