import type { Browser } from 'puppeteer-core'
import { dataFolder, demoEnv, makeDemo, startApp, type RunningApp } from './app'
import { accounts, openBrowser, Person, type DemoRole } from './browser'
import { cookieOf } from './session'

/** The demo company served for one file of browser tests, on a copy of its own. */
export type DemoApp = {
  app: RunningApp
  browser: Browser
  folder: string
  /** Somebody who has signed in, on no page yet. */
  someone: (role: DemoRole, size?: { width: number; height: number }) => Promise<Person>
  /** Somebody who has not. */
  stranger: (size?: { width: number; height: number }) => Promise<Person>
}

/** Serves the demo before the tests of a file and ends it after them; on a later day where one is given. */
export function demoApp(today?: string): DemoApp {
  const data = dataFolder()
  /** Who came during the test that runs. */
  let visitors: Person[] = []
  const demo = {
    folder: data.folder,
    someone: async (role, size) => {
      const person = await demo.stranger(size)
      await person.page.browserContext().setCookie(await cookieOf(data.folder, accounts[role][0]))
      // Something of ours that is quick to load: what is asked for by scripts comes from there.
      await person.page.goto(`${demo.app.url}/icon.svg`)
      return person
    },
    stranger: async (size) => {
      const person = await Person.at(demo.browser, demo.app.url, size, visitors.length === 0)
      visitors.push(person)
      return person
    },
  } as DemoApp
  beforeAll(async () => {
    await makeDemo(data.folder)
    demo.app = await startApp(data.folder, { ...demoEnv, ...(today ? { ATELIER_TODAY: today } : {}) })
    demo.browser = await openBrowser()
  }, 240_000)
  // An open sheet asks for news every few seconds for as long as it stands: nobody stays after their test.
  afterEach(async () => {
    for (const person of visitors) await person.leave().catch(() => undefined)
    visitors = []
  })
  afterAll(async () => {
    await demo.browser?.close()
    await demo.app?.stop()
    data.remove()
  })
  return demo
}
