import { demoApp } from '../support/demo'
import { expected, line, lineSays } from '../support/round'

// Nine days after the demo’s own day nearly every machine owes a reading.
const demo = demoApp('2026-10-23T06:30:00Z')

jest.setTimeout(240_000)

const wanted = 20

test('a round of 20 takes 25 keys or fewer beyond the digits, with a slip and an unusual reading among them', async () => {
  const person = await demo.someone('coordinator')
  await person.goTo('/hours')
  await person.sees('to read:')
  const { keyboard } = person.page
  const at = () =>
    person.page.evaluate(() => document.activeElement?.getAttribute('aria-label')?.split(' ')[0] ?? '')
  const done: string[] = []
  let keys = 0
  const press = async (key: 'Enter' | 'KeyD' | 'KeyK') => {
    keys += 1
    await keyboard.press(key)
  }
  while (done.length < wanted) {
    await person.page.waitForFunction(
      (last) => {
        const label = document.activeElement?.getAttribute('aria-label') ?? ''
        return /^[A-Z]+-\d+ /.test(label) && !label.startsWith(`${last} `)
      },
      {},
      done.at(-1) ?? '-',
    )
    const number = await at()
    const { low, high } = await expected(person, number)
    const fits = ((low + high) / 2).toFixed(1)
    if (done.length === 4) {
      // The point is lost; one key puts it back.
      await keyboard.type(fits.replace('.', ''))
      await lineSays(person, number, 'Looks like a slip')
      await press('KeyD')
      await lineSays(person, number, 'fits')
      await press('Enter')
    } else if (done.length === 11) {
      await keyboard.type((high + 6).toFixed(1))
      await lineSays(person, number, 'K keep it')
      await press('KeyK')
      await keyboard.type('fair')
      await press('Enter')
    } else {
      await keyboard.type(fits)
      await press('Enter')
    }
    done.push(number)
  }
  for (const number of done) await lineSays(person, number, 'counts')
  expect(new Set(done).size).toBe(wanted)
  // Twenty times Enter, D for the slip, K for the unusual one.
  expect(keys).toBe(22)
})

test('two people on the same round: the second is told what the first entered, and may keep both', async () => {
  const first = await demo.someone('technician')
  const second = await demo.someone('coordinator')
  for (const person of [first, second]) {
    await person.goTo('/hours')
    await person.press('By crew')
    await person.sees('No crew')
  }
  const rows = await second.page.$$eval('.round-line input', (inputs) =>
    inputs.map((input) => input.getAttribute('aria-label')!.split(' ')[0]!),
  )
  // A cutting table has two meters, and so two rows.
  const number = rows.find((each) => !each.startsWith('C-'))!
  const { low, high } = await expected(first, number)
  const value = ((low + high) / 2).toFixed(1)
  for (const person of [first, second]) {
    await person.page.focus(`.round-line input[aria-label^="${number} "]`)
    await person.page.keyboard.type(value)
    await person.page.keyboard.press('Enter')
    await lineSays(person, number, person === first ? 'counts' : 'M. Osei has entered')
  }
  expect(await line(second, number)).toContain('Yours is not saved')
  await second.page.focus(`.round-line input[aria-label^="${number} "]`)
  await second.page.keyboard.press('Enter')
  await lineSays(second, number, 'counts')
})

test('a paste says beside each line what is wrong with it, and saves only what was agreed to', async () => {
  const person = await demo.someone('coordinator')
  await person.goTo('/hours')
  await person.press('Paste a message')
  const field = await person.field('Message')
  await field.evaluate((element, value) => {
    const set = Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value')!.set!
    set.call(element, value)
    element.dispatchEvent(new Event('input', { bubbles: true }))
  }, 'T-14 3 000,5 h\nT-14 3001\nX-77 12\nV-22 about noon\nV-25 12.345')
  await person.press('Read it')
  await person.sees('5 lines read')
  await person.sees('T-14 is named twice.')
  await person.sees('Names no machine.')
  await person.sees('Has no value.')
})
