import { readFileSync, rmSync } from 'node:fs'
import { v7 as uuid } from 'uuid'
import { currentStep, sheetState } from '@/core/sheets'
import { closeDatabase, database } from '@/db/house'
import { assemblies } from '@/db/fleet'
import { bookVisit } from '@/services/plan'
import type { Actor } from '@/services/house'
import { recordReading } from '@/services/hours'
import { entriesOf, startSheet } from '@/services/sheets'
import { getToday } from '@/services/today'
import { forgetFits, keepFits, listWear } from '@/services/wear'
import { startApp } from '../support/app'
import { signAsPresumed, Tablet } from '../support/serviceTablet'
import { cookieOf } from '../support/session'
import { largeCompany, measure } from './largeCompany'

/**
 * Everything that is measured of a large fleet, in one run and beside the bare driver: from nothing, after
 * one reading, one tick and one signature; then, against the built application, every main page from
 * request to last byte, alone and by 20 clients at once, ticks while 20 clients load Today, and memory.
 */
async function main() {
  const { actor, folder, meterIds } = await largeCompany()
  await bareDriver()
  await closeDatabase()
  await fromNothing('every clock, the first time ever', actor)
  await keepFits()
  await closeDatabase()
  forgetFits()
  await fromNothing('every clock after a start, with what was learned', actor)
  const { sheetId, visitId, work } = await openSheet(actor)
  await getToday(actor)
  await measure('write one reading', () => read(actor, meterIds[8]!))
  await measure('… every clock and Today after it, the first time', () => morning(actor))
  const mornings: number[] = []
  for (const meterId of meterIds.slice(20, 35)) {
    await read(actor, meterId)
    const begun = performance.now()
    await morning(actor)
    mornings.push(performance.now() - begun)
  }
  say('… and again and again, on other machines: median', median(mornings))
  await measure('write one tick', () => work.send(work.entry('remark', { text: 'looks well' })))
  await measure('… every clock and Today after it', () => morning(actor))
  await work.send(
    work.entry('reading', { meterId: meterIds[7]!, typed: '4000', unreadable: '', vouched: true }),
  )
  await work.tickAll()
  await measure('sign a sheet', () => signAsPresumed(actor, sheetId))
  await measure('… every clock and Today after it', () => morning(actor))
  await measure('50 readings at once, on 50 machines', () =>
    Promise.all(meterIds.slice(100, 150).map((meterId) => read(actor, meterId))),
  )
  const sheet = await openSheet(actor, 'P-8')
  const first = currentStep(sheetState(await entriesOf(sheet.sheetId))!)!
  await closeDatabase()
  await measurePages(folder, actor, visitId, sheet.sheetId, first.step.key)
}

async function bareDriver() {
  const rows =
    'SELECT id, "meterId", at, raw, decimals FROM readings WHERE status = \'accepted\' ORDER BY "meterId", at'
  await measure('bare driver: read all readings', () => database().query(rows, { raw: true }))
  await measure('bare driver: read all lives', () => database().query('SELECT * FROM lives', { raw: true }))
}

const fromNothing = (what: string, actor: Actor) => measure(what, () => listWear(actor))

async function morning(actor: Actor) {
  await listWear(actor)
  await getToday(actor)
}

let typed = 9000
function read(actor: Actor, meterId: string) {
  typed += 1
  return recordReading(actor, {
    id: uuid(),
    meterId,
    day: today,
    time: new Date().toISOString().slice(11, 16),
    typed: String(typed),
    readBy: '',
    note: '',
    vouched: true,
  })
}

const today = new Date().toISOString().slice(0, 10)

/** A visit of today to a pump's seals, its sheet open. */
async function openSheet(actor: Actor, number = 'P-7') {
  const [pump] = await assemblies.all({ number })
  const visitId = uuid()
  await bookVisit(actor, {
    id: visitId,
    items: [{ assemblyId: pump!.id, task: 'hpSeals', positions: ['hpSeal@1', 'hpSeal@2', 'hpSeal@3'] }],
    day: today,
    startTime: '',
    leadId: actor.id,
    note: '',
  })
  const { id } = await startSheet(actor, { id: uuid(), visitId })
  return { sheetId: id, visitId, work: new Tablet(actor, id) }
}

async function measurePages(folder: string, actor: Actor, visitId: string, sheetId: string, stepKey: string) {
  let cookie = ''
  const askOf = async (url: string, path: string) => {
    const begun = performance.now()
    const answer = await fetch(url + path, { headers: { cookie } })
    const { length } = await answer.text()
    if (answer.status !== 200) throw new Error(`${path}: ${answer.status}`)
    return { ms: performance.now() - begun, kB: length / 1000 }
  }
  // Once before: what is learned of each meter outlives a start.
  const before = await startApp(folder, {})
  console.log(`first start. ${before.output().match(/Atelier: ready.*/)?.[0] ?? ''}`)
  // The first start has made the secret that seals it.
  const { name, value } = await cookieOf(folder, 'bench')
  cookie = `${name}=${value}`
  const early = await askOf(before.url, '/today')
  say('Today, asked for as soon as the server listens', early.ms, early.kB)
  await before.stop()
  const again = performance.now()
  const app = await startApp(folder, {})
  console.log(`${(performance.now() - again).toFixed(0).padStart(8)} ms  the next start until ready`)
  console.log(app.output().match(/Atelier: ready.*/)?.[0] ?? '')
  try {
    const ask = (path: string) => askOf(app.url, path)
    let sent = 0
    const deviceId = uuid()
    const tick = async () => {
      sent += 1
      const begun = performance.now()
      const entry = {
        id: uuid(),
        authorId: actor.id,
        deviceId,
        deviceSeq: sent,
        seenUpTo: 1,
        deviceTime: new Date().toISOString(),
        stepKey,
        kind: 'remark',
        payload: { text: `tick ${sent}` },
      }
      const answer = await fetch(`${app.url}/api/sheets/${sheetId}/entries`, {
        method: 'POST',
        headers: {
          cookie,
          origin: app.url,
          'content-type': 'application/json',
          'x-sent-at': new Date().toISOString(),
        },
        body: JSON.stringify([entry]),
      })
      if (answer.status !== 200) throw new Error(`tick: ${answer.status} ${await answer.text()}`)
      return performance.now() - begun
    }
    // By then the server has practised; what it takes sooner is told above.
    await new Promise((resolve) => setTimeout(resolve, 500))
    const firstToday = await ask('/today')
    say('Today, the first after a start, half a second later', firstToday.ms, firstToday.kB)
    const pages = [
      ['/today', 'Today'],
      ['/today/list', 'due list on paper'],
      ['/fleet', 'Fleet'],
      ['/fleet/M-7', 'machine'],
      ['/fleet/pumps', 'pumps'],
      ['/fleet/pumps/P-7', 'pump'],
      ['/fleet/pumps/P-7/compose', 'compose'],
      ['/hours', 'round'],
      ['/plan', 'Plan'],
      ['/plan/horizon', 'horizon'],
      [`/plan/${visitId}`, 'visit'],
      ['/sheets', 'Sheets'],
      [`/sheets/${sheetId}`, 'sheet at the bench'],
      ['/stores', 'Stores'],
      ['/winter', 'Winter'],
      ['/winter/M-7', 'winter of a machine'],
      ['/winter/methods', 'winter methods'],
      ['/models', 'Models'],
    ] as const
    console.log('   alone    20 at once (medians)')
    for (const [path, name] of pages) {
      await ask(path)
      const alone: number[] = []
      for (let index = 0; index < 5; index += 1) alone.push((await ask(path)).ms)
      const many = await Promise.all(Array.from({ length: 20 }, () => ask(path)))
      const both = [median(alone), median(many.map(({ ms }) => ms))]
      console.log(
        `${both.map((ms) => `${ms.toFixed(0)} ms`.padStart(8)).join('   ')}   ${name}, ${many[0]!.kB.toFixed(0)} kB`,
      )
    }
    await tick()
    const alone = await tick()
    say('a tick alone', alone)
    const afterTick = await ask('/today')
    say('Today after it', afterTick.ms)
    let loading = true
    const clients = Array.from({ length: 20 }, async () => {
      while (loading) await ask('/today')
    })
    const ticks: number[] = []
    for (let index = 0; index < 200; index += 1) {
      ticks.push(await tick())
      await new Promise((resolve) => setTimeout(resolve, 50))
    }
    loading = false
    await Promise.all(clients)
    ticks.sort((a, b) => a - b)
    say('ticks while 20 clients load Today, median', median(ticks))
    say('95 % of them within', ticks[Math.floor(ticks.length * 0.95)]!)
    const status = readFileSync(`/proc/${app.pid}/status`, 'utf8')
    console.log(`memory of the server: ${Math.round(Number(/VmRSS:\s+(\d+)/.exec(status)?.[1]) / 1024)} MB`)
  } finally {
    await app.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}

const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!

function say(what: string, ms: number, kB?: number): void {
  console.log(`${ms.toFixed(0).padStart(8)} ms  ${what}${kB ? `, ${kB.toFixed(0)} kB` : ''}`)
}

main().then(
  () => process.exit(0),
  (error: unknown) => {
    console.error(error)
    process.exit(1)
  },
)
