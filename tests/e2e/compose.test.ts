import type { Person } from '../support/browser'
import { demoApp } from '../support/demo'

const demo = demoApp()
jest.setTimeout(180_000)
const coordinator = () => demo.someone('coordinator')

const list = (person: Person, name: string) =>
  person.page.$$eval(`[aria-label="${name}"] > li`, (items) =>
    items.map((item) => item.textContent!.replaceAll('\u00a0', ' ').replace(/\s+/g, ' ').trim()),
  )
const inAll = (person: Person) =>
  person.page.$eval('.compose-totals', (each) => each.textContent!.replaceAll('\u00a0', ' '))

test('on a compact triplex: choose, see what it makes, add what the open pump makes cheap, book it', async () => {
  const person = await coordinator()
  await person.goTo('/fleet/pumps/P-07')
  await person.press('Compose work')
  await person.sees('Choose what is to be done')
  await person.press('Renew high-pressure seals')
  // Safe and proof 30, manifold 30, three stacks of 9, three seals of 3.
  await person.sees('1 h 36 min in all')
  expect((await list(person, 'Parts')).map((line) => line.split(' OR-')[0]!.split(' HP-')[0])).toEqual([
    'Retainer O-ring',
    'High-pressure seal',
  ])
  const offers = await list(person, 'Cheap while it is open')
  // Plungers off 3 × 10, and three looks of 4 min; alone the manifold, making safe and proving again.
  expect(offers.find((line) => line.startsWith('Renew plungers'))).toMatch(
    /^Renew plungers all cylinders42 min more now, 1 h 42 min alone · manifold off already/,
  )
  await person.page.$$eval('.offer', (lines) =>
    lines
      .find((line) => line.textContent!.startsWith('Renew plungers'))!
      .querySelector('button')!
      .click(),
  )
  // 42 min more; alone it would have been 1 h 42 min, so an hour is saved.
  await person.sees('2 h 18 min in all')
  expect(await inAll(person)).toContain('1 h saved')
  await person.sees('Two opposite treatments in one job')
  expect((await list(person, 'Torque')).join(' ')).toContain('W-2, set to 40 N·m')
  // One cylinder less: its plunger is left alone.
  await person.page.$$eval('[aria-label="Positions of renew plungers"] label', (labels) =>
    (labels[2] as HTMLElement).click(),
  )
  await person.sees('2 h 4 min in all')

  await person.press('Book this visit')
  await person.press('Book it', '[role=dialog]')
  await person.sees('The visit is booked.')
  await person.sees('Renew plungers cylinders 1 and 2')
  await person.sees('about 2 h 4 min')
})

test('on an opposed-head pump: one head at a time as its manual says, and seal rings come with the plungers', async () => {
  const person = await coordinator()
  await person.goTo('/fleet/pumps/P-25/compose')
  await person.press('Renew yoke plungers')
  await person.sees('Comes with it: renew seal rings')
  await person.sees('the plunger is pulled through its lip')
  expect((await list(person, 'Practices')).join(' ')).toMatch(
    /Strip order: One head or cylinder at a time demo manual, page 9the manual says so/,
  )
  // Four heads alike are told once, in the order in which each is worked through to its end.
  const heads = await person.page.$$eval('.step-block > .strong', (blocks) =>
    blocks.map((each) => each.textContent!.replaceAll('\u00a0', ' ')),
  )
  expect(heads).toEqual(['heads 1, 2, 3 and 4 · one after the other'])
  // The retaining plate must not cover the valve pocket: a gate, told with the rest of it.
  expect((await person.text()).match(/the plate must not cover them/g)).toHaveLength(1)
  // This company looks at valves of this model before it renews them.
  await person.press('Renew inlet valves')
  await person.sees('To take along, for what is found')
  expect((await list(person, 'Parts to take along')).join(' ')).toContain('One-way valve')
  await person.press('Swap the valve')
  await person.sees('Renew inlet valves: swap the valve')
  expect((await list(person, 'Parts')).join(' ')).toContain('One-way valve')
})

test('a practice that is chosen changes the sheet, and somebody else’s choice meanwhile is not overwritten', async () => {
  const person = await coordinator()
  await person.goTo('/fleet/pumps/P-11/compose')
  await person.press('Renew high-pressure seals')
  await person.sees('prise evenly at two opposite points')
  const other = await coordinator()
  await other.goTo('/models/practices')
  await other.sees('Taking the manifold off')

  await person.goTo('/models/practices')
  await chooseTapped(person)
  await person.sees('Taking the manifold off: tapped off with a soft mallet while supported.')
  await person.goTo('/fleet/pumps/P-11/compose')
  await person.press('Renew high-pressure seals')
  await person.sees('Support the manifold and tap it off with the soft mallet')
  expect(await person.text()).not.toContain('prise evenly at two opposite points')

  await chooseTapped(other)
  await other.sees('Somebody chose here meanwhile.')

  // A model of its own, and back again.
  await person.goTo('/models/practices')
  await person.page.$$eval('.practice', (lines) =>
    [
      ...lines
        .find((line) => line.textContent!.startsWith('Taking the manifold off'))!
        .querySelectorAll('button'),
    ]
      .at(-1)!
      .click(),
  )
  await person.press('Choose for this model', '[role=dialog]')
  expect(await person.errorOf('Model')).toBe('Choose a model.')
  await person.choose('Model', 'Ostrel P3-200')
  await person.choose('What is done there', 'Turned off by the crank, prised evenly at two points')
  await person.press('Choose for this model', '[role=dialog]')
  await person.sees('Ostrel P3-200: turned off by the crank')
  await person.goTo('/fleet/pumps/P-11/compose')
  await person.press('Renew high-pressure seals')
  await person.sees('prise evenly at two opposite points')
})

async function chooseTapped(person: Person): Promise<void> {
  await person.page.$$eval('.practice label', (labels) =>
    (
      labels.find((label) => label.textContent!.startsWith('Tapped off with a soft mallet')) as HTMLElement
    ).click(),
  )
  await person.press('Choose this')
}

test('a tool out of calibration and one that no wrench covers are told; the register is kept', async () => {
  const person = await coordinator()
  await person.goTo('/fleet/pumps/P-10/compose')
  await person.press('Renew high-pressure seals')
  // 120 N·m: the only wrench that reaches it is out.
  await person.sees('W-3 is out of calibration since 2 Oct')
  await person.goTo('/fleet/pumps/P-11/compose')
  await person.press('Renew outlet valves')
  await person.sees('W-4 reads in ft-lb: 80 N·m is 59 ft-lb on its scale.')
  await person.goTo('/models/tools')
  await person.press('Add a tool')
  await person.type('Number', 'W-9')
  await person.type('Name', 'Torque wrench 60 to 320')
  await person.type('Measures from', '320')
  await person.type('to', '60')
  await person.press('Save tool', '[role=dialog]')
  expect(await person.errorOf('to')).toBe('This must be more than where it begins.')
  await person.type('Measures from', '60')
  await person.type('to', '320')
  await person.press('Save tool', '[role=dialog]')
  await person.sees('The tool is saved.')
  await person.sees('W-9 Torque wrench 60 to 320')
  expect(await person.row('W-9')).toContain('60 to 320 N·m')
  await person.goTo('/fleet/pumps/P-11/compose')
  await person.press('Renew outlet valves')
  await person.sees('W-9, set to 80 N·m')
})

test('on a phone composing reads top to bottom, and nothing runs off its edge', async () => {
  const person = await demo.someone('technician', { width: 390, height: 844 })
  await person.goTo('/fleet/pumps/P-33/compose')
  await person.press('Set bearing end play')
  await person.sees('Comes with it: renew shaft seals, always both')
  const over = await person.page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)
  expect(over).toBeLessThanOrEqual(0)
  // A technician composes, and does not book.
  expect(await person.text()).not.toContain('Book this visit')
})
