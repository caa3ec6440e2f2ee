import 'server-only'
import { getIronSession } from 'iron-session'
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

/** The sealed cookie of this request. Secure where the request came over https; many yards have none. */
async function session() {
  const secure = (await headers()).get('x-forwarded-proto') === 'https'
  return getIronSession<Partial<SessionContent>>(await cookies(), {
    cookieName: sessionCookie,
    password: sessionSecret(),
    ttl: sessionDays * 86_400,
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

/** Who is signed in, looked up once a request. */
export const currentActor = cache(async (): Promise<Actor | null> => actorOfSession(await session()))

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
