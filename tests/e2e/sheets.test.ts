import { demoEnv, startApp } from '../support/app'
import { finishSheet, forward, readMeter, workUntil } from '../support/benchWalk'
import { Person } from '../support/browser'
import { demoApp } from '../support/demo'

const demo = demoApp()

jest.setTimeout(240_000)

const tablet = { width: 1024, height: 768 }

const { someone } = demo

/** The words of the first list row that contains all of these. */
const row = (person: Person, ...words: string[]) => person.row(...words)

/** What goes to paper when the page is printed; it is drawn for that alone. */
async function onPaper({ page }: Person): Promise<string> {
  expect(await page.$('.paper-sheet')).toBeNull()
  await page.evaluate(() => {
    const keep = () => Object.assign(window, { paper: document.querySelector('.paper-sheet')?.textContent })
    window.addEventListener('beforeprint', keep, { once: true })
  })
  await page.pdf({ format: 'a4' })
  const words = await page.evaluate(() => (window as unknown as { paper?: string }).paper ?? '')
  await page.waitForFunction(() => !document.querySelector('.paper-sheet'))
  return words
}

test('from a reading that makes seals due to a signed record, through a killed server', async () => {
  const coordinator = await someone('coordinator')
  await coordinator.goTo('/today')
  await coordinator.sees('Wednesday 14 October')
  expect(await row(coordinator, 'T-12', 'Renew high-pressure seals')).toBe('')
  await coordinator.goTo('/fleet/T-12')
  await coordinator.press('Add reading')
  await coordinator.sees('Reading of T-12')
  const last = Number((await coordinator.text()).match(/Last reading ([\d ]+\.\d)/)![1]!.replaceAll(' ', ''))
  await coordinator.type('Engine hours: the meter shows', (last + 14).toFixed(1))
  await coordinator.press('Save reading')
  await coordinator.sees('is recorded.')
  await coordinator.goTo('/today')
  await coordinator.sees('the last day on which acting')
  expect(await row(coordinator, 'T-12', 'Renew high-pressure seals')).toContain('722 of 800 h')

  // Planned, with the one service that is not on Friday's visit already.
  await coordinator.goTo('/fleet/pumps/P-12')
  await coordinator.press('Book a visit')
  await coordinator.sees('Technician')
  await coordinator.choose('Technician', 'M. Osei')
  await coordinator.press('Book it')
  await coordinator.sees('The visit is booked.')
  await coordinator.sees('Renew high-pressure seals all cylinders')
  const seals = async () => {
    await coordinator.goTo('/stores/HP-20')
    return Number((await coordinator.text()).match(/([\d ]+) pieces?/)![1]!.replaceAll(' ', ''))
  }
  const before = await seals()

  // At the bench, on a tablet.
  const osei = await someone('technician', tablet)
  await osei.goTo('/today')
  await osei.sees('the last day on which acting')
  await osei.page.$$eval('.visit-row', (rows) =>
    [...rows]
      .find((each) => each.textContent!.includes('T-12'))!
      .querySelector<HTMLElement>('.row-action a')!
      .click(),
  )
  await osei.press('Start the sheet')
  // Nothing opens before the meter is read and the machine made safe.
  await osei.sees('Read the hour meter')
  await osei.press('Strip down0 of 11')
  await osei.sees('Not yet. Read the meter first: engine hours.')
  await osei.press('Go there')
  await readMeter(osei, 0)
  await forward(osei, 'Is everything safe to open?')
  await osei.sees('Made safe: M. Osei')
  await forward(osei, 'prise evenly at two opposite points')
  await osei.sees('All saved')
  const paper = await onPaper(osei)
  expect(paper).toMatch(/✓Isolate and lock out/)
  expect(paper).toMatch(/first pass\..+20\u00a0N·m = 177\u00a0in-lb/)

  // The power goes in the yard's office. Work goes on, and nothing is lost.
  await demo.app.kill()
  await workUntil(osei, 'Look at the old seal')
  await osei.sees('kept on this device')
  const sheetPath = new URL(osei.page.url()).pathname
  const sheetNumber = (await osei.text()).match(/Sheet (\d{4})/)![1]!
  demo.app = await startApp(demo.folder, demoEnv, demo.app.port)
  await osei.sees('All saved')
  await osei.reload()
  await osei.sees('Look at the old seal')
  expect(await osei.text()).toMatch(/Strip down\s+11 of 11/)

  await osei.press('Remark')
  await osei.type('Remark', 'Glazed on the pressure side.')
  await osei.press('Keep it')
  await osei.sees('Glazed on the pressure side.')
  await workUntil(osei, 'Tighten the manifold screws, first pass.')
  // The wrench was set to foot-pounds.
  await osei.choose('Unit of torque', 'ft-lb')
  await osei.press('Bolt 1 done at 20 ft-lb')
  await osei.sees('It would fit in N·m: was the unit misread?')
  await osei.press('It was 20 N·m')
  await osei.press('Bolt 1 done at 20 N·m')
  await osei.sees('2 of 8')
  await workUntil(osei, 'Not ready to be signed yet')
  // One tap takes the seals from their lot; what was not used wants a word.
  await osei.press('High-pressure seal3', '.bench-side')
  await osei.sees('lot ')
  await osei.press('Not used')
  await osei.type('Why', 'the old ones were new')
  await osei.press('Note it')
  await osei.sees('Everything is done')
  await osei.sees('All saved')

  // Two tabs come to sign; one signature counts.
  const other = new Person(await osei.page.browserContext().newPage(), demo.app.url)
  await other.page.setViewport(tablet)
  await other.page.evaluateOnNewDocument('globalThis.__name ??= (target) => target')
  await other.goTo(`${sheetPath}/sign`)
  await other.sees('Lives that end')
  await osei.page.bringToFront()
  await osei.press('Look at it and sign')
  await osei.sees('Lives that end')
  await osei.sees('High-pressure seal, cylinder 1')
  expect(await osei.holds('Why it came out, High-pressure seal, cylinder 1')).toBe('preventive')
  expect(await osei.text()).toContain('Retainer O-ring (0 of 3)')
  await osei.press('Sign as M. Osei')
  await osei.sees('Signed by')
  await osei.sees('after 72')
  await other.page.bringToFront()
  await other.press('Sign as M. Osei')
  await other.sees('M. Osei signed this sheet on 14 Oct 2026 already.')

  // The clock, the stock and the record.
  await coordinator.goTo('/fleet/pumps/P-12')
  expect(await row(coordinator, 'Renew high-pressure seals')).toContain('0 of 800 h')
  expect(await row(coordinator, `Sheet ${sheetNumber}`)).toContain('signed, M. Osei')
  expect(await seals()).toBe(before - 3)
  await coordinator.goTo('/fleet/T-12')
  // The plungers were looked at on the same sheet and kept: they are no position renewed.
  await coordinator.sees(
    `Sheet ${sheetNumber} signed. P-12: Renew high-pressure seals, all cylinders; Look at plungers, renew what is bad, all cylinders (3 positions renewed)`,
  )
  await coordinator.goTo('/today')
  await coordinator.sees('the last day on which acting')
  expect(await row(coordinator, 'T-12', 'Renew high-pressure seals')).toBe('')
  const csv = await coordinator.page.evaluate(async () =>
    (await fetch('/api/record?pump=P-12&format=csv')).text(),
  )
  expect(csv).toMatch(
    new RegExp(
      `${sheetNumber},signed,T-12,P-12,2026-10-14,\\d\\d:\\d\\d,Renewed,"High-pressure seal, cylinder 2",,72\\d\\.?\\d?,h,Renewed in time,M. Osei`,
    ),
  )
})

test('a breakdown: unplanned sheet, a skipped step, another tool, a part renewed besides, and a correction', async () => {
  const person = await someone('technician', tablet)
  await person.goTo('/fleet/T-11')
  await person.press('Breakdown')
  await person.sees('What happened')
  await person.press('Open the sheet')
  await person.sees('Say what happened.')
  await person.sees('Choose at least one service.')
  await person.type('What happened', 'Water from the weep hole of cylinder 2')
  await person.page.$$eval('[role=dialog] label', (labels) =>
    labels.find((label) => label.textContent!.includes('Renew low-pressure seals'))!.click(),
  )
  await person.press('Low-pressure seal, cylinder 1')
  await person.press('Low-pressure seal, cylinder 3')
  await person.press('Open the sheet')
  await readMeter(person, 4)
  // Locking out cannot be skipped; what may be skipped wants its reason.
  expect(await person.text()).not.toContain('Skip it')
  await workUntil(person, 'Is everything safe to open?')
  await forward(person, 'Draw the seal retainer')
  await person.press('Other tool')
  await person.type('What was used', 'Wooden pick')
  await person.type('Why', 'the blunt one is at the other yard')
  await person.press('Note it')
  await person.sees('Wooden pick instead of Blunt O-ring pick')
  await person.press('Done')
  await person.sees('Say what was found.')
  await forward(person, 'Look at the old seal')
  await person.press('Skip it')
  await person.press('Skip it', '[role=dialog]')
  await person.sees('Fill this in.')
  await person.type('Why is it skipped?', 'fell to pieces')
  await person.press('Skip it', '[role=dialog]')
  await person.sees('Count back what came out')
  // The oil seal behind it goes as well.
  await person.page.$$eval('.bench-cell', (cells) =>
    (cells as HTMLElement[]).find((cell) => cell.ariaLabel!.startsWith('Oil seal, cylinder 2'))!.click(),
  )
  await person.press('It was renewed')
  await person.sees('Say why it was renewed.')
  await person.type('Why it was done otherwise', 'water got past it')
  await person.press('It was renewed')
  await forward(person, 'Not ready to be signed yet')
  await finishSheet(person)
  await person.sees('Everything is done')
  await person.press('Other part')
  await person.choose('Part', 'Not from the stores')
  await person.type('What was used', 'shim ring')
  await person.type('How much', '1.5')
  await person.press('Used', '.bench-dialog')
  await person.sees('Pieces are used whole.')
  await person.type('How much', '1')
  await person.press('Used', '.bench-dialog')
  await person.sees('shim ring')
  await person.sees('All saved')
  await person.press('Look at it and sign')
  await person.sees('Lives that end')
  expect(await person.holds('Why it came out, Low-pressure seal, cylinder 2')).toBe('failed')
  expect(await person.holds('Why it came out, Oil seal, cylinder 2')).toBe('disturbed')
  await person.choose('Why it came out, Oil seal, cylinder 2', 'It had failed')
  await person.press('Sign as M. Osei')
  await person.sees('Signed by')
  await person.sees('besides what was planned')
  await person.sees('fell to pieces')

  // Signed is signed: what is wrong is corrected by an entry that names it.
  await person.press('Correct')
  await person.press('Add the correction')
  await person.sees('Choose what to correct.')
  await person.choose('What is wrong', 'Why it came out: Oil seal, cylinder 2')
  await person.choose('Why it really came out', 'Came out for another job')
  await person.type('Why it is corrected', 'looked at it again under the glass')
  await person.press('Add the correction')
  await person.sees('The correction is on the record.')
  await person.sees('Oil seal, cylinder 2: came out for another job')
  await person.goTo('/fleet/pumps/P-11')
  expect(await row(person, 'Renew low-pressure seals', 'cylinder 2', ' of ')).toContain('0 of 1 000 h')
})

test('stores: a part is added, received and counted; a bin the book is wrong about is put right', async () => {
  const person = await someone('coordinator')
  await person.goTo('/stores')
  await person.press('Add part')
  await person.press('Save')
  await person.sees('Give it your own number.')
  await person.type('Our number', 'HP-20')
  await person.type('Name', 'Gasket sheet')
  await person.type('Price of one', '3,50')
  await person.press('Save')
  await person.sees('This number is taken by another part.')
  expect(await person.holds('Name')).toBe('Gasket sheet')
  await person.type('Our number', 'GS-1')
  await person.press('Save')
  await person.page.waitForFunction(() => document.querySelector('[role=dialog]') === null)
  await person.goTo('/stores/GS-1')
  await person.sees('Never received.')
  await person.press('Receive')
  await person.type('How much', 'a few')
  await person.press('Receive', '[role=dialog]')
  await person.sees('“a few” is not a number.')
  await person.type('How much', '4')
  await person.press('Receive', '[role=dialog]')
  await person.sees('4 pieces')
  await person.sees('3.50 EUR')

  await person.goTo('/today')
  await person.sees('the last day on which acting')
  expect(await row(person, 'OR-31', 'on hand')).toContain('Count this bin')
  await person.goTo('/stores/OR-31')
  await person.sees('more than the book had.')
  // Nothing there, and work to come: it is ordered, with what takes it and the stock drawn week by week.
  await person.sees('What is coming')
  expect(await person.text()).toContain('T-04: renew high-pressure seals')
  await person.page.waitForSelector('figure .recharts-line')
  const wanted = Number(/Order (\d+) now/.exec(await person.text())![1])
  await person.press('Count this bin')
  await person.sees('The book had run out')
  const lot = await person.page.$eval('[role=dialog] label', (label) => label.textContent!)
  await person.type(lot, '-3')
  await person.press('Set the book right')
  await person.sees('A bin holds 0 or more.')
  await person.type(lot, '14')
  await person.press('Set the book right')
  await person.sees('14 pieces')
  // What was found there is ordered less.
  await person.page.waitForFunction(
    (before) => {
      const order = /Order (\d+) /.exec(document.body.innerText)
      return !order || Number(order[1]) < before
    },
    {},
    wanted,
  )
  expect(await person.text()).not.toContain('more than the book had.')
  await person.goTo('/stores')
  const csv = await person.page.evaluate(async () => (await fetch('/api/parts?format=csv')).text())
  expect(csv).toContain('OR-31,"O-ring 31 × 2, seal retainer"')
  const viewer = await someone('viewer')
  await viewer.goTo('/stores/OR-31')
  await viewer.sees('On hand')
  expect(await viewer.text()).not.toContain('Receive\n')
})

test('a visit says which parts will not arrive in time', async () => {
  const person = await someone('coordinator')
  await person.goTo('/plan')
  await person.press('T-12', '.part:nth-of-type(5)')
  await person.sees('Parts that will not arrive in time:')
  await person.sees('Ceramic plunger (2 missing, ordered today it comes 4 Nov)')
})

test('entries are taken only from a page of ours and from somebody signed in; a bad list is told', async () => {
  const person = await someone('technician')
  await person.goTo('/sheets')
  const id = await person.page.$eval(
    '.part a[href^="/sheets/"]',
    (link) => link.getAttribute('href')!.split('/')[2]!,
  )
  const url = `${demo.app.url}/api/sheets/${id}/entries`
  const post = (headers: Record<string, string>, body: string) =>
    fetch(url, { method: 'POST', headers: { 'content-type': 'application/json', ...headers }, body }).then(
      async (answer) => ({
        status: answer.status,
        body: (await answer.json()) as { problem: { message: string } },
      }),
    )
  const cookie = (await person.page.browserContext().cookies())
    .map(({ name, value }) => `${name}=${value}`)
    .join('; ')
  expect((await post({ cookie }, '[]')).status).toBe(403)
  expect((await post({ cookie, origin: 'http://elsewhere.example' }, '[]')).status).toBe(403)
  expect((await post({ origin: demo.app.url }, '[]')).status).toBe(401)
  expect((await post({ cookie, origin: demo.app.url }, 'no json')).status).toBe(422)
  // Each entry is answered by itself: what is none is refused and spoils no other.
  const { actor } = (await (await fetch(`${url}?after=0`, { headers: { cookie } })).json()) as {
    actor: { id: string }
  }
  const good = JSON.stringify([
    { id: 'x' },
    {
      id: '0190b0d2-0000-7000-8000-000000000001',
      authorId: actor.id,
      deviceId: 'test-device',
      deviceSeq: 1,
      seenUpTo: 0,
      deviceTime: '2026-10-14T08:00:00.000Z',
      stepKey: null,
      kind: 'remark',
      payload: { text: 'sent twice' },
    },
  ])
  for (const _ of [1, 2])
    expect(await post({ cookie, origin: demo.app.url }, good)).toMatchObject({
      status: 200,
      body: { taken: ['0190b0d2-0000-7000-8000-000000000001'], refused: [{ id: 'x' }] },
    })
  await person.goTo(`/sheets/${id}`)
  await person.sees('sent twice')
  expect((await person.text()).split('sent twice')).toHaveLength(2)
})
