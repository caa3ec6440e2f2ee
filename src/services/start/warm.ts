import 'server-only'

/** Pages that are asked for most. Nobody is signed in here: each answers with the way to the sign-in page. */
const pages = [
  '/sign-in',
  '/today',
  '/fleet',
  '/fleet/-',
  '/hours',
  '/plan',
  '/sheets',
  '/stores',
  '/sign-in',
]

/**
 * Asks this server for its own main pages once, so that their code is read and drawing has been practised
 * before somebody waits for the first of them. Where that does not work nothing is lost.
 *
 * @param port the server listens on
 */
export async function warm(port: string): Promise<void> {
  for (const page of pages) {
    const answer = await fetch(`http://localhost:${port}${page}`, {
      redirect: 'manual',
      signal: AbortSignal.timeout(10_000),
    }).catch(() => null)
    if (!answer) return
    await answer.text().catch(() => '')
  }
}
