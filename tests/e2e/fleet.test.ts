import { demoApp } from '../support/demo'

const demo = demoApp()
const coordinator = () => demo.someone('coordinator')
const someone = demo.stranger

test('whoever is not signed in is led to sign in, and back to where they were going', async () => {
  const person = await someone()
  await person.goTo('/fleet/T-04')
  await person.sees('Sign in to the fleet')
  await person.type('Sign-in name', 'lindqvist')
  await person.type('Password', 'not the password')
  await person.press('Sign in')
  await person.sees('do not belong together')
  expect(await person.holds('Sign-in name')).toBe('lindqvist')
  await person.type('Password', 'demo-coordinator')
  await person.press('Sign in')
  await person.sees('T-04 silo trailer')
  await person.press('Sign out')
  await person.sees('Sign in to the fleet')
})

test('the demo offers its accounts, and each role sees what it may do', async () => {
  const roles = [
    {
      be: 'Be H. Lindqvist',
      sees: ['Add machine'],
      misses: [],
      onMachine: ['Add reading', 'Book a visit', 'Breakdown', 'Edit', 'Retire'],
    },
    { be: 'Be M. Osei', sees: [], misses: ['Add machine'], onMachine: ['Add reading', 'Breakdown'] },
    { be: 'Be A. Coyle', sees: [], misses: ['Add machine'], onMachine: [] },
  ]
  for (const role of roles) {
    const person = await someone()
    await person.goTo('/sign-in')
    await person.press(role.be)
    await person.press('Sign in')
    await person.sees('Wednesday 14 October')
    await person.goTo('/fleet')
    await person.sees('24 machines in 2 yards')
    const fleet = await person.text()
    for (const words of role.sees) expect(fleet).toContain(words)
    for (const words of role.misses) expect(fleet).not.toContain(words)
    await person.goTo('/fleet/T-04')
    const buttons = await person.page.$$eval('.page-actions a, .page-actions button', (all) =>
      all.map((each) => each.textContent),
    )
    expect(buttons.sort()).toEqual(role.onMachine.sort())
    await person.leave()
  }
})

test('a machine is added with meter and pump; what was wrong is said beside its field and nothing typed is lost', async () => {
  const person = await coordinator()
  await person.goTo('/fleet')
  await person.press('Add machine')
  await person.sees('Add a machine')
  await person.type('Number', 't-04')
  await person.type('Name', 'lock-gate trailer')
  await person.choose('Yard', 'Upland yard')
  await person.type('Working pressure', 'lots')
  await person.type('It shows', '1 234,5')
  await person.choose('Pump model', 'Ostrel P3-200')
  await person.type('Hours on it then', '')
  await person.press('Add machine')
  await person.sees('need another look')
  expect(await person.errorOf('Working pressure')).toBe('“lots” is not a number.')
  expect(await person.errorOf('Hours on it then')).toBe('Enter the hours it had, or choose another answer.')
  await person.type('Working pressure', '250')
  await person.type('Hours on it then', '300')
  await person.press('Add machine')
  await person.sees('Another machine has this number.')
  expect(await person.holds('Name')).toBe('lock-gate trailer')
  await person.type('Number', 'T-16')
  await person.press('Add machine')
  await person.sees('T-16 lock-gate trailer')
  await person.sees('1 234.5 h')
  await person.sees('Ostrel P3-200 main pump')
  await person.sees('300 h')
  await person.sees('250 bar')
  await person.goTo('/fleet')
  await person.type('Search machine, pump, service', 'lock-gate')
  await person.sees('T-16 lock-gate trailer')
  expect(await person.page.$$('tbody tr')).toHaveLength(1)
})

test('a reading is entered, judged as it is typed, and can be undone', async () => {
  const person = await coordinator()
  await person.goTo('/fleet/R-03')
  await person.press('Add reading')
  await person.sees('Reading of R-03')
  const before = Number((await person.text()).match(/Last reading ([\d ]+\.\d)/)![1]!.replaceAll(' ', ''))
  await person.type('Engine hours: the meter shows', (before + 4).toFixed(1))
  await person.sees('Fits, +4.0 h')
  await person.press('Save reading')
  await person.sees('is recorded.')
  await person.sees(`${spaced(before + 4)} h read today`)
  await person.press('Undo')
  await person.sees('the reading was taken back')
  await person.sees(`${spaced(before)} h read yesterday`)
})

test('a slip is caught as it is typed; an impossible reading is kept in doubt, then settled', async () => {
  const person = await coordinator()
  await person.goTo('/fleet/T-10')
  await person.press('Add reading')
  const before = Number((await person.text()).match(/Last reading ([\d ]+\.\d)/)![1]!.replaceAll(' ', ''))
  await person.type('Engine hours: the meter shows', String(Math.round((before + 6) * 10)))
  await person.sees('Looks like a slip.')
  await person.sees(`Use ${spaced(before + 6)} h`)
  await person.type('Engine hours: the meter shows', (before - 300).toFixed(1))
  await person.sees('Runs backwards')
  await person.press('Save reading')
  await person.sees('One reading is in doubt.')
  await person.sees(`${spaced(before)} h read 3 days ago`)

  await person.press(`Settle ${spaced(before - 300)} of 14 Oct`)
  await person.sees('What happened?')
  await person.press('It was misread or mistyped: correct it')
  await person.type('The meter showed', 'about 40')
  await person.press('Settle it')
  await person.sees('Say why, for whoever reads this later.')
  await person.type('Why', 'photo from the crew')
  await person.press('Settle it')
  await person.sees('“about 40” is not a number.')
  await person.type('The meter showed', (before + 5).toFixed(1))
  await person.press('Settle it')
  await person.sees('Settled.')
  await person.sees(`${spaced(before + 5)} h read today`)
  const text = await person.text()
  expect(text).not.toContain('in doubt.')
  expect(text).toContain(`corrected to ${spaced(before + 5)} h`)
  expect(text).toContain('photo from the crew')
})

test('the doubted reading of the demo is settled with the value that would fit', async () => {
  const person = await coordinator()
  await person.goTo('/fleet/T-09')
  await person.sees('One reading is in doubt.')
  await person.press('Settle')
  await person.sees('What happened?')
  const fits = await person.holds('The meter showed')
  expect(Number(fits)).toBeLessThan(6000)
  await person.type('Why', 'the point was missed')
  await person.press('Settle it')
  await person.sees(`${spaced(Number(fits))} h read yesterday`)
})

test('a stale edit from a second browser is refused, and both people’s changes can be kept', async () => {
  const first = await coordinator()
  const second = await coordinator()
  await first.goTo('/fleet/V-21/edit')
  await second.goTo('/fleet/V-21/edit')
  await second.choose('Storage', 'Heated')
  await second.press('Save machine')
  await second.sees('V-21 is saved.')
  await first.type('Bay', '9')
  await first.press('Save machine')
  await first.sees('H. Lindqvist saved this while you were editing.')
  await first.sees('Changed meanwhile: Storage.')
  expect(await first.holds('Bay')).toBe('9')
  await first.press('Take those in and keep what I typed')
  await first.press('Save machine')
  await first.sees('V-21 is saved.')
  await first.sees('Upland yard, bay 9')
  await first.sees('Heated')
  await first.sees('Storage: Outdoors → Heated')
  await first.sees('Bay: 5 → 9')
})

test('a pump is taken off, and put back by undo; a machine with a pump on it is not retired', async () => {
  const person = await coordinator()
  await person.goTo('/fleet/K-02')
  await person.press('Retire')
  await person.sees('Retire K-02?')
  await person.press('Retire K-02')
  await person.sees('Say why, for the record.')
  await person.type('Why is it retired?', 'axle cracked')
  await person.press('Retire K-02')
  await person.sees('K-02 still has P-40 on it.')
  await person.press('Leave it as it is')
  await person.press('Move or take off')
  await person.sees('Move P-40')
  await person.choose('Yard', 'Upland yard')
  await person.type('Bin or shelf', 'U-09')
  await person.press('Move P-40')
  await person.sees('Nothing is fitted.')
  await person.press('Undo')
  await person.sees('P-40 is back where it was.')
  await person.sees('P-40 Quillon X2')
})

test('an accessory is added to a shelf, fitted to a machine, and found', async () => {
  const person = await coordinator()
  await person.goTo('/fleet/pumps')
  await person.press('Add pump, drive or accessory')
  await person.choose('Kind', 'Accessory')
  await person.type('Number', 'A-09')
  await person.type('What is it?', 'start-assist valve')
  await person.press('Fitted to a machine')
  await person.choose('Machine', 'T-11 dock trailer')
  await person.press('Add it')
  await person.sees('Choose the meter that counts it.')
  await person.choose('Counted by', 'Engine hours')
  await person.press('Add it')
  await person.sees('A-09 start-assist valve')
  await person.sees('T-11 dock trailer')
})

test('models, yards and people are managed; a technician cannot', async () => {
  const person = await coordinator()
  await person.goTo('/models')
  await person.press('Add pump model')
  await person.type('Maker', 'Ostrel')
  await person.type('Model', 'P3-200')
  await person.press('Save model')
  await person.sees('There is a model Ostrel P3-200 already.')
  await person.type('Model', 'P3-250')
  await person.press('Save model')
  await person.sees('The model is saved.')
  await person.goTo('/settings?part=yards')
  await person.press('Add yard')
  await person.type('Yard name', 'Ridge yard')
  await person.press('Save yard')
  await person.sees('Ridge yard')
  await person.goTo('/settings?part=people')
  await person.press('Add person')
  await person.type('Name', 'P. Nowak')
  await person.type('Sign-in name', 'nowak')
  await person.type('First password', 'short')
  await person.press('Add person', '[role=dialog]')
  await person.sees('Use at least 10 characters.')
  await person.type('First password', 'pressure and patience')
  await person.press('Add person', '[role=dialog]')
  await person.sees('They can sign in now.')
  const newcomer = await someone()
  await newcomer.signIn('nowak', 'pressure and patience')
  await newcomer.goTo('/fleet')
  await newcomer.sees('machines in 3 yards')
  await newcomer.goTo('/settings?part=people')
  await newcomer.sees('Coordinators decide who signs in.')
  // Lost phone: the coordinator ends the newcomer's sessions, and the next click asks for the password.
  await person.page.evaluate(() => {
    const row = [...document.querySelectorAll('tr')].find((each) => each.textContent?.includes('P. Nowak'))
    ;[...row!.querySelectorAll('button')].find((each) => each.textContent === 'Sign out everywhere')!.click()
  })
  await person.press('Sign P. Nowak out')
  await person.sees('is signed out on every device')
  await newcomer.goTo('/fleet')
  await newcomer.sees('Sign in to the fleet')
})

test('a form whose rules cannot be loaded is checked by the server alone, and nothing typed is lost', async () => {
  const person = await coordinator()
  const { page } = person
  await person.goTo('/settings?part=yards')
  let stopped = 0
  await page.setRequestInterception(true)
  page.on('request', (request) => {
    if (!request.url().includes('/_next/static/chunks/')) return void request.continue()
    stopped += 1
    void request.abort()
  })
  await person.press('Add yard')
  await person.type('Where it is', 'At the quay')
  await person.press('Save yard')
  expect(await person.errorOf('Yard name')).toBe('Fill this in.')
  expect(stopped).toBeGreaterThan(0)
  expect(await person.holds('Where it is')).toBe('At the quay')
  await person.type('Yard name', 'Quay yard')
  await person.press('Save yard')
  await person.sees('The yard is saved.')
})

test('what does not exist says so, and the styleguide stays with developers', async () => {
  const person = await coordinator()
  await person.goTo('/fleet/NOPE')
  await person.sees('This page does not exist')
  await person.goTo('/fleet/pumps/NOPE')
  await person.sees('This page does not exist')
  const answer = await person.page.goto(`${demo.app.url}/styleguide`)
  expect(answer!.status()).toBe(404)
})

test('a machine’s page works on a phone without scrolling sideways', async () => {
  const person = await demo.someone('technician', { width: 390, height: 844 })
  await person.goTo('/fleet/T-04')
  await person.sees('T-04 silo trailer')
  const overflow = await person.page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)
  expect(overflow).toBeLessThanOrEqual(0)
  await person.press('Add reading')
  await person.sees('Reading of T-04')
})

test('an action sent from a foreign page is refused and changes nothing', async () => {
  const person = await coordinator()
  await person.goTo('/fleet/C-01')
  let sent: { headers: Record<string, string>; body: string; url: string } | undefined
  person.page.on('request', (request) => {
    if (request.method() === 'POST' && request.headers()['next-action']) {
      sent = { headers: request.headers(), body: request.postData() ?? '', url: request.url() }
    }
  })
  await person.press('Add reading')
  const meter = await person.field('Read by')
  await meter.evaluate((element) => element.scrollIntoView())
  const before = Number((await person.text()).match(/Last reading ([\d ]+\.\d)/)![1]!.replaceAll(' ', ''))
  await person.type('Pump hours: the meter shows', (before + 1).toFixed(1))
  await person.press('Save reading')
  await person.sees('is recorded.')
  const cookies = (await person.page.browserContext().cookies())
    .map(({ name, value }) => `${name}=${value}`)
    .join('; ')
  const replay = (origin: string, body: string) =>
    fetch(sent!.url, {
      method: 'POST',
      headers: {
        'next-action': sent!.headers['next-action']!,
        'content-type': sent!.headers['content-type']!,
        cookie: cookies,
        origin,
      },
      body,
    })
  const another = sent!.body
    .replace(/"id":"[^"]+"/, '"id":"0192c0de-0000-7000-8000-00000000beef"')
    .replace((before + 1).toFixed(1), (before + 2).toFixed(1))
  expect(another).not.toBe(sent!.body)
  const foreign = await replay('http://elsewhere.example', another)
  expect(foreign.ok).toBe(false)
  await person.goTo('/fleet/C-01')
  expect(await person.text()).not.toContain(`${spaced(before + 2)} h`)
  // The same request from our own page goes through: it was the Origin that was refused.
  expect((await replay(demo.app.url, another)).ok).toBe(true)
  await person.goTo('/fleet/C-01')
  await person.sees(spaced(before + 2))
})

/** A figure as the page shows it: thousands apart, one decimal. */
function spaced(value: number): string {
  return value.toFixed(1).replace(/\B(?=(\d{3})+(?!\d))/g, ' ')
}
