import 'server-only'
import { ownCookie } from '../access'

/** The way in, and the pages that are asked for most: the first twice, since it is the first of every morning. */
const pages = [
  ...['/sign-in', '/today', '/today', '/fleet', '/hours', '/plan', '/plan/horizon'],
  ...['/sheets', '/stores', '/winter', '/models', '/fleet/pumps', '/today', '/sign-in'],
]

/**
 * Asks this server for its own main pages once, so that their code is read, what they tell is worked out and
 * drawing has been practised before somebody waits for the first of them. It asks as whoever plans here;
 * where that does not work nothing is lost.
 *
 * @param port the server listens on
 */
export async function warm(port: string): Promise<void> {
  const cookie = await ownCookie().catch(() => null)
  for (const page of pages) {
    const answer = await fetch(`http://localhost:${port}${page}`, {
      redirect: 'manual',
      headers: cookie ? { cookie } : {},
      signal: AbortSignal.timeout(10_000),
    }).catch(() => null)
    if (!answer) return
    await answer.text().catch(() => '')
  }
}
