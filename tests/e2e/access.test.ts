import { readFileSync } from 'node:fs'
import path from 'node:path'
import type { AxeResults } from 'axe-core'
import { demoApp } from '../support/demo'
import type { Person } from '../support/browser'
import { cookieOf } from '../support/session'

const demo = demoApp()
jest.setTimeout(300_000)

const axe = readFileSync(path.join(__dirname, '../../node_modules/axe-core/axe.min.js'), 'utf8')

/** The address of the first link on a page that begins so. */
async function firstLink(person: Person, page: string, begins: string): Promise<string> {
  await person.goTo(page)
  return person.page.$eval(`main :not(.tabs) > a[href^="${begins}"]`, (link) => link.getAttribute('href')!)
}

async function mainViews(person: Person): Promise<string[]> {
  const visit = await firstLink(person, '/plan', '/plan/')
  return [
    '/today',
    '/today/list',
    '/hours',
    '/fleet',
    '/fleet/pumps',
    '/fleet/T-12',
    '/fleet/new',
    '/fleet/pumps/P-04',
    '/fleet/pumps/P-04/compose',
    '/plan',
    '/plan/horizon',
    '/plan/day',
    '/plan/crew',
    visit,
    `${visit}/packet`,
    '/sheets',
    await firstLink(person, '/sheets', '/sheets/'),
    await firstLink(person, '/fleet/pumps/P-12', '/sheets/'),
    '/stores',
    '/stores/VK-3',
    '/stores/orders',
    '/stores/picks',
    '/stores/suppliers',
    '/stores/stocktake',
    '/stores/value',
    '/winter',
    '/winter/T-12',
    '/winter/methods',
    '/winter/yards',
    '/winter/fluids',
    '/models',
    await firstLink(person, '/models', '/models/'),
    '/models/practices',
    '/models/tools',
    '/settings?part=company',
    '/settings?part=yards',
    '/settings?part=people',
    '/settings?part=calendars',
    '/settings?part=backups',
    '/settings?part=you',
  ]
}

/**
 * What stands in the way of somebody who cannot see, point or tell colours apart, in one theme.
 * @param rules only these; all where none are named
 */
async function barriers(person: Person, theme: 'light' | 'dark', rules: string[] = []): Promise<string[]> {
  await person.page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: theme }])
  await person.page.waitForFunction((wanted) => document.documentElement.dataset.theme === wanted, {}, theme)
  return person.page.evaluate(async (runOnly) => {
    const { axe: checker } = globalThis as unknown as {
      axe: { run: (options: object) => Promise<AxeResults> }
    }
    // Where each of thousands of places that pass would be found again is of no use here.
    const known = { resultTypes: ['violations'], selectors: false, ancestry: false, xpath: false }
    const { violations } = await checker.run(runOnly.length > 0 ? { ...known, runOnly } : known)
    return violations.flatMap(({ id, nodes }) => nodes.map(({ html }) => `${id}: ${html.slice(0, 120)}`))
  }, rules)
}

const phone = { width: 390, height: 844 }

/** How wide the page that is open would be on a phone. */
async function widthOnPhone({ page }: Person): Promise<number> {
  const before = page.viewport()
  await page.setViewport(phone)
  const width = await page.evaluate(
    () =>
      new Promise<number>((tell) => requestAnimationFrame(() => tell(document.documentElement.scrollWidth))),
  )
  await page.setViewport(before)
  return width
}

test('every main view has no barrier in either theme, fits a phone, and runs only scripts of its own', async () => {
  const person = await demo.someone('coordinator')
  const refused: string[] = []
  person.page.on('console', (message) => {
    if (message.text().includes('Content Security Policy')) refused.push(message.text().slice(0, 160))
  })
  const found: Record<string, string[]> = {}
  for (const view of await mainViews(person)) {
    await person.goTo(view)
    await person.page.evaluate(axe)
    // The themes differ in their colours alone.
    const own = [
      ...(await barriers(person, 'light')),
      ...(await barriers(person, 'dark', ['color-contrast'])),
    ]
    if (own.length > 0) found[view] = own
    const wide = await widthOnPhone(person)
    if (wide > phone.width) found[`${view} on a phone`] = [`moves sideways: ${wide} wide`]
  }
  expect(found).toEqual({})
  expect(refused).toEqual([])
})

test('a page says what it may do, and is told of https only where it came over it', async () => {
  const ask = (headers: Record<string, string> = {}) => fetch(`${demo.app.url}/sign-in`, { headers })
  const plain = await ask()
  const policy = plain.headers.get('content-security-policy')!
  expect(policy).toMatch(/script-src 'self' 'nonce-[A-Za-z0-9+/=]+' 'strict-dynamic';/)
  expect(policy).not.toContain('upgrade-insecure-requests')
  expect(plain.headers.get('strict-transport-security')).toBeNull()
  expect(plain.headers.get('permissions-policy')).toContain('microphone=()')
  expect((await ask()).headers.get('content-security-policy')).not.toBe(policy)
  expect((await ask({ 'x-forwarded-proto': 'https' })).headers.get('strict-transport-security')).toContain(
    'max-age',
  )
})

test('what does not exist is answered with 404 and a page that says so', async () => {
  const person = await demo.someone('coordinator')
  for (const address of [
    '/fleet/X-99',
    '/fleet/pumps/X-99',
    '/plan/nothing',
    '/sheets/nothing',
    '/stores/X-1',
    '/models/nothing',
    '/fleet/%E0%A4%A',
  ]) {
    const answer = await person.page.goto(demo.app.url + address)
    expect([address, answer!.status()]).toEqual([address, 404])
  }
  await person.goTo('/fleet/X-99')
  await person.sees('This page does not exist')
})

test('no link on any page leads nowhere, and no page brings along what only an open form needs', async () => {
  const { value } = await cookieOf(demo.folder, 'lindqvist')
  const read = async (address: string) => {
    const answer = await fetch(demo.app.url + address, { headers: { cookie: `atelier=${value}` } })
    return { status: answer.status, text: await answer.text() }
  }
  // Addresses that differ only in what they name are of one kind; from each kind of page one of each is followed.
  const kindOf = (address: string) =>
    address
      .split('?')[0]!
      .replace(/[0-9a-f]{8}-[0-9a-f-]{27}/g, 'id')
      .replace(/[A-Z0-9]*-?\d[\w-]*/g, 'n')
  const followed = new Set<string>()
  const seen = new Set(['/today'])
  const toRead = [...seen]
  const broken: string[] = []
  const scripts = new Set<string>()
  for (let page = toRead.shift(); page !== undefined; page = toRead.shift()) {
    const { status, text } = await read(page)
    if (status !== 200) broken.push(`${page}: ${status}`)
    for (const [, script] of text.matchAll(/<script [^>]*?src="(\/[^"]*)"/g)) scripts.add(script!)
    for (const [, link] of text.matchAll(/<a [^>]*?href="(\/[^"#]*)"/g)) {
      const address = link!.replaceAll('&amp;', '&')
      const kind = `${kindOf(page)} ${kindOf(address)}`
      if (seen.has(address) || followed.has(kind)) continue
      followed.add(kind)
      seen.add(address)
      toRead.push(address)
    }
  }
  expect(broken).toEqual([])
  // It has been everywhere: of every part of the application something was read.
  for (const part of ['/plan/horizon', '/stores/orders', '/winter/methods', '/models/tools', '/settings'])
    expect([...seen].some((address) => address.startsWith(part))).toBe(true)
  // Joi and every schema name this fault.
  const checking = []
  for (const script of scripts) if ((await read(script)).text.includes('any.required')) checking.push(script)
  expect(scripts.size).toBeGreaterThan(20)
  expect(checking).toEqual([])
})

test('what is not the reading of a page draws none', async () => {
  for (const method of ['POST', 'PUT', 'DELETE', 'PATCH'])
    expect([method, (await fetch(`${demo.app.url}/today`, { method, body: '[]' })).status]).toEqual([
      method,
      405,
    ])
  expect((await fetch(`${demo.app.url}/sign-in`, { method: 'HEAD' })).status).toBe(200)
})

test('whoever may not save gets no form, only whom to ask', async () => {
  const person = await demo.someone('viewer')
  for (const address of ['/fleet/new', '/fleet/pumps/new', '/fleet/T-04/edit', '/fleet/pumps/P-04/edit']) {
    await person.goTo(address)
    await person.sees('Coordinators change machines, meters and pumps. Ask one of them.')
    expect(await person.page.$('main form')).toBeNull()
  }
})

test('a backup is made in the browser and handed out to a coordinator alone', async () => {
  const person = await demo.someone('coordinator')
  await person.goTo('/settings?part=backups')
  await person.press('Make a backup now')
  await person.sees('The backup is made.')
  await person.page.waitForSelector('a[href^="/api/backups/"]')
  const link = await person.page.$eval('a[href^="/api/backups/"]', (each) => each.getAttribute('href')!)
  const got = await person.page.evaluate(async (address) => {
    const answer = await fetch(address)
    return [answer.status, answer.headers.get('cache-control'), (await answer.arrayBuffer()).byteLength]
  }, link)
  expect(got).toEqual([200, 'no-store', expect.any(Number)])
  expect(got[2] as number).toBeGreaterThan(100_000)
  const other = await demo.someone('technician')
  await other.goTo('/settings?part=backups')
  await other.sees('Coordinators decide who gets the whole company in one file.')
  expect(await other.page.evaluate(async (address) => (await fetch(address)).status, link)).toBe(403)
})

test('a photo that never ends is let go where photos end', async () => {
  const person = await demo.someone('technician')
  const sheet = await firstLink(person, '/sheets', '/sheets/')
  const cookie = (await person.page.browserContext().cookies())
    .map(({ name, value }) => `${name}=${value}`)
    .join('; ')
  let sent = 0
  const endless = new ReadableStream<Uint8Array>({
    pull(controller) {
      sent += 1
      if (sent > 200) controller.close()
      else controller.enqueue(new Uint8Array(1_000_000))
    },
  })
  const answer = await fetch(
    `${demo.app.url}/api${sheet}/photos?id=0190b0d2-0000-7000-8000-00000000f070&name=film.jpg`,
    {
      method: 'POST',
      headers: { cookie, origin: demo.app.url, 'content-type': 'application/octet-stream' },
      body: endless,
      duplex: 'half',
    } as RequestInit,
  ).catch(() => null)
  // Answered and let go, or cut off: what counts is that two hundred megabytes were never taken in.
  if (answer) expect(answer.status).toBe(422)
  expect(sent).toBeLessThan(150)
})
