import type { Browser } from 'puppeteer-core'
import puppeteer from 'puppeteer-core'
import { dataFolder, demoStart, makeDemo, type RunningApp } from './app'
import { accounts, Person, type DemoRole } from './browser'
import { cookieOf } from './session'
import type { Stage } from './stages'

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
export function demoApp(today = demoStart): DemoApp {
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
    const stage = await takeStage(data.folder, today)
    demo.app = onStage(stage)
    demo.browser = await puppeteer.connect({ browserWSEndpoint: stage.browser })
  }, 240_000)
  // An open sheet asks for news every few seconds for as long as it stands: nobody stays after their test.
  afterEach(async () => {
    for (const person of visitors) await person.leave().catch(() => undefined)
    visitors = []
  })
  afterAll(async () => {
    await demo.browser?.disconnect()
    await demo.app?.stop()
    data.remove()
  })
  return demo
}

/** The server and the browser of this worker of Jest's, the server on these data. */
async function takeStage(data: string, today: string): Promise<Stage> {
  const worker = process.env.JEST_WORKER_ID
  const answer = await fetch(process.env.ATELIER_STAGES!, {
    method: 'POST',
    body: JSON.stringify({ worker, data, today }),
  })
  if (!answer.ok) throw new Error(await answer.text())
  return (await answer.json()) as Stage
}

/** The server of a stage stays when a file is through with it; a test may still end it at once. */
function onStage({ url, port, pid }: Stage): RunningApp {
  const isThere = () => {
    try {
      return process.kill(pid, 0)
    } catch {
      return false
    }
  }
  return {
    url,
    port,
    pid,
    kill: async () => {
      process.kill(pid, 'SIGKILL')
      while (isThere()) await new Promise((resolve) => setTimeout(resolve, 20))
    },
    stop: async () => undefined,
  }
}
