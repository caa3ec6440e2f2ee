import 'server-only'
import { randomBytes } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { signInSchema, type SignInInput } from '@/core/access'
import { invalid, type ProblemError, check } from '@/core/problem'
import { sealData } from 'iron-session'
import { v7 as uuid } from 'uuid'
import { dataFolder, Op, write } from '@/db/house'
import { endedSessions, people } from '@/db/access'
import { type Actor, recordChange, realNow } from '../house'
import { isPassword } from './passwords'
import { countSignIn, forgetSignIn } from './throttle'

/**
 * What the sealed cookie carries. It cannot be taken back, so each request compares the epoch, and looks
 * whether this very session was ended: a copy of a cookie is worth nothing once somebody has signed out.
 */
export type SessionContent = { id: string; personId: string; epoch: number; startedAt: number }

export const sessionDays = 30
/** The name of the cookie that a session is sealed into. */
export const sessionCookie = 'atelier'

const wrong = (): ProblemError =>
  invalid({ password: 'This sign-in name and password do not belong together.' })

/**
 * Signs a person in.
 *
 * @param address where the attempt comes from; attempts slow down the name from there, and the address
 * @returns what to seal into the session cookie
 * @throws `invalid` for a wrong name or password (never saying which), `slowDown` after several
 */
export async function signIn(input: SignInInput, address: string): Promise<SessionContent> {
  const { signInName, password } = check(signInSchema, input)
  await countSignIn(signInName, address)
  const person = await people.find({ signInName })
  const right = await isPassword(password, person?.passwordHash ?? null)
  if (!person || !right || person.retiredOn) throw wrong()
  await forgetSignIn(signInName, address)
  return newSession(person.id, person.sessionEpoch)
}

export function newSession(personId: string, epoch: number): SessionContent {
  return { id: uuid(), personId, epoch, startedAt: realNow() }
}

/** Ends one session, on whatever device a copy of its cookie lies. */
export async function endSession(session: Partial<SessionContent>): Promise<void> {
  const { id, personId } = session
  if (!id || !personId || (await actorOfSession(session)) === null) return
  await write(async () => {
    const oldest = new Date(realNow() - sessionDays * 86_400_000).toISOString()
    // A cookie older than that no longer counts by itself.
    await endedSessions.remove({ endedAt: { [Op.lt]: oldest } } as never)
    if (await endedSessions.byId(id)) return
    await endedSessions.insert({ id, personId, endedAt: new Date(realNow()).toISOString() })
  })
}

/** The person behind a session, or null where it has ended, was revoked, or the person has left. */
export async function actorOfSession(session: Partial<SessionContent>): Promise<Actor | null> {
  const { id, personId, startedAt } = session
  if (!id || !personId || startedAt === undefined) return null
  if (realNow() - startedAt > sessionDays * 86_400_000) return null
  // Asked with every request, and written seldom: both are kept.
  const [all, ended] = await Promise.all([people.every(), endedSessions.every()])
  if (ended.some((each) => each.id === id)) return null
  const person = all.find((each) => each.id === personId)
  if (!person || person.retiredOn || person.sessionEpoch !== session.epoch) return null
  return { id: person.id, name: person.name, role: person.role }
}

/** Ends every session of the actor, on every device. */
export async function signOutEverywhere(actor: Actor): Promise<void> {
  await write(async () => {
    await revokeSessions(actor.id)
    await recordChange(actor, {
      entity: 'person',
      entityId: actor.id,
      action: 'signedOut',
      summary: 'Signed out on every device',
    })
  })
}

/** Called inside `write()`. */
export async function revokeSessions(personId: string): Promise<number> {
  const person = await people.byId(personId)
  const sessionEpoch = (person?.sessionEpoch ?? 0) + 1
  await people.update({ id: personId }, { sessionEpoch })
  return sessionEpoch
}

/**
 * A cookie with which this server asks itself for its pages. It is worth a minute and is given to nobody.
 *
 * @returns the cookie, `name=value`; null where nobody is there in whose name to ask
 */
export async function ownCookie(): Promise<string | null> {
  const person = (await people.every()).find((each) => !each.retiredOn && each.role === 'coordinator')
  if (!person) return null
  const session = newSession(person.id, person.sessionEpoch)
  const startedAt = session.startedAt - sessionDays * 86_400_000 + 60_000
  const sealed = await sealData({ ...session, startedAt }, { password: sessionSecret(), ttl: 60 })
  return `${sessionCookie}=${sealed}`
}

/** The secret that seals the cookies: made once, kept beside the database, readable by its owner alone. */
export function sessionSecret(): string {
  const file = path.join(dataFolder(), 'session-secret')
  if (!existsSync(file)) {
    mkdirSync(dataFolder(), { recursive: true, mode: 0o700 })
    writeFileSync(file, randomBytes(48).toString('base64url'), { mode: 0o600, flag: 'wx' })
  }
  return readFileSync(file, 'utf8').trim()
}
