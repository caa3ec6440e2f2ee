import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import puppeteer, { type Browser, type ElementHandle, type HTTPRequest, type Page } from 'puppeteer-core'

/** @param inEarnest as people's browsers are, which make the code of a page quicker the longer it is used */
export async function openBrowser(inEarnest = false): Promise<Browser> {
  const profile = mkdtempSync(path.join(tmpdir(), 'atelier-browser-'))
  const browser = await puppeteer.launch({
    executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium',
    userDataDir: profile,
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--font-render-hinting=none',
      '--force-prefers-reduced-motion',
      '--process-per-site',
      // Pages are looked at for seconds: a quarter of all the time went into making their code quicker.
      ...(inEarnest ? [] : ['--js-flags=--no-opt --no-maglev --min-semi-space-size=32']),
    ],
  })
  // Whatever ends it. It may still be writing as it goes.
  browser
    .process()
    ?.once('exit', () => rmSync(profile, { recursive: true, force: true, maxRetries: 10, retryDelay: 50 }))
  return browser
}

/** The demo's accounts: the sign-in name and the password of one in each role. */
export const accounts = {
  coordinator: ['lindqvist', 'demo-coordinator'],
  technician: ['osei', 'demo-technician'],
  viewer: ['coyle', 'demo-viewing-only'],
} as const
export type DemoRole = keyof typeof accounts

/**
 * What a page has asked for and not been given yet. What the page before it had asked for does not count: of
 * some of that, given up half way, nothing is ever heard again.
 */
class Traffic {
  private readonly open = new Set<HTTPRequest>()
  private changedAt = 0

  constructor(page: Page) {
    page.on('request', (request) => {
      if (request.isNavigationRequest() && request.frame() === page.mainFrame()) this.open.clear()
      this.open.add(request)
    })
    const end = (request: HTTPRequest) => {
      this.open.delete(request)
      this.changedAt = Date.now()
    }
    page.on('requestfinished', end)
    page.on('requestfailed', end)
  }

  /** Waits until nothing has been under way for a moment; not for ever. */
  async rests(quietMs = 100, withinMs = 8_000): Promise<void> {
    const until = Date.now() + withinMs
    for (let quietSince = Date.now(); Date.now() < until;) {
      if (this.open.size > 0) quietSince = Date.now()
      quietSince = Math.max(quietSince, this.changedAt)
      const left = quietMs - (Date.now() - quietSince)
      if (left <= 0) return
      await new Promise((resolve) => setTimeout(resolve, Math.min(left, 20)))
    }
  }
}

const isKeeper = (page: Page) => page.url().endsWith('/icon.svg?keeps')

/** A page of ours that stays: what draws pages goes on, with the code that it has compiled. */
async function keepProcess(browser: Browser, url: string): Promise<void> {
  const known = await browser.defaultBrowserContext().pages()
  if (known.some(isKeeper)) return
  const page = await browser.defaultBrowserContext().newPage()
  await page.goto(`${url}/icon.svg?keeps`)
}

/** A person at a page: finds things by the words on them, types, presses, and waits for words to appear. */
export class Person {
  private readonly traffic: Traffic

  constructor(
    readonly page: Page,
    readonly url: string,
  ) {
    this.traffic = new Traffic(page)
  }

  /**
   * Somebody at a device of their own.
   *
   * @param isKnown at the device that the browser keeps: it has the code of pages from whoever was there before,
   *   and nothing else; only one person at a time
   */
  static async at(
    browser: Browser,
    url: string,
    size = { width: 1280, height: 800 },
    isKnown = false,
  ): Promise<Person> {
    const context = isKnown ? browser.defaultBrowserContext() : await browser.createBrowserContext()
    if (isKnown) await keepProcess(browser, url)
    const page = await context.newPage()
    // Leaving a form with something typed in it asks first; this person always means it.
    page.on('dialog', (dialog) => void dialog.accept())
    await page.setViewport(size)
    page.setDefaultTimeout(60_000)
    // Left to itself it would ask at every frame, and have every frame drawn for that.
    const wait = page.waitForFunction.bind(page)
    page.waitForFunction = (asked, options, ...args) => wait(asked, { polling: 40, ...options }, ...args)
    // tsx names inner functions through a helper that a page does not have.
    await page.evaluateOnNewDocument('globalThis.__name ??= (target) => target')
    return new Person(page, url)
  }

  /** Goes, with everything that is kept of them on the device. */
  async leave(): Promise<void> {
    const context = this.page.browserContext()
    if (context !== this.page.browser().defaultBrowserContext()) return context.close()
    const client = await this.page.createCDPSession()
    const storageTypes = 'cookies,local_storage,indexeddb,service_workers,cache_storage'
    await client.send('Storage.clearDataForOrigin', { origin: this.url, storageTypes })
    await client.send('Network.clearBrowserCookies')
    for (const page of await context.pages())
      if (page.url() !== 'about:blank' && !isKeeper(page)) await page.close()
  }

  async goTo(path: string): Promise<void> {
    await this.page.goto(this.url + path, { waitUntil: 'load' })
    await this.comesToRest()
  }

  async reload(): Promise<void> {
    await this.page.reload({ waitUntil: 'load' })
    await this.comesToRest()
  }

  /**
   * Waits until every part that was streamed in stands in its place and everything that can be pressed or
   * typed into has been taken over by React: by then the page answers. Not for ever: a page may stand
   * without any.
   */
  private async comesToRest(): Promise<void> {
    await this.page
      .waitForFunction(
        () => {
          if (document.querySelector('template[id^="B:"], [hidden][id^="S:"]')) return false
          const controls = [
            ...document.querySelectorAll('a, button, input:not([type=hidden]), select, textarea'),
          ]
          return controls.every((each) => Object.keys(each).some((key) => key.startsWith('__reactFiber$')))
        },
        { polling: 50, timeout: 8_000 },
      )
      .catch(() => undefined)
    // What the page asks for as soon as it stands, such as what lies on the device.
    await this.traffic.rests()
  }

  async signIn(name: string, password: string): Promise<void> {
    await this.goTo('/sign-in')
    await this.type('Sign-in name', name)
    await this.type('Password', password)
    await this.press('Sign in')
    await this.page.waitForFunction(() => !location.pathname.startsWith('/sign-in'))
  }

  async signInAs(role: DemoRole): Promise<void> {
    const [name, password] = accounts[role]
    await this.signIn(name, password)
    await this.page.waitForSelector('.rail')
    await this.comesToRest()
  }

  /** The control a label names. */
  async field(label: string): Promise<ElementHandle<HTMLInputElement>> {
    const handle = await this.page.waitForFunction(
      (wanted) => {
        const labels = [...document.querySelectorAll('label')].filter(
          (each) => each.getClientRects().length > 0,
        )
        const plain = (text: string | null) => (text ?? '').replace(' · optional', '').trim()
        const found = labels.findLast((each) => plain(each.textContent) === wanted)
        const byLabel = found?.htmlFor
          ? document.getElementById(found.htmlFor)
          : found?.querySelector('input')
        return byLabel ?? document.querySelector(`[aria-label="${wanted}"]`)
      },
      { polling: 40 },
      label,
    )
    return handle.asElement() as ElementHandle<HTMLInputElement>
  }

  /** Clears a field and types into it with real keys. */
  async type(label: string, text: string): Promise<void> {
    const input = await this.field(label)
    await input.evaluate((element) => {
      element.scrollIntoView({ block: 'center' })
      element.focus()
      element.select()
    })
    if (text === '') await this.page.keyboard.press('Backspace')
    else await this.page.keyboard.type(text)
  }

  async choose(label: string, option: string): Promise<void> {
    const select = await this.field(label)
    await this.page.waitForFunction(
      (element, wanted) =>
        [...(element as unknown as HTMLSelectElement).options].some((each) => each.text === wanted),
      { polling: 40 },
      select,
      option,
    )
    const value = await select.evaluate(
      (element, wanted) =>
        [...(element as unknown as HTMLSelectElement).options].find((each) => each.text === wanted)!.value,
      option,
    )
    await (select as unknown as ElementHandle<HTMLSelectElement>).select(value)
  }

  /** What a field holds now. */
  async holds(label: string): Promise<string> {
    return (await this.field(label)).evaluate((element) => element.value)
  }

  /** The sentence beside a field that says what is wrong with it. */
  async errorOf(label: string): Promise<string> {
    const input = await this.field(label)
    const handle = await this.page.waitForFunction(
      (element) => document.getElementById(`${(element as HTMLElement).id}-help`),
      { polling: 40 },
      input,
    )
    return this.page.evaluate((element) => (element as HTMLElement | null)?.textContent ?? '', handle)
  }

  /** Presses the button, link or choice with this name; the last such where there are several. */
  async press(name: string, within = 'body'): Promise<void> {
    const handle = await this.page.waitForFunction(
      (wanted, scope) => {
        const inside = [...document.querySelectorAll(scope)].findLast(
          (each) => each.getClientRects().length > 0,
        )
        const all = [
          ...(inside?.querySelectorAll<HTMLElement>('button, a, label, summary, [role=button]') ?? []),
        ]
        const plain = (text: string | null) =>
          (text ?? '').replaceAll('\u00a0', ' ').replace(/\s+/g, ' ').trim()
        return (
          all.findLast(
            (each) =>
              (plain(each.textContent) === wanted || plain(each.getAttribute('aria-label')) === wanted) &&
              each.getClientRects().length > 0 &&
              !(each as HTMLButtonElement).disabled,
          ) ?? null
        )
      },
      { polling: 40 },
      name,
      within,
    )
    const element = handle.asElement() as ElementHandle<HTMLElement>
    await element.evaluate((each) => each.scrollIntoView({ block: 'center' }))
    await this.standsStill(element)
    // A dialog that is still closing would catch the click: wait until the button itself is on top.
    await this.page.waitForFunction(
      (each) => {
        const box = (each as HTMLElement).getBoundingClientRect()
        const top = document.elementFromPoint(box.x + box.width / 2, box.y + box.height / 2)
        return top !== null && ((each as HTMLElement).contains(top) || top.contains(each as HTMLElement))
      },
      { polling: 40 },
      element,
    )
    await element.click()
  }

  /** Waits until an element has not moved for a few frames: what streams in above would push it away. */
  private async standsStill(element: ElementHandle<HTMLElement>): Promise<void> {
    await element.evaluate(async (each) => {
      let still = 0
      for (let last = -1; still < 3;) {
        await new Promise((resolve) => requestAnimationFrame(resolve))
        const { x, y } = each.getBoundingClientRect()
        still = x * 10_000 + y === last ? still + 1 : 0
        last = x * 10_000 + y
      }
    })
  }

  /** The words of the first list or table row that contains all of these; blank where there is none. */
  async row(...words: string[]): Promise<string> {
    return this.page.$$eval(
      'li, tr',
      (rows, wanted) => {
        const plain = (text: string) => text.replaceAll('\u00a0', ' ').replace(/\s+/g, ' ')
        return (
          rows
            .map((each) => plain((each as HTMLElement).innerText))
            .find((text) => wanted.every((word) => text.includes(word))) ?? ''
        )
      },
      words,
    )
  }

  /** Waits until these words are on the page. */
  async sees(words: string): Promise<void> {
    try {
      await this.page.waitForFunction(
        (wanted) => document.body.innerText.replaceAll('\u00a0', ' ').replace(/\s+/g, ' ').includes(wanted),
        { polling: 40 },
        words,
      )
    } catch {
      throw new Error(`“${words}” never appeared. The page says:\n${await this.text()}`)
    }
  }

  async text(): Promise<string> {
    return (await this.page.evaluate(() => document.body.innerText))
      .replaceAll('\u00a0', ' ')
      .replace(/[ \t]+/g, ' ')
  }
}

/** Runs checks until they hold: what a press changes may be drawn a moment later. Fails with their last words. */
export async function eventually(check: () => Promise<void>, within = 45_000): Promise<void> {
  for (const until = Date.now() + within; ;) {
    try {
      return await check()
    } catch (error) {
      if (Date.now() > until) throw error
      await new Promise((resolve) => setTimeout(resolve, 100))
    }
  }
}
