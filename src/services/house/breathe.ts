import 'server-only'

/** For so long one piece of work may hold everybody else up, in milliseconds. */
const atAStretch = 12
let since = performance.now()

/** Called again and again in long work: lets whatever waits go first, once it has waited long enough. */
export async function breathe(): Promise<void> {
  if (performance.now() - since < atAStretch) return
  await new Promise((resolve) => setImmediate(resolve))
  since = performance.now()
}
