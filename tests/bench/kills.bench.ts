import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { v7 as uuid } from 'uuid'
import { checkDatabase } from '@/db/house'
import { demoEnv, makeDemo, startApp } from '../support/app'
import { openBrowser, Person } from '../support/browser'

/** Sixty servers killed in the middle of their work: what was acknowledged is there, once. */
const kills = Number(process.env.KILLS ?? 60)

async function main() {
  const data = mkdtempSync(path.join(tmpdir(), 'atelier-kills-'))
  await makeDemo(data)
  let app = await startApp(data, demoEnv)
  const browser = await openBrowser()
  const person = await Person.at(browser, app.url)
  await person.signInAs('technician')
  await person.goTo('/sheets')
  const sheet = await person.page.$eval(
    '.part a[href^="/sheets/"]',
    (link) => link.getAttribute('href')!.split('/')[2]!,
  )
  const cookie = (await person.page.browserContext().cookies())
    .map(({ name, value }) => `${name}=${value}`)
    .join('; ')
  await browser.close()
  const url = () => `${app.url}/api/sheets/${sheet}/entries`
  const look = async () =>
    (await (await fetch(`${url()}?after=0`, { headers: { cookie } })).json()) as {
      actor: { id: string }
      entries: { id: string }[]
    }
  const { actor } = await look()
  const deviceId = uuid()
  const acknowledged = new Set<string>()
  const written: string[] = []
  let waiting: object[] = []
  for (let round = 0; round < kills; round += 1) {
    let power: Promise<void> | null = null
    for (let turn = 0; turn < 12 && (power === null || turn < 8); turn += 1) {
      const id = uuid()
      written.push(id)
      waiting.push({
        id,
        authorId: actor.id,
        deviceId,
        deviceSeq: written.length,
        seenUpTo: 0,
        deviceTime: '2026-10-14T08:00:00.000Z',
        stepKey: null,
        kind: 'remark',
        payload: { text: `remark ${written.length}` },
      })
      const answer = fetch(url(), {
        method: 'POST',
        headers: { cookie, origin: app.url, 'content-type': 'application/json' },
        body: JSON.stringify(waiting),
      })
        .then(async (response) => (await response.json()) as { taken?: string[] })
        .catch(() => null)
      if (turn === 4)
        power = new Promise((resolve) => setTimeout(() => void app.kill().then(resolve), round % 30))
      const taken = new Set((await answer)?.taken ?? [])
      for (const each of taken) acknowledged.add(each)
      waiting = waiting.filter((each) => !taken.has((each as { id: string }).id))
    }
    await power
    app = await startApp(data, demoEnv, app.port)
  }
  const { entries } = await look()
  const kept = entries.map(({ id }) => id).filter((id) => written.includes(id))
  await app.stop()
  process.env.ATELIER_DATA = data
  const lost = [...acknowledged].filter((id) => !kept.includes(id)).length
  console.log(`${kills} kills, ${written.length} entries written, ${acknowledged.size} acknowledged`)
  console.log(
    `acknowledged and lost: ${lost}; doubled: ${kept.length - new Set(kept).size}; the database: ${await checkDatabase()}`,
  )
  rmSync(data, { recursive: true, force: true })
}

main().then(
  () => process.exit(0),
  (error: unknown) => {
    console.error(error)
    process.exit(1)
  },
)
