import { demoEnv, startApp } from '../support/app'
import {
  blank,
  breakdown,
  confirm,
  finishSheet,
  forward,
  readMeter,
  standing,
  tablet,
  workUntil,
} from '../support/benchWalk'
import { eventually } from '../support/browser'
import { demoApp } from '../support/demo'

const demo = demoApp()
const { someone } = demo

jest.setTimeout(300_000)

test('one head at a time on an opposed-head pump: the others stay locked until it is closed', async () => {
  const person = await someone('technician', tablet)
  await breakdown(person, 'V-22', 'Renew seal rings')
  await readMeter(person, 'expected')
  await forward(person, 'Is everything safe to open?')
  await person.press('Made safe: M. Osei')
  // Four heads beside each other: no figure and no button is cut off at the edge of the tablet.
  const cut = await person.page.$$eval('.bench-side, .bench-side *', (all) =>
    all.flatMap((each) =>
      each.getBoundingClientRect().right > window.innerWidth + 1 ? each.textContent : [],
    ),
  )
  expect(cut).toEqual([])
  const open = async () =>
    person.page.$$eval('.bench-cell', (cells) =>
      cells.map((each) => each.getAttribute('aria-label')!).filter((words) => words.includes('locked')),
    )
  expect(await open()).toEqual([])
  await forward(person, 'Take O-ring, seal ring and guide out')
  await eventually(async () => expect((await open()).length).toBeGreaterThanOrEqual(3))
  expect((await open()).join()).not.toContain('head 1')
  // A later head's step says which one is to be closed first.
  await person.page.$$eval('.phase-steps button, .phase-head', (buttons) => {
    const all = buttons as HTMLElement[]
    all
      .filter((each) => each.textContent!.includes('Strip down'))
      .at(-1)!
      .click()
  })
  await person.sees('One at a time: head 1 stands open. Close it first.')
  await person.press('Go there')
  await forward(person, 'Closing count')
  await eventually(async () => expect(await open()).toEqual([]))
})

test('end play on a diaphragm pump: found, set, measured in its limits, with what it was before', async () => {
  const person = await someone('technician', tablet)
  await breakdown(person, 'R-05', 'Set bearing end play')
  await readMeter(person, 'expected')
  await forward(person, 'Measure the end play before anything is moved')
  await person.type('End play', '0.3')
  await confirm(person)
  await forward(person, 'Measure the end play with the dial gauge')
  await person.type('End play', '0.3')
  await person.sees('0.3 mm is above 0.12 mm.')
  await person.press('Done: 0.3 mm')
  await person.sees('Measure again, or say why it is right.')
  await person.type('End play', '0.08')
  await confirm(person)
  expect((await standing(person)).title).not.toContain('Measure the end play with')
})

test('the server is killed at many points: no entry that it acknowledged is lost, none is doubled', async () => {
  const person = await someone('technician', tablet)
  await person.goTo('/sheets')
  const id = await person.page.$eval(
    '.part a[href^="/sheets/"]',
    (link) => link.getAttribute('href')!.split('/')[2]!,
  )
  const cookie = (await person.page.browserContext().cookies())
    .map(({ name, value }) => `${name}=${value}`)
    .join('; ')
  const url = () => `${demo.app.url}/api/sheets/${id}/entries`
  const { actor } = (await (await fetch(`${url()}?after=0`, { headers: { cookie } })).json()) as {
    actor: { id: string }
  }
  const authorId = actor.id
  const headers = { cookie, origin: demo.app.url, 'content-type': 'application/json' }
  const remark = (number: number) => ({
    id: `0190b0d2-0000-7000-8000-${String(number).padStart(12, '0')}`,
    authorId,
    deviceId: 'killing-device',
    deviceSeq: number,
    seenUpTo: 0,
    deviceTime: '2026-10-14T08:00:00.000Z',
    stepKey: null,
    kind: 'remark',
    payload: { text: `remark ${number}` },
  })
  const acknowledged: string[] = []
  let written = 0
  let waiting: ReturnType<typeof remark>[] = []
  for (let round = 0; round < 6; round += 1) {
    let power: Promise<void> | null = null
    for (let sent = 0; power === null || sent < 6; sent += 1) {
      waiting.push(remark((written += 1)))
      const answer = fetch(url(), { method: 'POST', headers, body: JSON.stringify(waiting) })
        .then(async (response) => (await response.json()) as { taken: string[] })
        .catch(() => null)
      // Each round the power goes a little later in the middle of a message.
      if (sent === 2)
        power = new Promise((resolve) => setTimeout(() => void demo.app.kill().then(resolve), round * 4))
      const taken = (await answer)?.taken ?? []
      acknowledged.push(...taken)
      waiting = waiting.filter((each) => !taken.includes(each.id))
    }
    await power
    demo.app = await startApp(demo.folder, demoEnv, demo.app.port)
  }
  if (waiting.length > 0)
    acknowledged.push(
      ...(
        (await (await fetch(url(), { method: 'POST', headers, body: JSON.stringify(waiting) })).json()) as {
          taken: string[]
        }
      ).taken,
    )
  const { entries } = (await (await fetch(`${url()}?after=0`, { headers })).json()) as {
    entries: { id: string }[]
  }
  const kept = entries.map((each) => each.id).filter((each) => each.startsWith('0190b0d2-0000'))
  expect(acknowledged.length).toBeGreaterThan(6)
  expect(new Set(kept).size).toBe(kept.length)
  expect(acknowledged.filter((each) => !kept.includes(each))).toEqual([])
  expect(kept).toHaveLength(written)
})

test('taps: a sheet of forty steps takes at most 1.2 a step, a bolt in a pass counting as one', async () => {
  const person = await someone('technician', tablet)
  await breakdown(person, 'T-12', 'Renew high-pressure seals')
  await readMeter(person, 14)
  const walked = blank()
  await workUntil(person, 'Not ready to be signed yet', walked)
  await finishSheet(person, walked)
  await person.sees('Everything is done')
  const share = walked.taps / (walked.steps + walked.bolts)
  expect(walked.steps).toBeGreaterThan(38)
  // Eight screws run in, pulled in two passes, and once more after the first run.
  expect(walked.bolts).toBe(32)
  expect(share).toBeLessThanOrEqual(1.2)
  process.stdout.write(`${JSON.stringify(walked)} ${share.toFixed(2)} taps a step\n`)
})
