import { mkdirSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { confirm, finishSheet, readMeter, workUntil } from '../tests/support/benchWalk'
import { openBrowser, Person } from '../tests/support/browser'
import { demoEnv, makeDemo, startApp } from '../tests/support/app'

type Shot = {
  name: string
  path: string
  size?: { width: number; height: number }
  theme?: 'dark'
  prepare?: (person: Person) => Promise<void>
}

/** One picture per main view, from the demo data. */
const shots: Shot[] = [
  { name: 'today', path: '/today' },
  { name: 'today-dark', path: '/today', theme: 'dark' },
  { name: 'fleet', path: '/fleet' },
  { name: 'machine', path: '/fleet/T-12' },
  { name: 'machine-phone', path: '/fleet/T-04', size: { width: 390, height: 844 } },
  {
    name: 'hours',
    path: '/hours',
    prepare: async (person) => {
      await person.sees('to read:')
      const { keyboard } = person.page
      await keyboard.type('48351')
      await keyboard.press('Enter')
      await keyboard.type('2608.4')
    },
  },
  { name: 'pump', path: '/fleet/pumps/P-04' },
  {
    name: 'plan',
    path: '/plan/horizon',
    prepare: async (person) => {
      await person.press('Propose 12 weeks')
      await person.sees('cheaper')
      await person.page.$eval('.horizon-proposals summary', (why) => (why as HTMLElement).click())
    },
  },
  {
    name: 'visit',
    path: '/plan',
    prepare: async (person) => {
      await person.press('T-12')
      await person.sees('Steps, in order')
    },
  },
  {
    name: 'sheet',
    path: '/sheets',
    size: { width: 1024, height: 768 },
    prepare: async (person) => {
      // The open sheet leads the list; its number depends on what the demo tells before it.
      await person.page.$eval('.part a[href^="/sheets/"]', (link) => (link as HTMLElement).click())
      await person.sees('All saved')
      for (const _ of [1, 2, 3]) await confirm(person)
      await person.sees('All saved')
    },
  },
  {
    name: 'record',
    path: '/fleet/pumps/P-12',
    prepare: async (person) => {
      await openRecord(person, 'Renew low-pressure seals')
      await person.sees('Every step')
    },
  },
  { name: 'stores', path: '/stores' },
  { name: 'part', path: '/stores/OR-31' },
  { name: 'winter', path: '/winter' },
  { name: 'orders', path: '/stores/orders' },
  {
    name: 'model',
    path: '/models',
    prepare: async (person) => {
      await person.press('Ostrel P3-200')
      await person.sees('Torque and order')
    },
  },
  {
    name: 'compose',
    path: '/fleet/pumps/P-12/compose',
    prepare: async (person) => {
      await person.press('Renew high-pressure seals')
      await person.press('Renew oil seals')
      await person.sees('Cheap while it is open')
    },
  },
  {
    name: 'sheet-look',
    path: '/fleet/T-11',
    size: { width: 1024, height: 768 },
    prepare: async (person) => {
      await person.press('Breakdown')
      await person.sees('What happened')
      await person.type('What happened', 'Rough running, water from the weep holes')
      for (const service of ['Renew high-pressure seals', 'Renew outlet valves'])
        await person.page.$$eval(
          '[role=dialog] label',
          (labels, words) => labels.find((label) => label.textContent!.includes(words))!.click(),
          service,
        )
      await person.press('Open the sheet')
      await readMeter(person, 4)
      await workUntil(person, 'Look at the old seal')
      await person.press('Torn')
      await person.sees('Torn: renew')
      await confirm(person)
      await person.press('Extruded')
      await person.press('clear')
      await person.sees('All saved')
    },
  },
  // Works the open sheet to its end, so it comes last.
  {
    name: 'sign',
    path: '/sheets',
    prepare: async (person) => {
      // The open sheet leads the list; its number depends on what the demo tells before it.
      await person.page.$eval('.part a[href^="/sheets/"]', (link) => (link as HTMLElement).click())
      await person.sees('All saved')
      await workUntil(person, 'Not ready to be signed yet')
      await finishSheet(person)
      await person.sees('Everything is done')
      await person.sees('All saved')
      await person.press('Look at it and sign')
      await person.sees('Lives that end')
    },
  },
]

/** Opens the newest sheet of the list whose services are these. */
async function openRecord(person: Person, services: string): Promise<void> {
  const href = await person.page.$$eval(
    '.line-list li',
    (rows, words) =>
      rows
        .find((row) => row.textContent!.includes(words) && row.querySelector('a[href^="/sheets/"]'))!
        .querySelector('a[href^="/sheets/"]')!
        .getAttribute('href')!,
    services,
  )
  await person.goTo(href)
}

async function main() {
  const [only, target = 'docs/screenshots'] = process.argv.slice(2)
  const kept = process.env.SHOTS_DATA
  const folder = kept ?? mkdtempSync(path.join(tmpdir(), 'atelier-shots-'))
  if (!kept) {
    console.log('making the demo company …')
    await makeDemo(folder)
  }
  const app = await startApp(folder, demoEnv)
  const browser = await openBrowser()
  mkdirSync(target, { recursive: true })
  try {
    const wanted = only && only !== 'all' ? only.split(',') : undefined
    for (const shot of shots.filter((each) => !wanted || wanted.includes(each.name))) {
      const person = await Person.at(browser, app.url, shot.size)
      await person.page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: shot.theme ?? 'light' }])
      await person.signInAs('coordinator')
      await person.goTo(shot.path)
      await person.page.evaluate(() => document.fonts.ready.then(() => undefined))
      await shot.prepare?.(person)
      await new Promise((resolve) => setTimeout(resolve, 300))
      await person.page.screenshot({ path: path.join(target, `${shot.name}.png`) as `${string}.png` })
      console.log(`${shot.name}.png`)
      await person.page.browserContext().close()
    }
  } finally {
    await browser.close()
    await app.stop()
    if (!kept) rmSync(folder, { recursive: true, force: true })
  }
}

main().catch((error: unknown) => {
  console.error(error)
  process.exit(1)
})
