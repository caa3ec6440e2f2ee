import { v7 as uuid } from 'uuid'
import { demoApp } from '../support/demo'
import { breakdown, confirm, isRead, typeReading } from '../support/benchWalk'
import type { Person } from '../support/browser'

jest.setTimeout(180_000)
const demo = demoApp()
const tablet = { width: 1024, height: 768 }

type Entry = { kind: string; byName: string; takenInByName?: string; takenInWhy?: string; payload: unknown }

/** Until it is let go, nothing of this page reaches the sheets' addresses: the line is dead for them. */
async function outOfReach(person: Person): Promise<() => Promise<void>> {
  const { page } = person
  await page.setRequestInterception(true)
  const hear = (request: import('puppeteer-core').HTTPRequest) =>
    void (request.url().includes('/api/sheets/') ? request.abort() : request.continue())
  page.on('request', hear)
  return async () => {
    page.off('request', hear)
    await page.setRequestInterception(false)
  }
}

async function openSheetId(person: Person): Promise<string> {
  await person.goTo('/sheets')
  return person.page.$eval('.part a[href^="/sheets/"]', (link) => link.getAttribute('href')!.split('/')[2]!)
}

/** What stands on a sheet, asked as whoever is signed in. */
const entriesOn = (person: Person, id: string) =>
  person.page.evaluate(
    async (sheet) =>
      ((await (await fetch(`/api/sheets/${sheet}/entries?after=0`)).json()) as { entries: Entry[] }).entries,
    id,
  )

test('what one person ticks on a shared tablet waits for them, or is taken in by a coordinator in both names', async () => {
  const person = await demo.someone('technician', tablet)
  const id = await openSheetId(person)
  await person.goTo(`/sheets/${id}`)
  await person.sees('All saved')
  const before = (await entriesOn(person, id)).length
  const back = await outOfReach(person)
  await confirm(person)
  await person.sees('kept on this device')

  // Somebody else signs in on the same tablet before the line is back.
  await person.page.browserContext().deleteCookie(...(await person.page.browserContext().cookies()))
  await person.signInAs('coordinator')
  await back()
  await person.goTo('/sheets')
  await person.sees('of M. Osei wait on this device')
  await person.goTo(`/sheets/${id}`)
  await person.sees('They are M. Osei’s and are not counted here')
  expect(await entriesOn(person, id)).toHaveLength(before)

  // M. Osei comes back: it goes by itself, in the right name.
  await person.page.browserContext().deleteCookie(...(await person.page.browserContext().cookies()))
  await person.signInAs('technician')
  await person.goTo(`/sheets/${id}`)
  await person.sees('All saved')
  const sent = (await entriesOn(person, id)).slice(before)
  expect(sent.map(({ byName, takenInByName }) => [byName, takenInByName])).toEqual(
    sent.map(() => ['M. Osei', '']),
  )
  expect(sent.length).toBeGreaterThan(0)

  // Once more, and this time M. Osei does not come back.
  const after = before + sent.length
  const backAgain = await outOfReach(person)
  await confirm(person)
  await person.sees('kept on this device')
  await person.page.browserContext().deleteCookie(...(await person.page.browserContext().cookies()))
  await person.signInAs('coordinator')
  await backAgain()
  await person.goTo(`/sheets/${id}`)
  await person.press('Take them in for M. Osei')
  await person.press('Take them in')
  await person.sees('Fill this in.')
  await person.type('Why M. Osei cannot send them', 'went home ill')
  await person.press('Take them in')
  await person.page.waitForFunction(() => !document.body.innerText.includes('wait on this device'))
  const taken = (await entriesOn(person, id)).slice(after)
  expect(taken.length).toBeGreaterThan(0)
  for (const entry of taken)
    expect(entry).toMatchObject({
      byName: 'M. Osei',
      takenInByName: 'H. Lindqvist',
      takenInWhy: 'went home ill',
    })
})

test('what waited before entries had an author is asked for, and goes once somebody says whose it is', async () => {
  const person = await demo.someone('technician', tablet)
  const id = await openSheetId(person)
  const entry = {
    id: uuid(),
    sheetId: id,
    deviceId: uuid(),
    deviceSeq: 1,
    seenUpTo: 1,
    deviceTime: '2026-10-14T08:00:00.000Z',
    stepKey: null,
    kind: 'remark',
    payload: { text: 'from before the update' },
    refused: '',
  }
  // The device's database as the version before left it.
  await person.goTo('/today')
  await person.page.evaluate(
    (old) =>
      new Promise<void>((resolve, reject) => {
        indexedDB.deleteDatabase('atelier').onsuccess = () => {
          const opening = indexedDB.open('atelier', 2)
          opening.onupgradeneeded = () => {
            const db = opening.result
            db.createObjectStore('outbox', { keyPath: 'id' }).createIndex('sheet', 'sheetId')
            db.createObjectStore('device', { keyPath: 'name' })
            db.createObjectStore('photos', { keyPath: 'id' })
          }
          opening.onerror = () => reject(new Error('no database'))
          opening.onsuccess = () => {
            const work = opening.result.transaction('outbox', 'readwrite')
            work.objectStore('outbox').put(old)
            work.oncomplete = () => {
              opening.result.close()
              resolve()
            }
          }
        }
      }),
    entry,
  )
  await person.goTo(`/sheets/${id}`)
  await person.sees('1 entry (1 remark) wait on this device, from before it kept who made them.')
  expect(
    (await entriesOn(person, id)).some(
      ({ kind, payload }) => kind === 'remark' && JSON.stringify(payload).includes('before the update'),
    ),
  ).toBe(false)
  await person.press('They are mine, M. Osei’s')
  await person.sees('from before the update')
  await person.sees('All saved')
})

test('one entry that cannot be kept is told, and holds up no other', async () => {
  const person = await demo.someone('technician', tablet)
  const id = await openSheetId(person)
  await person.goTo(`/sheets/${id}`)
  await person.sees('All saved')
  // Its number is one that another sheet has used; beside it wait six hundred good ones.
  const others = await person.page.evaluate(async () => {
    const page = await (await fetch('/sheets')).text()
    return [...page.matchAll(/\/sheets\/([0-9a-f-]{36})/g)].map(([, other]) => other!)
  })
  const other = others.find((each) => each !== id)!
  const clash = (await entriesOn(person, other))[1] as unknown as { id: string }
  const seen = await person.page.evaluate(async (sheet) => {
    return (await (await fetch(`/api/sheets/${sheet}/entries?after=0`)).json()) as {
      actor: { id: string; name: string }
    }
  }, id)
  const device = uuid()
  const list = Array.from({ length: 600 }, (_, index) => ({
    id: index === 0 ? clash.id : uuid(),
    sheetId: id,
    authorId: seen.actor.id,
    authorName: seen.actor.name,
    deviceId: device,
    deviceSeq: index + 1,
    seenUpTo: 1,
    deviceTime: new Date(Date.UTC(2026, 9, 14, 8, 0, 0, index)).toISOString(),
    stepKey: null,
    kind: 'remark',
    payload: { text: `note ${index}` },
    refused: '',
  }))
  await person.goTo('/today')
  await person.page.evaluate(
    (entries) =>
      new Promise<void>((resolve) => {
        const opening = indexedDB.open('atelier')
        opening.onsuccess = () => {
          const work = opening.result.transaction('outbox', 'readwrite')
          for (const each of entries) work.objectStore('outbox').put(each)
          work.oncomplete = () => {
            opening.result.close()
            resolve()
          }
        }
      }),
    list,
  )
  await person.goTo(`/sheets/${id}`)
  await person.sees('Its number is that of another entry: write it again.')
  await person.sees('All saved')
  const texts = new Set(
    (await entriesOn(person, id)).map(({ payload }) => (payload as { text?: string }).text),
  )
  expect(list.slice(1).every(({ payload }) => texts.has(payload.text))).toBe(true)
  await person.press('I have seen it')
  await person.page.waitForFunction(() => !document.body.innerText.includes('write it again'))
})

test('what is entered before the device has opened its storage, or while it has no room, is not lost', async () => {
  const person = await demo.someone('technician', tablet)
  const { page } = person
  await breakdown(person, 'V-11', 'Renew inlet valves')
  await person.sees('All saved')
  const sheet = new URL(page.url()).pathname
  await person.goTo('/today')
  // A page of an older version stands in another tab and holds the storage: this one cannot open it yet.
  const older = await page.browserContext().newPage()
  await older.goto(`${person.url}/icon.svg`)
  await older.evaluate(
    () =>
      new Promise<void>((resolve) => {
        indexedDB.deleteDatabase('atelier').onsuccess = () => {
          const opening = indexedDB.open('atelier', 2)
          opening.onupgradeneeded = () => {
            opening.result.createObjectStore('outbox', { keyPath: 'id' }).createIndex('sheet', 'sheetId')
            opening.result.createObjectStore('device', { keyPath: 'name' })
            opening.result.createObjectStore('photos', { keyPath: 'id' })
          }
          opening.onsuccess = () => {
            Object.assign(window, { held: opening.result })
            resolve()
          }
        }
      }),
  )
  await page.bringToFront()
  await person.goTo(sheet)
  const shows = await typeReading(person, 2)
  await page.$eval('.bench-work .confirm', (button) => (button as HTMLElement).click())
  await person.sees('looking what waits here')
  await older.evaluate(() => (window as unknown as { held: IDBDatabase }).held.close())
  await older.close()
  await isRead(person)
  await person.sees('All saved')

  // The device is full: it says so, and what was typed stands where it stood.
  const about = () =>
    page.$$eval('.bench-work input', (inputs) => inputs.map((each) => each.value).filter(Boolean))
  await breakdown(person, 'V-12', 'Renew inlet valves')
  await person.sees('All saved')
  const typed = await typeReading(person, 'expected')
  expect(typed).not.toBe(shows)
  await page.evaluate(() => {
    const { put } = IDBObjectStore.prototype
    IDBObjectStore.prototype.put = () => {
      throw new DOMException('no room', 'QuotaExceededError')
    }
    Object.assign(window, { makeRoom: () => Object.assign(IDBObjectStore.prototype, { put }) })
  })
  await page.$eval('.bench-work .confirm', (button) => (button as HTMLElement).click())
  await person.sees('This device could not keep that, and nothing was written.')
  await person.sees('Not kept on this device')
  expect(await about()).toEqual([typed])
  await page.evaluate(() => void (window as unknown as { makeRoom: () => object }).makeRoom())
  await page.$eval('.bench-work .confirm', (button) => (button as HTMLElement).click())
  await isRead(person)
})
