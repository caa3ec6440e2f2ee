import 'server-only'
import { getIronSession, unsealData } from 'iron-session'
import { cookies, headers } from 'next/headers'
import { redirect } from 'next/navigation'
import { cache } from 'react'
import { ownTurn } from './turn'
import { type Actor, connectionHeader } from '@/services/house'
import {
  actorOfSession,
  endSession,
  sessionCookie,
  sessionDays,
  sessionSecret,
  type SessionContent,
  needsSetUp,
} from '@/services/access'

const sealing = () => ({ password: sessionSecret(), ttl: sessionDays * 86_400 })

/** The sealed cookie of this request. Secure where the request came over https; many yards have none. */
async function session() {
  const secure = (await headers()).get('x-forwarded-proto') === 'https'
  return getIronSession<Partial<SessionContent>>(await cookies(), {
    ...sealing(),
    cookieName: sessionCookie,
    cookieOptions: { httpOnly: true, sameSite: 'strict', secure, path: '/' },
  })
}

export async function openSession(content: SessionContent): Promise<void> {
  const open = await session()
  Object.assign(open, content)
  await open.save()
}

/** Keeps this session going after the person's others were revoked. */
export async function renewSession(epoch: number): Promise<void> {
  const open = await session()
  open.epoch = epoch
  await open.save()
}

export async function closeSession(): Promise<void> {
  const open = await session()
  await endSession({ ...open })
  open.destroy()
}

/** What cookies hold that were opened before, by the secret and the cookie; the latest last. */
const opened = new Map<string, Partial<SessionContent>>()
const mostOpened = 500

/** What the cookie of this request holds. Opening one takes four goes of the crypto, and is asked with everything. */
async function contentOfCookie(): Promise<Partial<SessionContent>> {
  // The first who asks has the secret made, whether they have a cookie or not.
  const options = sealing()
  const sealed = (await cookies()).get(sessionCookie)?.value
  if (!sealed) return {}
  const name = `${options.password} ${sealed}`
  // What it holds stays; whether that still counts is looked at each time.
  const content = opened.get(name) ?? (await unsealData<Partial<SessionContent>>(sealed, options))
  // What is no seal of ours holds nothing: anybody may send any number of those.
  if (!content.id) return {}
  opened.delete(name)
  opened.set(name, content)
  if (opened.size > mostOpened) opened.delete(opened.keys().next().value!)
  return content
}

/** Who is signed in, looked up once a request. */
export const currentActor = cache(async (): Promise<Actor | null> => actorOfSession(await contentOfCookie()))

/** Who is signed in; otherwise leads to signing in, and back to `path` afterwards. */
export async function requireActor(path?: string): Promise<Actor> {
  const actor = await currentActor()
  if (actor) {
    await ownTurn()
    return actor
  }
  if (await needsSetUp()) redirect('/setup')
  redirect(path ? `/sign-in?next=${encodeURIComponent(path)}` : '/sign-in')
}

/**
 * Where a request comes from, for slowing down attempts: the other end of its connection. What a header
 * says can be made up by anybody, so it counts only as many proxies deep as `ATELIER_TRUST_PROXY` says.
 */
export async function addressOfRequest(): Promise<string> {
  const asked = await headers()
  const trusted = Number(process.env.ATELIER_TRUST_PROXY ?? 0)
  const said = (asked.get('x-forwarded-for') ?? '').split(',').map((each) => each.trim())
  const behind = trusted > 0 ? said.at(-trusted) : undefined
  return behind || (asked.get(connectionHeader) ?? 'local')
}
