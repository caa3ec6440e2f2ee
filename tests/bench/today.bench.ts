import { rmSync } from 'node:fs'
import { readFileSync } from 'node:fs'
import { closeDatabase } from '@/db/house'
import { startApp } from '../support/app'
import { openBrowser, Person } from '../support/browser'
import { largeCompany, password } from './largeCompany'

/**
 * The Today page of a large fleet from request to last byte, against the built application: cold, alone,
 * with 20 clients at once, and the first one after something was written; with the server's memory.
 */
async function main() {
  const { folder } = await largeCompany()
  await closeDatabase()
  const app = await startApp(folder, {})
  const browser = await openBrowser()
  try {
    const person = await Person.at(browser, app.url)
    await person.page.goto(`${app.url}/sign-in?next=/settings`)
    await person.signIn('bench', password)
    const cookies = await person.page.browserContext().cookies()
    const cookie = cookies.map(({ name, value }) => `${name}=${value}`).join('; ')
    const ask = async () => {
      const started = performance.now()
      const answer = await fetch(`${app.url}/today`, { headers: { cookie } })
      const text = await answer.text()
      if (!text.includes('past the limit')) throw new Error(`This is not Today: ${answer.status}`)
      return { ms: performance.now() - started, kB: text.length / 1000 }
    }
    const first = await ask()
    say('the first after signing in', first.ms)
    console.log(`           ${first.kB.toFixed(0)} kB`)
    const alone: number[] = []
    for (let index = 0; index < 10; index += 1) alone.push((await ask()).ms)
    say('alone, median of 10', median(alone))
    const together = await Promise.all(Array.from({ length: 20 }, ask))
    say('20 clients at once, median', median(together.map(({ ms }) => ms)))
    say('20 clients at once, slowest', Math.max(...together.map(({ ms }) => ms)))
    const status = readFileSync(`/proc/${app.pid}/status`, 'utf8')
    console.log(`memory of the server: ${Math.round(Number(/VmRSS:\s+(\d+)/.exec(status)?.[1]) / 1024)} MB`)
  } finally {
    await browser.close()
    await app.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}

const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!

function say(what: string, ms: number): void {
  console.log(`${ms.toFixed(0).padStart(8)} ms  ${what}`)
}

main().catch((error: unknown) => {
  console.error(error)
  process.exit(1)
})
