import ICAL from 'ical.js'
import { v7 as uuid } from 'uuid'
import { feeds } from '@/db/plan'
import { listFeeds, makeFeed, readFeed, revokeFeed, saveCrew } from '@/services/plan'
import { listPeople, setPersonLeft } from '@/services/access'
import { bookVisit } from '@/services/plan'
import { listYards, saveYard } from '@/services/fleet'
import { at, workshop, type Workshop } from '../support/bench'
import { problemIn, removeDatabase } from '../support/database'

let shop: Workshop
const now = <T>(work: () => Promise<T>) => at('2026-08-03', work)
beforeEach(async () => {
  shop = await workshop()
})
afterAll(removeDatabase)

const make = (more = {}) =>
  makeFeed(shop.coordinator, { id: uuid(), name: 'Office wall', yardId: null, personId: null, ...more })
const tokenOf = (path: string) => path.replace('/feeds/', '').replace('.ics', '')

async function eventsOf(path: string) {
  const feed = await readFeed(tokenOf(path))
  if (feed.state !== 'open') throw new Error(`The link is ${feed.state}.`)
  const calendar = new ICAL.Component(ICAL.parse(feed.text))
  return calendar.getAllSubcomponents('vevent').map((each) => new ICAL.Event(each))
}

async function book(startTime: string) {
  await bookVisit(shop.coordinator, {
    id: uuid(),
    items: [{ assemblyId: shop.pumpId, task: 'hpSeals', positions: ['hpSeal@1', 'hpSeal@2', 'hpSeal@3'] }],
    day: '2026-08-06',
    startTime,
    leadId: shop.technician.id,
    note: '',
  })
}

test('due days and visits come out as a calendar that another library reads', () =>
  now(async () => {
    await book('08:30')
    const { path } = await make()
    const events = await eventsOf(path)
    const visit = events.find((event) => event.uid.startsWith('visit-'))!
    expect(visit.summary).toMatch(/^T-04 visit \d{4}, M\. Osei$/)
    // Half past eight in London in August.
    expect(visit.startDate.toJSDate().toISOString()).toBe('2026-08-06T07:30:00.000Z')
    expect(visit.description).toContain('P-04: Renew high-pressure seals, all cylinders')
    const due = events.filter((event) => event.uid.startsWith('due-'))
    // What is past its limit stands on today; what is on the visit is not told twice.
    const past = due.filter((event) => event.summary.startsWith('Past its limit'))
    expect(past.map((event) => event.startDate.toString())).toContain('2026-08-03')
    expect(due.some((event) => event.summary.includes('high-pressure seals'))).toBe(false)
    expect(new Set(events.map((event) => event.uid)).size).toBe(events.length)
    // The same things keep their names, so that a calendar updates them.
    expect((await eventsOf(path)).map((event) => event.uid)).toEqual(events.map((event) => event.uid))
  }))

test('work longer than a day stands in a calendar on each of its days', () =>
  now(async () => {
    const own = { personId: shop.technician.id, yardId: shop.yardId, skills: [], leave: [] }
    await saveCrew(shop.coordinator, { ...own, days: [1, 2, 3, 4, 5], minutes: 40 })
    await book('08:30')
    const events = await eventsOf((await make()).path)
    const visits = events.filter((event) => event.uid.startsWith('visit-'))
    expect(visits.map(({ startDate, summary }) => [startDate.toString(), / goes on/.test(summary)])).toEqual([
      // Half past eight in London, then Friday, and Monday after the weekend.
      ['2026-08-06T07:30:00Z', false],
      ['2026-08-07', true],
      ['2026-08-10', true],
    ])
    expect(visits[0]!.duration.toSeconds()).toBe(40 * 60)
    expect(new Set(events.map((event) => event.uid)).size).toBe(events.length)
  }))

test('a yard’s link never takes in another yard whose name begins like it', () =>
  now(async () => {
    await book('')
    const other = uuid()
    const [yard] = await listYards(shop.viewer)
    // "Harbour yard" and "Harb": what begins alike is not the same.
    await saveYard(shop.coordinator, { id: other, name: yard!.name.slice(0, 4), place: '', note: '' })
    const visitsOf = async (yardId: string) =>
      (await eventsOf((await make({ yardId })).path)).filter(({ uid }) => uid.startsWith('visit-')).length
    expect([await visitsOf(yard!.id), await visitsOf(other)]).toEqual([1, 0])
  }))

test('a technician’s link has their visits; a yard’s has what stands there', () =>
  now(async () => {
    await book('')
    const own = await eventsOf((await make({ personId: shop.technician.id })).path)
    expect(own.map((event) => [event.summary.slice(0, 4), event.startDate.toString()])).toEqual([
      ['T-04', '2026-08-06'],
    ])
    expect(await eventsOf((await make({ personId: shop.coordinator.id })).path)).toEqual([])
    const yard = await eventsOf((await make({ yardId: shop.yardId })).path)
    expect(yard.length).toBeGreaterThan(3)
  }))

test('a revoked link says so, an invented one is unknown, and nobody can read a link from the database', () =>
  now(async () => {
    const { path } = await make()
    await eventsOf(path)
    const [view] = await listFeeds(shop.coordinator)
    expect(view).toMatchObject({ name: 'Office wall', of: 'everything', readOn: '2026-08-03', revoked: null })
    const [row] = await feeds.all()
    expect(JSON.stringify(row)).not.toContain(tokenOf(path))
    await revokeFeed(shop.coordinator, view!.id)
    expect(await readFeed(tokenOf(path))).toEqual({ state: 'revoked' })
    expect(await readFeed(row!.tokenHash)).toEqual({ state: 'unknown' })
    expect(await readFeed('')).toEqual({ state: 'unknown' })
    expect((await listFeeds(shop.coordinator))[0]?.revoked).toEqual({ by: 'H. Lindqvist', day: '2026-08-03' })
  }))

test('whoever has left takes no calendar along', () =>
  now(async () => {
    const { path } = await make({ personId: shop.technician.id })
    const osei = (await listPeople(shop.coordinator)).find((person) => person.id === shop.technician.id)!
    await setPersonLeft(shop.coordinator, { id: osei.id, version: osei.version, left: true })
    expect(await readFeed(tokenOf(path))).toEqual({ state: 'revoked' })
  }))

test('only who plans may make or revoke links, and each is named', () =>
  now(async () => {
    const input = { id: uuid(), name: '', yardId: null, personId: null }
    expect(await problemIn(makeFeed(shop.technician, { ...input, name: 'mine' }))).toMatchObject({
      kind: 'notAllowed',
    })
    expect(await problemIn(makeFeed(shop.coordinator, input))).toMatchObject({
      fields: { name: 'Say whose calendar it goes into.' },
    })
    expect(await problemIn(revokeFeed(shop.technician, uuid()))).toMatchObject({ kind: 'notAllowed' })
  }))
