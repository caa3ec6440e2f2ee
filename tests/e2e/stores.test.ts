import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { answerOrder } from '@/demo/supplier'
import { finishSheet, forward, readMeter, tablet } from '../support/benchWalk'
import type { Person } from '../support/browser'
import { demoApp } from '../support/demo'

const demo = demoApp()
const files = mkdtempSync(path.join(tmpdir(), 'atelier-files-'))
afterAll(() => rmSync(files, { recursive: true, force: true }))

jest.setTimeout(300_000)

/** Hands a file to the page as somebody would who chose it. */
async function hand(person: Person, label: string, name: string, text: string): Promise<void> {
  const file = path.join(files, name)
  writeFileSync(file, text)
  const input = await person.page.waitForSelector(`input[type=file][aria-label="${label}"]`)
  await (input as unknown as { uploadFile: (path: string) => Promise<void> }).uploadFile(file)
}
const pieces = async (person: Person, number: string) => {
  await person.goTo(`/stores/${number}`)
  return Number((await person.text()).match(/([\d ]+) pieces?/)![1]!.replaceAll(' ', ''))
}

test('a shortage becomes an order, the supplier ships short, the delivery is counted in against its note', async () => {
  const person = await demo.someone('coordinator')
  // Friday's visit lacks plungers: the list of the day says so, and who has some.
  await person.goTo('/stores/picks?day=2026-10-16')
  await person.sees('PL-20')
  await person.sees('short')
  await person.press('Orders')
  await person.sees('To sign')
  expect(await person.row('PL-20', 'now')).toContain('short on')
  await person.press('Write the order', '[aria-label="Order to Corrin Pump Parts"]')
  await person.sees('Draft')
  const address = new URL(person.page.url()).pathname
  const number = address.split('/').at(-1)!
  const order = await person.page.evaluate(
    async (which) => (await fetch(`/api/orders/${which}?format=csv`)).text(),
    number,
  )
  expect(order).toContain('PL-20')
  const wanted = Number(/^\d+,1,[^,]*,[^,]*,[^,]*,[^,]*,([\d.]+),/m.exec(order)![1])
  await person.press('Send')
  await person.press('It is sent')
  await person.sees('Sent. It counts as on its way from now on.')

  // A file that was cut off changes nothing; the whole one confirms less.
  const today = '2026-10-14'
  await hand(person, 'Confirmation as a file', 'cut.csv', answerOrder(order, 'cut', today).confirmation)
  await person.sees('Nothing was taken of it.')
  await hand(person, 'Confirmation as a file', 'short.csv', answerOrder(order, 'short', today).confirmation)
  await person.sees('1 with less than ordered')
  await person.sees('fewer confirmed than ordered')
  await person.sees('not more in stock')

  // What came is counted; more damaged than came is refused and nothing is lost.
  await person.type('Delivery note', 'DN-1')
  const first = (await person.page.$eval('.delivery-line legend .strong', (each) => each.textContent))!
  await person.type(`By the note, ${first}`, '2')
  await person.type(`Counted, ${first}`, '2')
  await person.type(`Of that damaged, ${first}`, '3')
  await person.press('Take in')
  await person.sees('More than came cannot be damaged.')
  await person.type(`Of that damaged, ${first}`, '1')
  await person.press('Take in')
  await person.sees('Write on the bags:')
  await person.sees('1 damaged, set aside')
  await person.sees('Received in part')
  await person.goTo(`/stores/${first}`)
  await person.sees('in quarantine')
  expect(wanted).toBeGreaterThan(2)
  // Called off, the rest does not come any more.
  await person.goTo(address)
  await person.press('Call off')
  await person.type('Why', 'bought elsewhere')
  await person.press('Call off', '[role=dialog]')
  await person.sees('Nothing more comes of it.')
  await person.sees('Closed')
})

test('what is picked for a visit comes off at its bench with one tap, and the signed sheet takes it from the book', async () => {
  const person = await demo.someone('technician', tablet)
  await person.goTo('/stores/picks?day=2026-10-14')
  await person.sees('All that it wants is laid ready.')
  // Brought back and picked anew, with its label.
  await person.press('Bring back: FE-10')
  await person.sees('Back on the shelf.')
  const shelf = await pieces(person, 'FE-10')
  await person.goTo('/stores/picks?day=2026-10-14')
  // Somebody else has the same list open: it is picked once, and the other is told by whom.
  const other = await demo.someone('coordinator')
  await other.goTo('/stores/picks?day=2026-10-14')
  await other.sees('Pick all of it')
  await person.press('Pick all of it')
  await person.sees('Laid ready for visit')
  await other.press('Pick all of it')
  await other.sees('wants no more of FE-10: M. Osei laid 1 ready')
  expect(await pieces(person, 'FE-10')).toBe(shelf - 1)
  await person.goTo('/stores/picks?day=2026-10-14')
  await person.page.$eval('.pick-list h2 a', (link) => (link as HTMLElement).click())
  await person.sees('Bag labels')
  expect(await person.page.$$eval('.bag-labels svg', (codes) => codes.length)).toBe(1)
  await person.page.$eval('.crumb', (link) => (link as HTMLElement).click())
  await person.press('Start the sheet')
  await person.sees('Old parts kept')
  await readMeter(person, 0)
  // A piece is wanted that only an unopened kit has: it is opened here, and its pieces are there to take.
  await person.press('Other part')
  const option = await person.page.$$eval(
    '#part-choice option',
    (options) => options.find((each) => each.textContent!.startsWith('C5-01'))!.textContent!,
  )
  await person.choose('Part', option)
  await person.sees('3 in an unopened C5-KIT')
  const opens = await person.page.$eval('[aria-label^="Open C5-KIT"]', (each) =>
    each.getAttribute('aria-label')!,
  )
  await person.press(opens)
  await person.sees('Opened: its pieces are lots')
  await person.page.waitForFunction(() => !document.querySelector('[aria-label^="Open C5-KIT"]'))
  await person.press('Used')
  await person.sees('Valve assembly, C5 besides')
  await forward(person, 'Not ready to be signed yet')
  await finishSheet(person)
  await person.press('Look at it and sign')
  await person.press('Sign as M. Osei')
  await person.sees('Signed by')
  expect(await pieces(person, 'FE-10')).toBe(shelf - 1)
  await person.sees('Used on')
  expect(await person.text()).toContain('picked, Harbour yard')
})

test('a stocktake by keyboard: a likely slip is asked about, and the book is set right at once', async () => {
  const person = await demo.someone('coordinator')
  await person.goTo('/stores/stocktake')
  await person.sees('By the book')
  const cell = (at: number, column: number) =>
    person.page.$$eval(
      'tbody tr',
      (rows, index, nth) => rows[index]!.children[nth]!.textContent!.trim(),
      at,
      column,
    )
  const at = await person.page.$$eval('tbody tr', (rows) =>
    [...rows].findIndex((row) => row.textContent!.includes('VK-3')),
  )
  const inputs = await person.page.$$('input[data-count]')
  await inputs[at]!.focus()
  const { keyboard } = person.page
  // Enter goes to the next bin; ten times what the book says is asked about.
  const book = Number.parseInt(await cell(at, 3), 10)
  await keyboard.type(String(book))
  await keyboard.press('Enter')
  expect(await person.page.evaluate(() => document.activeElement?.getAttribute('aria-label'))).toContain(
    'OR-24',
  )
  const next = Number.parseInt(await cell(at + 1, 3), 10)
  await keyboard.type(String(next * 10))
  await person.sees('Ten times what the book says.')
  expect(await person.page.$eval('[data-keep]', (button) => (button as HTMLButtonElement).disabled)).toBe(
    true,
  )
  await keyboard.down('Control')
  await keyboard.press('a')
  await keyboard.up('Control')
  await keyboard.type(String(next - 1))
  await keyboard.press('Enter')
  await person.sees('2 of')
  await person.press('Set the book right')
  await person.sees('2 counted, 1 changed')
  await person.page.waitForFunction(
    (row, left) => document.querySelectorAll('tbody tr')[row]?.children[3]?.textContent?.trim() === left,
    {},
    at + 1,
    String(next - 1),
  )
})

test('a price list with a slip is looked at before it is taken', async () => {
  const person = await demo.someone('coordinator')
  await person.goTo('/stores/suppliers')
  const label = 'Price list of Lockgate Trade Counter'
  await hand(person, label, 'twice.csv', 'number;price\nL-300;1,00\nL-300;2,00\n')
  await person.sees('stands on line 2 and on line 3')
  const numbers = await person.page.$$eval(
    '[aria-label="Lockgate Trade Counter"] tbody tr td:nth-child(2)',
    (cells) => cells.map((cell) => cell.textContent!),
  )
  await hand(person, label, 'slip.csv', `number;price\n${numbers[0]};999,00\nX-1;1,00\n`)
  await person.sees('likely a mistake')
  await person.sees('Not bought there, left: X-1.')
  await person.press('Take all but the doubtful')
  await person.sees('0 prices changed.')
})
