import { eventually, type Person } from './browser'
import { RemoteTablet } from './tablet'

/** What the middle of the sheet shows: its title, where it is, which bolt, and what the button says. */
export function standing(person: Person): Promise<{ title: string; place: string; confirm: string }> {
  return person.page.$eval('.bench-work', (work) => {
    const words = (selector: string) => work.querySelector(selector)?.textContent ?? ''
    const bolt = words('.torque-entry')
    return {
      title: words('h2'),
      place: [words('h2'), words('.step-where'), words('.bench-step .second'), bolt].join('|'),
      confirm: words('.confirm').replaceAll('\u00a0', ' '),
    }
  })
}

/** Presses the confirmation and waits until something else stands there; counts as one tap. */
export async function confirm(person: Person): Promise<void> {
  const before = await standing(person)
  // What streams in may draw the button anew: it is found and pressed in one go.
  await person.page.$eval('.bench-work .confirm', (button) => (button as HTMLElement).click())
  await person.page.waitForFunction(
    (was) => {
      const work = document.querySelector('.bench-work')!
      const words = (selector: string) => work.querySelector(selector)?.textContent ?? ''
      const is = [
        words('h2'),
        words('.step-where'),
        words('.bench-step .second'),
        words('.torque-entry'),
      ].join('|')
      return is !== was
    },
    {},
    before.place,
  )
  // A settled step may still stand there for a moment before the next one does.
  for (let last = ''; ;) {
    const { place } = await standing(person)
    if (place === last) return
    last = place
    await new Promise((resolve) => setTimeout(resolve, 60))
  }
}

export type Walked = { taps: number; steps: number; bolts: number }

/**
 * Does the steps one after the other, as the sheet offers them, until its title contains the words: with
 * what each asks for, nothing seen on old parts, the first answer of a question. Counts taps; typing a
 * value counts as one.
 */
export async function workUntil(person: Person, words: string, walked = blank()): Promise<Walked> {
  const { page } = person
  for (let step = 0; step < 260; step += 1) {
    const now = await standing(person)
    if (now.title.includes(words)) return walked
    const press = async (selector: string) => {
      await page.$$eval(selector, ([first]) => (first as HTMLButtonElement).click())
      walked.taps += 1
    }
    if (await page.$('.look-up')) {
      await lookUp(person)
      walked.taps += 3
      continue
    }
    if (await page.$('.answers')) await press('.answers button')
    // Valves that go back: each is said to be in its own bore.
    for (let left = (await page.$$('.own-bores [aria-pressed=false]')).length; left > 0; left -= 1)
      await press('.own-bores [aria-pressed=false]')
    const measure = await page.$('#measure')
    if (measure) {
      const hint = await page.$eval('#measure', (input) => input.closest('section')?.textContent ?? '')
      await measure.type(middleOf(hint))
      walked.taps += 1
    }
    const setting = await page.$('#setting')
    if (setting && (await setting.evaluate((input) => (input as HTMLInputElement).value)) === '') {
      await setting.type('three turns out')
      walked.taps += 1
    }
    for (let left = (await page.$$('.locks li button')).length; left > 0; left -= 1) {
      await press('.locks li button')
      // Somebody else's lock: by whom it was taken off.
      const asked = await page.waitForSelector('[role=dialog]', { timeout: 400 }).catch(() => null)
      if (asked) {
        await person.type('Taken off by whom, by which rule', 'in person')
        await person.press('It is off')
      }
      await page.waitForFunction(
        (before) => document.querySelectorAll('.locks li button').length < before,
        {},
        left,
      )
    }
    walked.bolts += now.confirm.startsWith('Bolt') ? 1 : 0
    walked.steps += now.confirm.startsWith('Bolt') ? 0 : 1
    await confirm(person)
    walked.taps += 1
  }
  throw new Error(`The sheet never came to “${words}”; it stands at “${(await standing(person)).title}”.`)
}

/**
 * Takes the sheet that somebody has open to the step whose title contains the words, through the API and
 * on another device of theirs: for a test that is about what comes after. Every step is done as in `workUntil`.
 */
export async function forward(person: Person, words: string): Promise<void> {
  const cookies = await person.page.browserContext().cookies()
  const cookie = cookies.map(({ name, value }) => `${name}=${value}`).join('; ')
  const sheetId = new URL(person.page.url()).pathname.split('/')[2]!
  await person.sees('All saved')
  await (await RemoteTablet.at(person.url, cookie, sheetId)).forwardTo(words)
  await person.reload()
  await eventually(async () => expect((await standing(person)).title).toContain(words))
}

/** A value inside the limits that stand beside a measure; 20 where there are none. */
function middleOf(hint: string): string {
  const both = /([\d.]+) to ([\d.]+)/.exec(hint.replaceAll('\u00a0', ' '))
  return both ? String((Number(both[1]) + Number(both[2])) / 2) : '20'
}

export const blank = (): Walked => ({ taps: 0, steps: 0, bolts: 0 })

/** Finds a missing or unverified torque in the manual: the model's own value where it has one. */
export async function lookUp(person: Person, value?: string): Promise<void> {
  const said = await person.page.$eval('.look-up', (part) => part.textContent!.replaceAll('\u00a0', ' '))
  await person.type('Value', value ?? /says ([\d.]+) N·m/.exec(said)?.[1] ?? '22')
  await person.type('Manual and page', 'manual page 12')
  await person.press('It says so: use this value')
  await person.page.waitForFunction(() => !document.querySelector('.look-up'))
}

/** Settles what is left at the end: nothing seen on the old parts, every part used as expected. */
export async function finishSheet(person: Person, walked = blank()): Promise<Walked> {
  for (const words of [/^Nothing seen on all/, /^All \d+ used as expected/]) {
    const found = await person.page.$$eval(
      '.bench-work button',
      (buttons, pattern) =>
        buttons.map((each) => each.textContent ?? '').find((each) => new RegExp(pattern).test(each)) ?? null,
      words.source,
    )
    if (!found) continue
    await person.press(found.replaceAll('\u00a0', ' '), '.bench-work')
    walked.taps += 1
    await person.page.waitForFunction(
      (pattern) =>
        ![...document.querySelectorAll('.bench-work button')].some((each) =>
          new RegExp(pattern).test(each.textContent ?? ''),
        ),
      {},
      words.source,
    )
  }
  for (let left = 0; left < 40; left += 1) {
    const before = (await person.page.$$('.end-rows li')).length
    if (before === 0) return walked
    await person.page.$$eval('.end-rows li:first-child button', (buttons) =>
      (buttons.at(-1) as HTMLButtonElement | undefined)?.click(),
    )
    walked.taps += 1
    await person.page.waitForFunction(
      (count) =>
        document.querySelectorAll('.end-rows li').length < count ||
        document.querySelector('[role=dialog]') !== null,
      {},
      before,
    )
    if (await person.page.$('[role=dialog]')) {
      await person.press('Used', '.bench-dialog')
      // One that is still closing would be taken for the next one's.
      await person.page.waitForFunction(() => document.querySelector('[role=dialog]') === null)
    }
  }
  return walked
}

/** Types a reading of the meter: so much more than it showed last, or what is expected of it. Answers with it. */
export async function typeReading(person: Person, add: number | 'expected'): Promise<string> {
  await person.sees('Read the hour')
  const text = await person.text()
  const number = (pattern: RegExp) => Number(text.match(pattern)![1]!.replaceAll(' ', ''))
  const value =
    add === 'expected'
      ? (number(/expect ([\d ]+\.\d) h/) + number(/ to ([\d ]+\.\d) h/)) / 2
      : number(/Last ([\d ]+\.\d) h/) + add
  const label = await person.page.$eval('.bench-work label', (each) => each.textContent!)
  await person.type(label, value.toFixed(1))
  await person.sees('Fits')
  await person.page.waitForSelector('.bench-work .confirm:not([disabled])')
  return value.toFixed(1)
}

/** Waits until the meter is read and something else stands there. */
export async function isRead(person: Person): Promise<void> {
  const started = ['Isolate and lock out', 'How is', 'Is this', 'What drives']
  await person.page
    .waitForFunction(
      (starts) =>
        starts.some((words) => document.querySelector('.bench-work h2')?.textContent?.startsWith(words)),
      {},
      started,
    )
    .catch(async () => {
      throw new Error(`The meter was not read. The page says:\n${await person.text()}`)
    })
}

/** Reads the meter first. */
export async function readMeter(person: Person, add: number | 'expected'): Promise<void> {
  await typeReading(person, add)
  // The verdict that comes in draws the button anew and moves it: found and pressed in one go.
  await person.page.$eval('.bench-work .confirm', (button) => (button as HTMLElement).click())
  await isRead(person)
}

/** A tablet at the bench. */
export const tablet = { width: 1024, height: 768 }

/** Opens a sheet for a breakdown with these services. */
export async function breakdown(person: Person, machine: string, ...services: string[]): Promise<void> {
  await person.goTo(`/fleet/${machine}`)
  await person.press('Breakdown')
  await person.sees('What happened')
  await person.type('What happened', 'Rough running, water from the weep holes')
  for (const service of services)
    await person.page.$$eval(
      '[role=dialog] label',
      (labels, words) => labels.find((label) => label.textContent!.includes(words))!.click(),
      service,
    )
  await person.press('Open the sheet')
  await person.sees('Read the hour')
}
