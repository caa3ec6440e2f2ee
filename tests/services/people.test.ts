import { readFileSync, statSync } from 'node:fs'
import path from 'node:path'
import { v7 as uuid } from 'uuid'
import { metricUnits, usUnits } from '@/core/units'
import { people as peopleTable } from '@/db/access'
import type { Actor } from '@/services/house'
import { runAt, startOffset } from '@/services/house'
import { getCompany, present, saveCompany } from '@/services/house'
import { dayOf, instantOf } from '@/services/house'
import {
  addPerson,
  changeOwnPassword,
  listPeople,
  revokePerson,
  savePerson,
  setPersonLeft,
} from '@/services/access'
import { actorOfSession, endSession, sessionSecret, signIn, signOutEverywhere } from '@/services/access'
import { setUp, setUpCode } from '@/services/access'
import { waitAfter } from '@/services/access/throttle'
import { listYards, removeYard, saveYard } from '@/services/fleet'
import { dataFolder } from '@/db/house'
import { freshCompany, freshDatabase, problemIn, removeDatabase } from '../support/database'

let coordinator: Actor
beforeEach(async () => {
  ;({ coordinator } = await freshCompany())
})
afterAll(removeDatabase)

const password = 'water under pressure'
const technician = () => ({
  id: uuid(),
  name: 'M. Osei',
  signInName: 'Osei',
  role: 'technician' as const,
  password,
})
// Each test attempts from an address of its own, so that one test's failures do not slow the next.
let addresses = 0
const address = () => `test-${(addresses += 1)}`

test('a person who was added can sign in, and the password is nowhere in the database', async () => {
  const person = technician()
  await addPerson(coordinator, person)
  const session = await signIn({ signInName: 'osei', password }, address())
  expect(await actorOfSession(session)).toEqual({ id: person.id, name: 'M. Osei', role: 'technician' })
  const row = await peopleTable.byId(person.id)
  expect(row!.passwordHash).toMatch(/^scrypt\$/)
  expect(JSON.stringify(await peopleTable.all())).not.toContain(password)
})

test('a wrong name and a wrong password get the same answer', async () => {
  await addPerson(coordinator, technician())
  const wrongPassword = await problemIn(signIn({ signInName: 'osei', password: 'x' }, address()))
  const wrongName = await problemIn(signIn({ signInName: 'nobody-here', password }, address()))
  expect(wrongPassword).toEqual(wrongName)
})

test('after three wrong attempts each further one has to wait, for that name from that address', async () => {
  const person = technician()
  await addPerson(coordinator, person)
  const guesser = address()
  const guess = (from = guesser) => problemIn(signIn({ signInName: 'osei', password: 'x' }, from))
  for (let attempt = 0; attempt < 3; attempt += 1) expect((await guess()).kind).toBe('invalid')
  expect(await guess()).toMatchObject({
    kind: 'slowDown',
    message: expect.stringContaining('Too many attempts. Try again in'),
  })
  // Nobody locks somebody else out by guessing at their name.
  expect((await signIn({ signInName: 'osei', password }, address())).personId).toBe(person.id)
  expect([2, 3, 4, 5, 30].map((attempts) => waitAfter(attempts))).toEqual([0, 2, 4, 8, 300])
})

test('guesses at the same time are counted before any of them is looked at', async () => {
  await addPerson(coordinator, technician())
  const from = address()
  const kinds = await Promise.all(
    Array.from(
      { length: 30 },
      async () => (await problemIn(signIn({ signInName: 'osei', password: 'x' }, from))).kind,
    ),
  )
  expect(kinds.filter((kind) => kind === 'invalid')).toHaveLength(3)
  expect(kinds.filter((kind) => kind === 'slowDown')).toHaveLength(27)
})

test('however many sign in at once, the database answers meanwhile', async () => {
  await addPerson(coordinator, technician())
  let done = 0
  const guesses = Array.from({ length: 30 }, () =>
    problemIn(signIn({ signInName: `nobody-${uuid().slice(-8)}`, password: 'x' }, address())).then(
      () => (done += 1),
    ),
  )
  await listPeople(coordinator)
  // The list was there before half of the thirty had been worked out.
  expect(done).toBeLessThan(15)
  await Promise.all(guesses)
})

test('a copy of a cookie counts no more once somebody has signed out; other sessions go on', async () => {
  await addPerson(coordinator, technician())
  const signedIn = () => signIn({ signInName: 'osei', password }, address())
  const [here, elsewhere] = [await signedIn(), await signedIn()]
  await endSession(here)
  await endSession(here)
  expect(await actorOfSession(here)).toBeNull()
  expect((await actorOfSession(elsewhere))!.name).toBe('M. Osei')
  // Nobody ends a session with a cookie that they made up.
  await endSession({ ...elsewhere, id: uuid(), epoch: 99 })
  expect(await actorOfSession(elsewhere)).not.toBeNull()
})

test.each([
  ['the sign-in name', { signInName: 'mosei-the-first', password: 'MOSEI-the-first' }],
  ['the name', { name: 'Mabel Oseinda', password: 'mabel oseinda' }],
])('a password that is %s is refused', async (_what, more) => {
  expect(await problemIn(addPerson(coordinator, { ...technician(), ...more }))).toMatchObject({
    fields: { password: 'Use something else than a name.' },
  })
})

test('a stale edit says what others changed, and never what proves who they are', async () => {
  const person = technician()
  await addPerson(coordinator, person)
  const edit = { ...person, version: 1, password: '' }
  await savePerson(coordinator, { ...edit, name: 'M. Osei-Brandt' })
  const problem = (await problemIn(savePerson(coordinator, { ...edit, name: 'M. O.' }))) as {
    stale?: { current: Record<string, unknown> }
  }
  expect(problem.stale!.current.name).toBe('M. Osei-Brandt')
  expect(JSON.stringify(problem)).not.toContain('scrypt')
})

test('sessions end when they are revoked, when the person leaves, and when they are old', async () => {
  const person = technician()
  await addPerson(coordinator, person)
  const signedIn = () => signIn({ signInName: 'osei', password }, address())
  const first = await signedIn()
  await revokePerson(coordinator, person.id)
  expect(await actorOfSession(first)).toBeNull()
  const second = await signedIn()
  await signOutEverywhere({ id: person.id, name: person.name, role: 'technician' })
  expect(await actorOfSession(second)).toBeNull()
  const third = await signedIn()
  expect(await actorOfSession({ ...third, startedAt: third.startedAt - 31 * 86_400_000 })).toBeNull()
  await setPersonLeft(coordinator, { id: person.id, version: 1, left: true })
  expect(await actorOfSession(third)).toBeNull()
  expect((await problemIn(signedIn())).kind).toBe('invalid')
  expect(await actorOfSession({})).toBeNull()
})

test('changing one’s own password asks for the present one and ends other sessions', async () => {
  const actor: Actor = coordinator
  const session = await signIn({ signInName: 'coordinator', password: 'a long enough one' }, address())
  expect(
    await problemIn(changeOwnPassword(actor, { current: 'no', next: 'another long one' })),
  ).toMatchObject({
    fields: { current: 'This is not your present password.' },
  })
  const { epoch } = await changeOwnPassword(actor, { current: 'a long enough one', next: 'another long one' })
  expect(await actorOfSession(session)).toBeNull()
  expect(await actorOfSession({ ...session, epoch })).not.toBeNull()
})

test('the last coordinator can neither leave nor step down', async () => {
  const leave = setPersonLeft(coordinator, { id: coordinator.id, version: 1, left: true })
  expect((await problemIn(leave)).message).toContain('only coordinator')
  const stepDown = savePerson(coordinator, {
    id: coordinator.id,
    version: 1,
    name: 'H. Lindqvist',
    signInName: 'coordinator',
    role: 'viewer',
    password: '',
  })
  expect((await problemIn(stepDown)).message).toContain('only coordinator')
})

test('only coordinators manage people, company and yards', async () => {
  const asTechnician: Actor = { ...coordinator, role: 'technician' }
  const company = await getCompany(coordinator)
  const attempts = [
    addPerson(asTechnician, technician()),
    saveCompany(asTechnician, { ...company, version: 1 }),
    saveYard(asTechnician, { id: uuid(), name: 'x', place: '', note: '' }),
  ]
  for (const attempt of attempts) expect((await problemIn(attempt)).kind).toBe('notAllowed')
  expect(await listPeople(coordinator)).toHaveLength(1)
})

test('the company’s settings are saved, and a stale edit of them is refused', async () => {
  const { id: _id, ...company } = await getCompany(coordinator)
  await saveCompany(coordinator, { ...company, units: usUnits })
  expect((await getCompany(coordinator)).units.pressure).toBe('psi')
  expect(await problemIn(saveCompany(coordinator, { ...company, currency: 'USD' }))).toMatchObject({
    kind: 'conflict',
    stale: { changed: ['units'] },
  })
  const bad = await problemIn(
    saveCompany(coordinator, {
      ...company,
      timeZone: 'Mars/Olympus',
      units: { ...metricUnits, flow: 'cups' },
    }),
  )
  expect(bad.fields).toEqual({
    timeZone: 'Choose a time zone from the list, such as Europe/Dublin.',
    'units.flow': 'Choose one of the values offered.',
  })
})

test('a yard is renamed, never doubled, and removed only while empty', async () => {
  const [harbour] = await listYards(coordinator)
  const id = uuid()
  await saveYard(coordinator, { id, name: 'Upland yard', place: '', note: '' })
  expect(
    (await problemIn(saveYard(coordinator, { id, version: 1, name: harbour!.name, place: '', note: '' })))
      .fields,
  ).toEqual({
    name: 'There is a yard of this name already.',
  })
  await removeYard(coordinator, id)
  expect((await listYards(coordinator)).map((yard) => yard.name)).toEqual(['Harbour yard'])
})

describe('setting up', () => {
  const input = () => ({
    code: setUpCode(),
    company: { name: 'New', timeZone: 'UTC', currency: 'EUR', units: metricUnits },
    yard: { id: uuid(), name: 'Yard' },
    coordinator: { id: uuid(), name: 'A', signInName: 'aa', password },
  })

  test('asks for the code of the console and happens once', async () => {
    expect((await problemIn(setUp(input(), address()))).message).toContain('set up already')
    await freshDatabase()
    expect((await problemIn(setUp({ ...input(), code: 'WRONG' }, address()))).fields).toEqual({
      code: 'This is not the code that the console shows.',
    })
    const session = await setUp(input(), address())
    expect((await actorOfSession(session))!.role).toBe('coordinator')
  })

  test('a part that is wrong keeps all of it from happening', async () => {
    await freshDatabase()
    const wrong = { ...input(), coordinator: { ...input().coordinator, password: 'short' } }
    expect((await problemIn(setUp(wrong, address()))).fields).toEqual({
      'coordinator.password': 'Use at least 10 characters. A short sentence works well.',
    })
    expect(await peopleTable.count()).toBe(0)
  })
})

test('the secret that seals sessions is made once and only its owner can read it', () => {
  const secret = sessionSecret()
  expect(secret.length).toBeGreaterThanOrEqual(32)
  expect(sessionSecret()).toBe(secret)
  const file = path.join(dataFolder(), 'session-secret')
  expect(readFileSync(file, 'utf8')).toBe(secret)
  expect(statSync(file).mode & 0o077).toBe(0)
})

test('days follow the company’s clocks, through summer time', () => {
  expect(dayOf('2026-07-01T23:30:00.000Z', 'Europe/London')).toBe('2026-07-02')
  expect(instantOf('2026-07-01', '08:00', 'Europe/London')).toBe('2026-07-01T07:00:00.000Z')
  expect(instantOf('2026-12-01', '08:00', 'Europe/London')).toBe('2026-12-01T08:00:00.000Z')
  expect(instantOf('2026-06-30', '20:00', 'America/Los_Angeles')).toBe('2026-07-01T03:00:00.000Z')
})

test('the clock can be fixed, and starts on the day it is told', async () => {
  const company = await getCompany(coordinator)
  const fixed = await runAt('2026-10-13T23:30:00.000Z', async () => present(company))
  expect(fixed).toMatchObject({ today: '2026-10-14', time: '00:30' })
  const real = Date.parse('2026-11-23T03:10:00.000Z')
  // Before working hours: it starts at 07:00 UTC of the day, so that no time zone is a day off.
  expect(new Date(real + startOffset('2026-10-14', real)).toISOString()).toBe('2026-10-14T07:00:00.000Z')
  expect(new Date(real + startOffset('2026-10-14T08:00:00Z', real)).toISOString()).toBe(
    '2026-10-14T08:00:00.000Z',
  )
  expect(startOffset(undefined, real)).toBe(0)
  expect(() => startOffset('next week', real)).toThrow('ATELIER_TODAY')
})
