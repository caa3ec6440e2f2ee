import 'server-only'
import { setTimeout as passes } from 'node:timers/promises'
import { ownCookie } from '../access'
import { requestsSoFar } from '../house'

/** The way in and the first page of every morning, drawn until it is quick. */
const first = ['/sign-in', '/today', '/today', '/today']
/** Asked for in quiet moments. */
const others = [
  ...['/fleet', '/hours', '/plan', '/plan/horizon', '/sheets', '/stores'],
  ...['/winter', '/models', '/fleet/pumps'],
]
/** A moment is quiet when nobody has asked for anything for so long, in milliseconds. */
const quietMs = 1500

/**
 * Asks this server for its own main pages once, so that their code is read, what they tell is worked out and
 * drawing has been practised before somebody waits for the first of them. It asks as whoever plans here and
 * stands in nobody's way; where that does not work nothing is lost.
 *
 * @param port the server listens on
 */
export async function warm(port: string): Promise<void> {
  const cookie = await ownCookie().catch(() => null)
  for (const page of first) if (!(await isAnswered(port, page, cookie))) return
  for (const page of others) {
    await quiet()
    if (!(await isAnswered(port, page, cookie))) return
  }
}

async function isAnswered(port: string, page: string, cookie: string | null): Promise<boolean> {
  try {
    const answer = await fetch(`http://localhost:${port}${page}`, {
      redirect: 'manual',
      headers: cookie ? { cookie } : {},
      signal: AbortSignal.timeout(10_000),
    })
    await answer.text()
    return true
  } catch {
    return false
  }
}

async function quiet(): Promise<void> {
  for (let before = -1; before !== requestsSoFar();) {
    before = requestsSoFar()
    await passes(quietMs, undefined, { ref: false })
  }
}
