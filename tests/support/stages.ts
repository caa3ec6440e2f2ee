import puppeteer from 'puppeteer-core'
import { createServer, type IncomingMessage, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { demoEnv, startApp, type StartedApp } from './app'
import { openBrowser } from './browser'

/** What a file of browser tests works with: a server that serves its data, and where a browser hears. */
export type Stage = { url: string; port: number; pid: number; browser: string }

type Open = { app: StartedApp; browser: string }
const stages = new Map<string, Open>()
let door: Server | undefined

/**
 * Opens the house for the browser tests: one server and one browser for each of Jest's workers, for all the
 * files that it runs; each file has the server open its own data. Both are started when a worker first asks,
 * and a server that a test has ended is started again. The workers ask at the address that is left in their
 * environment.
 */
export async function openStages(): Promise<void> {
  door = createServer((request, response) => {
    void answer(request)
      .then((stage) => JSON.stringify(stage))
      .catch((error: unknown) => {
        response.statusCode = 500
        return String(error)
      })
      .then((said) => response.end(said))
  })
  await new Promise<void>((resolve) => door!.listen(0, '127.0.0.1', resolve))
  // Jest reads the file that closes them apart from this one.
  Object.assign(globalThis, { closeStages })
  process.env.ATELIER_STAGES = `http://127.0.0.1:${(door.address() as AddressInfo).port}`
}

async function closeStages(): Promise<void> {
  for (const { app, browser } of stages.values()) {
    await Promise.all([closeBrowser(browser), app.stop()])
  }
  door?.close()
}

async function answer(request: IncomingMessage): Promise<Stage> {
  let body = ''
  for await (const chunk of request) body += String(chunk)
  const { worker, data, today } = JSON.parse(body) as { worker: string; data: string; today: string }
  let stage = stages.get(worker)
  if (stage?.app.isRunning()) {
    await stage.app.open(data, today)
    // As at a start: what the first request makes is there.
    await isAnswered(stage.app)
  } else {
    // At the address that it had: what the browser keeps of pages it keeps by address.
    const app = await startApp(data, { ...demoEnv, ATELIER_TODAY: today }, stage?.app.port)
    stage = { app, browser: stage?.browser ?? (await browserAlone()) }
    stages.set(worker, stage)
  }
  return {
    url: stage.app.url,
    port: stage.app.port,
    pid: stage.app.pid,
    browser: stage.browser,
  }
}

/** Waits until the page that anybody may see is there; what became of it otherwise is told. */
async function isAnswered({ url, output }: StartedApp): Promise<void> {
  const until = Date.now() + 20_000
  for (;;) {
    const { ok, status } = await fetch(`${url}/sign-in`, { redirect: 'manual' })
    if (ok) return
    if (Date.now() > until) throw new Error(`/sign-in was answered with ${status}.\n${output()}`)
    await new Promise((resolve) => setTimeout(resolve, 100))
  }
}

/** A browser that goes on without us: whoever is connected to it hears of every page. */
async function browserAlone(): Promise<string> {
  const browser = await openBrowser()
  await browser.disconnect()
  return browser.wsEndpoint()
}

/** What Debian calls Chromium starts it in turn: ending that process would leave the browser. */
async function closeBrowser(endpoint: string): Promise<void> {
  const browser = await puppeteer.connect({ browserWSEndpoint: endpoint })
  // It may be gone before it has said that it goes.
  const gone = new Promise((resolve) => browser.once('disconnected', resolve))
  void browser.close().catch(() => undefined)
  await gone
}
