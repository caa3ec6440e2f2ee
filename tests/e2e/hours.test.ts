import type { Person } from '../support/browser'
import { demoApp } from '../support/demo'

const demo = demoApp()

jest.setTimeout(180_000)

/** The row of a machine as it reads now. */
const line = (person: Person, number: string) =>
  person.page.$$eval(
    '.round-line',
    (rows, wanted) =>
      rows
        .map((row) => (row as HTMLElement).innerText.replaceAll('\u00a0', ' ').replace(/\s+/g, ' '))
        .find((text) => text.startsWith(wanted)) ?? '',
    number,
  )

/** Which machine's field has the focus. */
const focused = (person: Person) =>
  person.page.evaluate(() => document.activeElement?.getAttribute('aria-label') ?? '')

async function lineSays(person: Person, number: string, words: string): Promise<void> {
  await person.page.waitForFunction(
    (wanted, says) =>
      [...document.querySelectorAll<HTMLElement>('.round-line')].some((row) => {
        const text = row.innerText.replaceAll('\u00a0', ' ').replace(/\s+/g, ' ')
        return text.startsWith(wanted) && text.includes(says)
      }),
    {},
    number,
    words,
  )
}

/** What the machine at hand is expected to show, from its row. */
async function expected(person: Person, number: string): Promise<{ low: number; high: number }> {
  const [, low, high] = (await line(person, number)).match(/expect ([\d ]+\.?\d*) to ([\d ]+\.?\d*)/)!
  return { low: Number(low!.replaceAll(' ', '')), high: Number(high!.replaceAll(' ', '')) }
}

test('a whole round by keyboard: what fits, a lost point, a high reading, a new meter, a skip, an undo', async () => {
  const person = await demo.someone('coordinator')
  await person.goTo('/hours')
  await person.sees('6 to read:')
  const { keyboard } = person.page
  let keys = 0
  const press = async (key: 'Enter' | 'KeyD' | 'KeyK' | 'KeyM' | 'KeyS') => {
    keys += 1
    await keyboard.press(key)
  }
  const at = async (number: string) => {
    await person.page.waitForFunction(
      (wanted) => document.activeElement?.getAttribute('aria-label')?.startsWith(wanted),
      {},
      number,
    )
  }

  // Harbour yard, bay 2: the point is lost on the phone, and one key puts it back.
  await at('T-09')
  const hull = await expected(person, 'T-09')
  const hullValue = ((hull.low + hull.high) / 2).toFixed(1)
  await keyboard.type(hullValue.replace('.', ''))
  await lineSays(person, 'T-09', 'Looks like a slip')
  await press('KeyD')
  await lineSays(person, 'T-09', 'fits')
  await press('Enter')
  await at('V-12')
  await lineSays(person, 'T-09', 'counts')

  // Bay 12: more than this van ever ran; kept with a word.
  const van = await expected(person, 'V-12')
  await keyboard.type((van.high + 30).toFixed(1))
  await lineSays(person, 'V-12', 'High')
  await press('KeyK')
  await keyboard.type('two shifts at the fair')
  await press('Enter')
  await lineSays(person, 'V-12', 'counts')

  // The rinse rig was given a new meter.
  await at('R-05')
  await keyboard.type('12.5')
  await lineSays(person, 'R-05', 'Looks like a new meter')
  await press('KeyM')
  await press('Enter')
  await lineSays(person, 'R-05', 'counts')

  // Upland yard: one is out on a job, the next fits, and is taken back again.
  await at('V-21')
  await press('KeyS')
  await press('Enter')
  await lineSays(person, 'V-21', 'Say why, in a word.')
  await keyboard.type('out on a job')
  await press('Enter')
  await lineSays(person, 'V-21', 'skipped: out on a job')
  await at('V-24')
  const school = await expected(person, 'V-24')
  await keyboard.type(((school.low + school.high) / 2).toFixed(1))
  await press('Enter')
  await lineSays(person, 'V-24', 'counts')
  await keyboard.down('Control')
  await keyboard.press('z')
  await keyboard.up('Control')
  await lineSays(person, 'V-24', 'fits')
  await at('V-24')
  await press('Enter')
  await lineSays(person, 'V-24', 'counts')
  await at('R-08')
  const rig = await expected(person, 'R-08')
  await keyboard.type(((rig.low + rig.high) / 2).toFixed(1))
  await press('Enter')
  await person.sees('The round is done.')
  await person.sees('6 to read: 5 count, 1 skipped, 0 still to come.')
  // Six machines, two of them plain: beyond the digits and the words.
  expect(keys).toBeLessThanOrEqual(13)

  await person.goTo('/fleet/R-05')
  await person.sees('Told during the round')
  await person.goTo('/today')
  await person.sees('1 machine owes a reading.')
})

test('a reading that brings a limit closer shows what it moves', async () => {
  const person = await demo.someone('technician')
  await person.goTo('/hours')
  await person.press('Read T-12 quarry trailer')
  await person.page.waitForFunction(() =>
    document.activeElement?.getAttribute('aria-label')?.startsWith('T-12'),
  )
  const { high } = await expected(person, 'T-12')
  await person.page.keyboard.type(high.toFixed(1))
  await person.page.keyboard.press('Enter')
  await lineSays(person, 'T-12', 'counts')
  await person.page.waitForFunction(() =>
    /T-12 renew high-pressure seals, all cylinders \d+ \w+ → \d+ \w+/.test(
      (document.querySelector('.round-side') as HTMLElement).innerText
        .replaceAll('\u00a0', ' ')
        .replace(/\s+/g, ' '),
    ),
  )
  await person.press('Undo')
  await person.sees('No due day has moved yet.')
})

test('a crew’s message is pasted, matched and judged before anything is saved', async () => {
  const person = await demo.someone('coordinator')
  await person.goTo('/hours')
  await person.press('Paste a message')
  const field = await person.field('Message')
  const last = async (number: string) =>
    Number((await line(person, number)).replaceAll(' ', '').match(/[a-z](\d+\.\d)/)![1])
  const tram = (await last('V-11')) + 2
  await field.evaluate(
    (element, value) => {
      const set = Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value')!.set!
      set.call(element, value)
      element.dispatchEvent(new Event('input', { bubbles: true }))
    },
    `V11: ${tram.toFixed(1)} h\nT-04 no idea\nZ-99 5000\nS-02 99999`,
  )
  await person.press('Read it')
  await person.sees('4 lines read')
  await person.sees('Has no value.')
  await person.sees('Names no machine.')
  await person.sees('Fits')
  await person.page.click('[aria-label="Take line 4"]')
  await person.press('Save 1 reading')
  await lineSays(person, 'V-11', 'counts')
  expect(await line(person, 'S-02')).toContain('read, fits')
})

test('a viewer sees the round and types nothing', async () => {
  const person = await demo.someone('viewer')
  await person.goTo('/hours')
  await person.sees('Reading round')
  expect(await person.page.$$('.round-line input')).toHaveLength(0)
  expect(await focused(person)).toBe('')
})
