import type { Browser, CookieData } from 'puppeteer-core'
import { dataFolder, demoEnv, makeDemo, startApp, type RunningApp } from './app'
import { openBrowser, Person } from './browser'

/** The demo company served for one file of browser tests, on a copy of its own. */
export type DemoApp = {
  app: RunningApp
  browser: Browser
  folder: string
  someone: (
    role: 'coordinator' | 'technician' | 'viewer',
    size?: { width: number; height: number },
  ) => Promise<Person>
}

/** Serves the demo before the tests of a file and ends it after them; on a later day where one is given. */
export function demoApp(today?: string): DemoApp {
  const data = dataFolder()
  // Whoever signed in once in this file comes back with the same cookie, as on a device of their own.
  const signedIn = new Map<string, CookieData[]>()
  const demo = {
    folder: data.folder,
    someone: async (role, size) => {
      const person = await Person.at(demo.browser, demo.app.url, size)
      const context = person.page.browserContext()
      const known = signedIn.get(role)
      if (known) {
        await context.setCookie(...known)
        await person.goTo('/today')
      } else {
        await person.signInAs(role)
        signedIn.set(role, await context.cookies())
      }
      return person
    },
  } as DemoApp
  beforeAll(async () => {
    await makeDemo(data.folder)
    demo.app = await startApp(data.folder, { ...demoEnv, ...(today ? { ATELIER_TODAY: today } : {}) })
    demo.browser = await openBrowser()
  }, 240_000)
  afterAll(async () => {
    await demo.browser?.close()
    await demo.app?.stop()
    data.remove()
  })
  return demo
}
