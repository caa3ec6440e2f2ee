import { once } from 'node:events'
import { connect } from 'node:net'
import type { Browser } from 'puppeteer-core'
import { dataFolder, startApp, type StartedApp } from '../support/app'
import { openBrowser, Person } from '../support/browser'

let app: StartedApp
let browser: Browser
const data = dataFolder()

beforeAll(async () => {
  app = await startApp(data.folder)
  browser = await openBrowser()
}, 60_000)
afterAll(async () => {
  await browser?.close()
  await app?.stop()
  data.remove()
})

jest.setTimeout(180_000)

test('an empty company is set up from nothing, and its first machine added and read', async () => {
  const person = await Person.at(browser, app.url)
  await person.goTo('/')
  await person.sees('Set up your company')
  await person.press('Set up the company')
  expect(await person.errorOf('Company name')).toBe('Fill this in.')

  await person.type('Code from the console', 'AAAA2222')
  await person.type('Company name', 'Bright Lock Cleaning')
  await person.choose('Time zone', 'Europe/Lisbon')
  await person.choose('Pressure in', 'psi')
  await person.type('Yard name', 'Ferry yard')
  await person.type('Your name', 'R. Sousa')
  await person.type('Sign-in name', 'sousa')
  await person.type('Password', 'ferry at seven')
  await person.press('Set up the company')
  await person.sees('This is not the code that the console shows.')
  expect(await person.holds('Company name')).toBe('Bright Lock Cleaning')

  const code = /with the code (\w{8})/.exec(app.output())![1]!
  await person.type('Code from the console', code)
  await person.press('Set up the company')
  await person.sees('Nothing to do yet')
  await person.sees('Bright Lock Cleaning')

  // A model first, then a machine with its pump.
  await person.goTo('/models')
  await person.press('Add pump model')
  await person.type('Maker', 'Ostrel')
  await person.type('Model', 'P3-200')
  await person.press('Save model')
  await person.sees('The model is saved.')
  await person.goTo('/fleet/new')
  await person.type('Number', 'F-1')
  await person.type('Name', 'ferry trailer')
  await person.type('Working pressure', '3000')
  await person.type('It shows', '120')
  await person.choose('Pump model', 'Ostrel P3-200')
  await person.choose('Taken over', 'New, 0 on it')
  await person.press('Add machine')
  await person.sees('F-1 ferry trailer')
  await person.sees('3 000 psi')
  await person.sees('120.0 h')
  await person.sees('P-01 Ostrel P3-200')

  // Set up once: the page is gone for good, also for whoever is not signed in.
  const stranger = await Person.at(browser, app.url)
  await stranger.goTo('/setup')
  await stranger.sees('Sign in to the fleet')
  expect(await stranger.text()).not.toContain('This is the demo.')
})

test('what was entered is there after the server was killed and started again', async () => {
  await app.kill()
  app = await startApp(data.folder)
  expect(app.output()).not.toContain('with the code')
  const person = await Person.at(browser, app.url)
  await person.signIn('sousa', 'ferry at seven')
  await person.goTo('/fleet')
  await person.sees('F-1 ferry trailer')
})

test('a database that cannot be opened ends the start with one sentence', async () => {
  const broken = dataFolder()
  const { writeFileSync } = await import('node:fs')
  writeFileSync(`${broken.folder}/atelier.sqlite`, 'this is not a database, it is a note '.repeat(40))
  await expect(startApp(broken.folder)).rejects.toThrow(/Atelier could not start: .*not a database/)
  broken.remove()
})

test('told to end, the server ends, though somebody has not done sending', async () => {
  const slow = connect(app.port, 'localhost')
  await once(slow, 'connect')
  slow.write(`GET /sign-in HTTP/1.1\r\nHost: localhost:${app.port}\r\nCookie: `)
  const closed = once(slow.resume(), 'close')
  // That the request has begun is seen by the server that waits for it.
  await fetch(`${app.url}/sign-in`)
  const asked = Date.now()
  await app.stop()
  expect(Date.now() - asked).toBeLessThan(20_000)
  await closed
})
