import { breakdown, confirm, finishSheet, forward, readMeter, standing, tablet } from '../support/benchWalk'
import { eventually, type Person } from '../support/browser'
import { demoApp } from '../support/demo'

const demo = demoApp()

jest.setTimeout(240_000)

/** Presses a button of the middle of the sheet by the words on it. */
const answer = (person: Person, words: string) => person.press(words, '.answers')

/** Which steps the sheet lists, by their titles. */
const listed = (person: Person) =>
  person.page.$$eval('.bench-phases li', (rows) => rows.map((row) => row.textContent!.replace(/\s+/g, ' ')))

test('an inlet valve of the compact pump: under the seals, one passage kept free, seals laid back in their places', async () => {
  const osei = await demo.someone('technician', tablet)
  await breakdown(osei, 'V-11', 'Renew inlet valves')
  await readMeter(osei, 2)
  await forward(osei, 'Draw the seal carrier')
  await forward(osei, 'This cylinder carries the passage of the start-assist')
  await osei.sees('cylinder 2')
  await confirm(osei)
  await forward(osei, 'Lay the foot ring in')
  await osei.sees('concave side towards pressure')
  await confirm(osei)
  // The old seal was only drawn on the way in: it goes back where it lay, wetted, its lip to the pressure.
  expect((await standing(osei)).title).toContain('Lay the high-pressure seal back on the foot ring')
  await osei.sees('lip towards pressure')
})

test('plungers on condition, one bad of three: only that one is opened, renewed and on record', async () => {
  const osei = await demo.someone('technician', tablet)
  await breakdown(osei, 'V-21', 'Look at plungers')
  await readMeter(osei, 'expected')
  await forward(osei, 'Turn the plunger under a strong light')
  for (const verdict of ['smooth: stays', 'scored, chipped or cracked: renew', 'smooth: stays']) {
    await answer(osei, verdict)
    await confirm(osei)
  }
  expect((await standing(osei)).title).toContain('Undo the plunger bolt')
  expect((await standing(osei)).place).toContain('cylinder 2')
  const opened = (await listed(osei)).filter((each) => each.includes('Undo the plunger bolt'))
  expect(opened).toHaveLength(1)
  await forward(osei, 'Slide the new plunger')
  await confirm(osei)
  await eventually(async () =>
    expect(
      await osei.page.$$eval('.bench-cell', (cells) =>
        cells.map((cell) => cell.getAttribute('aria-label')!).filter((each) => each.startsWith('Plunger,')),
      ),
    ).toEqual([
      expect.stringMatching(/^Plunger, cylinder 1: .+ hours, kept/),
      'Plunger, cylinder 2: new, renewed on this sheet',
      expect.stringMatching(/^Plunger, cylinder 3: .+ hours, kept/),
    ]),
  )
  await forward(osei, 'Not ready to be signed yet')
  // The new plunger was not reserved: what was seen, and what was used, is asked at the end.
  await osei.sees('Plunger, cylinder 2')
  await finishSheet(osei)
  await osei.sees('1 of 3 renewed')
})

test('a locker by practice: its drop, its time, and no pressure before it has cured', async () => {
  const lindqvist = await demo.someone('coordinator')
  await lindqvist.goTo('/models/practices')
  await lindqvist.page.$$eval('.practice', (practices) => {
    const own = practices.find((each) => each.querySelector('h2')!.textContent === 'Plunger fastener')!
    const label = [...own.querySelectorAll('label')].find((each) =>
      each.textContent!.startsWith('Threadlocker'),
    )!
    label.click()
  })
  await lindqvist.press('Choose this')
  await lindqvist.sees('Plunger fastener: threadlocker.')
  await lindqvist.page.waitForFunction(() =>
    [...document.querySelectorAll('.practice')].some(
      (each) =>
        each.querySelector('h2')!.textContent === 'Plunger fastener' &&
        each.textContent!.includes('usual figures, nobody has read its label yet'),
    ),
  )
  await lindqvist.page.$$eval('.practice', (practices) => {
    const own = practices.find((each) => each.querySelector('h2')!.textContent === 'Plunger fastener')!
    const label = [...own.querySelectorAll('button')].find((each) =>
      each.textContent!.includes('From its label'),
    )!
    label.click()
  })
  await lindqvist.sees('what stands on the label')
  await lindqvist.type('Cured after, minutes', 'tomorrow')
  await lindqvist.press('These hold')
  await lindqvist.sees('Enter the minutes until it has cured')
  expect(await lindqvist.holds('Cured after, minutes')).toBe('tomorrow')
  await lindqvist.type('Cured after, minutes', '300')
  await lindqvist.press('These hold')
  await lindqvist.sees('as on its label')

  const osei = await demo.someone('technician', tablet)
  await breakdown(osei, 'V-11', 'Renew plungers')
  await readMeter(osei, 'expected')
  await forward(osei, 'Clean old residue off both threads of the plunger bolts')
  await confirm(osei)
  expect((await standing(osei)).title).toBe('Tighten the plunger bolt.')
  await osei.sees('medium threadlocker, one drop')
  await osei.sees('Tarnwick C5 · Plunger bolts · cylinder')
  await osei.sees('Locker is on: sets in 10:00')
  await forward(osei, 'Wait until the threadlocker has cured')
  await osei.sees('Threadlocker, plunger bolts')
  await osei.page.$eval('.bench-work .confirm', (button) => (button as HTMLElement).click())
  await osei.sees('until it has cured. Wait, or say why it goes on before.')
  expect((await standing(osei)).title).toContain('Wait until the threadlocker has cured')
})

test('a cartridge of the axial pump by the strip way: verdict, set within set, back into its own bore', async () => {
  const osei = await demo.someone('technician', tablet)
  await breakdown(osei, 'K-02', 'Renew valve cartridges')
  await readMeter(osei, 'expected')
  await forward(osei, 'Look at the old cartridge')
  await osei.press('Another way')
  await osei.sees('Chosen once for all of them')
  await osei.type('Why', 'only one of three is worn')
  await osei.press('Do it so')
  await osei.sees('Added on the way')
  await forward(osei, 'Look at both plates and seats')
  await answer(osei, 'cleaned, goes back')
  await confirm(osei)
  await forward(osei, 'Build the inlet set')
  await osei.sees('the plate springs back')
  await confirm(osei)
  expect((await standing(osei)).title).toContain('Body upside down on the stand')
  await confirm(osei)
  expect((await standing(osei)).title).toContain('press the inlet set on')
  await confirm(osei)
  expect((await standing(osei)).title).toContain('Set the rebuilt cartridge into its own bore')
})

test('engine oil on one sheet with seals: one visit, made safe once, both pumps and engine on record', async () => {
  const lindqvist = await demo.someone('coordinator')
  await lindqvist.goTo('/fleet/T-12')
  await lindqvist.press('Book a visit')
  await lindqvist.sees('Technician')
  for (const words of ['E-12 Change engine oil', 'P-12 Renew low-pressure seals'])
    await lindqvist.page.$$eval(
      '[role=dialog] label',
      (labels, [number, ...name]) => {
        const label = labels.find((each) => {
          const text = each.textContent!.replace(/\s+/g, ' ')
          return text.includes(name.join(' ')) && text.includes(number!)
        })!
        const box = label.querySelector('input')!
        if (!box.checked) label.click()
      },
      words.split(' '),
    )
  await lindqvist.press('Book it')
  await lindqvist.page.waitForFunction(() => location.pathname.startsWith('/plan/'))
  await lindqvist.sees('Change engine oil')
  await lindqvist.sees('Renew low-pressure seals')
  const text = await lindqvist.text()
  expect(text.match(/Isolate and lock out every energy source/g)).toHaveLength(1)
  expect(text).toContain('stop lever out and held, battery minus off')
  expect(text).toContain('Engine oil, grade as the manual states')
})
