import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { weatherAnswer, type WeatherScenario } from '@/demo/weather'
import { confirm, finishSheet, forward, readMeter, tablet } from '../support/benchWalk'
import type { Person } from '../support/browser'
import { demoApp } from '../support/demo'

const demo = demoApp()
const files = mkdtempSync(path.join(tmpdir(), 'atelier-winter-'))
let scenario: WeatherScenario = 'mild'
let weather: Server
beforeAll(() => {
  weather = createServer((request, response) => {
    const { searchParams } = new URL(request.url!, 'http://localhost')
    const today = searchParams.get('today')!
    const answer = weatherAnswer(scenario, searchParams.get('place')!, today, `${today}T05:00:00.000Z`)
    // A silent service is not waited for here: it hangs up.
    if (answer === null) return void response.destroy()
    response.end(JSON.stringify(answer))
  }).listen(0)
})
afterAll(() => {
  weather.close()
  rmSync(files, { recursive: true, force: true })
})
jest.setTimeout(300_000)

async function machineInWinter(person: Person, number: string): Promise<void> {
  await person.goTo('/winter')
  await person.press(number)
  await person.sees('From tank to nozzle')
}
async function hand(person: Person, label: string, name: string, text: string): Promise<void> {
  const file = path.join(files, name)
  writeFileSync(file, text)
  const input = await person.page.waitForSelector(`input[type=file][aria-label="${label}"]`)
  await (input as unknown as { uploadFile: (path: string) => Promise<void> }).uploadFile(file)
}

test('minima are imported whole or not at all, methods compared, and the campaign follows', async () => {
  const person = await demo.someone('coordinator')
  await person.goTo('/winter/yards')
  await person.sees('10 whole winters of harbour-yard.csv')
  const upland = readFileSync('src/demo/minima/upland-yard.csv', 'utf8')
  const label = 'Minima of Harbour yard as a file'
  await hand(person, label, 'cut.csv', `${upland.slice(0, 900)}\r\n2018-01-09,"-3`)
  await person.sees('Nothing was taken of it.')
  await person.sees('10 whole winters of harbour-yard.csv')
  await hand(person, label, 'fahrenheit.csv', 'day,min\n2019-07-01,61\n2019-07-02,59.5\n')
  await person.sees('These figures look like °F')
  // Five winters of the colder yard: the harbour now freezes as early as that.
  const lines = upland
    .split('\r\n')
    .filter((line) => line.startsWith('day') || (line > '2019-07' && line < '2024-07'))
  await hand(person, label, 'five.csv', lines.join('\r\n'))
  await person.sees('5 whole winters')
  await person.sees('5 whole winters of five.csv')

  await person.goTo('/winter/methods')
  expect(await person.row('Blow out', 'unprotected')).not.toBe('')
  expect(await person.row('Antifreeze through to the nozzle')).not.toBe('')
  await machineInWinter(person, 'T-12')
  expect(await person.row('Pressure hose and gun', 'to the nozzle', '80 m of hose on the reel')).toContain(
    'in use',
  )

  // A bore in inches under millimetres is asked about, and put right with one press.
  await person.press('Change the circuit')
  await person.sees('Keep the circuit')
  const bore = await person.page.$$eval('input[name$=".boreMm"]', (inputs) =>
    inputs.findIndex(
      (each) => (each as HTMLInputElement).value !== '' && Number((each as HTMLInputElement).value) < 20,
    ),
  )
  const input = (await person.page.$$('input[name$=".boreMm"]'))[bore]!
  await input.evaluate((each) => (each as HTMLInputElement).select())
  await input.focus()
  await person.page.keyboard.down('Control')
  await person.page.keyboard.press('a')
  await person.page.keyboard.up('Control')
  await person.page.keyboard.type('0.5')
  await person.sees('Was it 0.5 in?')
  await person.press('It was 0.5 in: 12.7 mm')
  await person.press('Keep the circuit')
  await person.sees('as it was looked at')
})

test('a winter sheet: run first, drained from the source, a proof that fails, then passes, and a reading that voids it', async () => {
  const coordinator = await demo.someone('coordinator')
  await machineInWinter(coordinator, 'T-07')
  await coordinator.press('Book the winter visit')
  await coordinator.press('Book it')
  await coordinator.sees('Make safe for winter')
  await coordinator.sees('Greywell PG concentrate')
  const visit = new URL(coordinator.page.url()).pathname

  const person = await demo.someone('technician', tablet)
  await person.goTo(visit)
  await person.press('Start the sheet')
  await person.sees('Old parts kept')
  await readMeter(person, 0)
  await forward(person, 'Refractometer at the outlet')
  await person.type('Freezing point', '-11')
  await person.page.$eval('.bench-work .confirm', (button) => (button as HTMLElement).click())
  await person.sees('Put more in until clean colour comes')
  await person.type('Freezing point', '-26')
  await confirm(person)
  await forward(person, 'Not ready to be signed yet')
  await finishSheet(person)
  await person.press('Look at it and sign')
  await person.press('Sign as M. Osei')
  await person.sees('Signed by')

  await machineInWinter(coordinator, 'T-07')
  await coordinator.sees('Laid up, do not start.')
  await coordinator.sees('Proof failed, pump: −11 °C')
  expect(await coordinator.row('Pump', 'Antifreeze through', 'protected')).not.toBe('')
  // On a phone it says so before anything else.
  const phone = await demo.someone('technician', { width: 390, height: 844 })
  await phone.goTo('/fleet/T-07')
  await phone.sees('Laid up, do not start.')

  // It is told that water was connected: what was done is void, and Today says so, as of the van that a
  // reading gave away.
  await coordinator.press('Tell what happened')
  await coordinator.choose('What', 'Water was connected')
  await coordinator.type('In words', 'filled for a demonstration')
  await coordinator.press('Note it')
  await coordinator.sees('void; ')
  await coordinator.goTo('/today')
  await coordinator.sees('Protection is void: filled for a demonstration')
  expect(await coordinator.row('V-22', 'Protection is void')).toMatch(
    /It ran [\d.]+ h after it was protected/,
  )
})

test('frost on its way stands on Today with what can still be done; a silent service falls back and says so', async () => {
  const person = await demo.someone('coordinator')
  await person.goTo('/winter/fluids')
  await person.press('Change the terms')
  await person.type('Address of the weather service', 'no address')
  await person.press('Save', '[role=dialog]')
  expect(await person.errorOf('Address of the weather service')).toContain('begins with http')
  const { port } = weather.address() as AddressInfo
  await person.type('Address of the weather service', `http://localhost:${port}/outlook`)
  await person.press('Save', '[role=dialog]')
  await person.sees('The campaign follows the new terms.')
  scenario = 'coldSnap'
  await person.goTo('/winter')
  await person.press('Ask for the outlook')
  await person.sees('Stand-in weather, 3 h old')
  await person.goTo('/today')
  await person.sees('in the night to 15 Oct')
  expect(await person.text()).toMatch(/drain only \d+ min/)
  scenario = 'nonsense'
  await person.goTo('/winter')
  await person.press('Ask for the outlook')
  await person.sees('One of its days is no day.')
  // The outlook that was there still counts.
  await person.sees('Stand-in weather, 3 h old')
  scenario = 'silent'
  await person.press('Ask for the outlook')
  await person.sees('It does not answer.')

  // It froze: what stood outside unprotected is exposed, and cannot be put back by pouring something in.
  await person.press('It froze')
  await person.choose('Yard', 'Upland yard')
  await person.type('Lowest', '-5')
  await person.press('Note it')
  await person.sees('until they were looked at')
  await person.goTo('/today')
  await person.sees('Do not start it: frost met it unprotected.')
})

test('spring: flushed before it is tight, and back at work', async () => {
  const coordinator = await demo.someone('coordinator')
  await machineInWinter(coordinator, 'V-11')
  await coordinator.press('Book the spring visit')
  await coordinator.press('Book it')
  await coordinator.sees('Back from winter')
  const visit = new URL(coordinator.page.url()).pathname
  const person = await demo.someone('technician', tablet)
  await person.goTo(visit)
  await person.press('Start the sheet')
  await person.sees('Old parts kept')
  await readMeter(person, 0)
  await forward(person, 'Leak look at low pressure')
  await forward(person, 'Not ready to be signed yet')
  await finishSheet(person)
  await person.press('Look at it and sign')
  await person.press('Sign as M. Osei')
  await person.sees('Signed by')
  await machineInWinter(coordinator, 'V-11')
  await coordinator.sees('back at work')
  await coordinator.goTo('/winter/report')
  const csv = await coordinator.page.evaluate(async () => (await fetch('/api/winter?format=csv')).text())
  expect(csv.split('\r\n')[0]).toContain('machine,name,yard,zone,method')
})

test('a yard’s order of work is booked by whoever has the time, and what was left is told until it is read', async () => {
  const person = await demo.someone('coordinator')
  await person.goTo('/winter')
  const [button] = await person.page.$$eval('main button', (all) =>
    all.map((each) => each.textContent!).filter((text) => text.startsWith('Book all ')),
  )
  await person.press(button!)
  await person.sees('Whoever has most time on each day')
  await person.press('Book them')
  await person.sees('Not booked')
  const left = await person.page.$$eval('[role=dialog] li', (all) => all.map((each) => each.textContent!))
  expect(left.length).toBeGreaterThan(0)
  for (const words of left) expect(words).toMatch(/^[A-Z]+-\d+: .+/)
  await person.press('Close')
  await person.goTo('/plan/horizon')
  const leads = await person.page.$$eval('.horizon-block', (all) =>
    all.map((each) => each.getAttribute('aria-label')!),
  )
  expect(leads.length).toBeGreaterThan(Number(button!.replace('Book all ', '')) - left.length)
})
