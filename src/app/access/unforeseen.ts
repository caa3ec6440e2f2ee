import 'server-only'

type Cause = { code?: string; message?: string; sql?: string; parent?: Cause; cause?: Cause }

/**
 * What nobody foresaw: logged with what caused it, and told in one plain sentence. A full disk is told as
 * what it is, since whoever reads it can do something about it.
 */
export function unforeseenWords(error: unknown): string {
  const stack = error instanceof Error ? error.stack : String(error)
  const { parent, cause, sql } = (error ?? {}) as Cause
  const under = [parent?.message, parent?.code, cause?.message, sql].filter(Boolean).join('\n  ')
  process.stderr.write(`${stack}${under ? `\n  caused by: ${under}` : ''}\n`)
  return isFull(error as Cause)
    ? 'The disk that keeps Atelier’s data is full. Nothing was saved; what you typed is still here. Make room on it, or tell whoever looks after the server.'
    : 'Something went wrong on our side. Nothing was saved; what you typed is still here.'
}

function isFull(error: Cause | undefined, depth = 0): boolean {
  if (!error || depth > 4) return false
  if (
    error.code === 'ENOSPC' ||
    error.code === 'SQLITE_FULL' ||
    /SQLITE_FULL|disk is full/.test(error.message ?? '')
  )
    return true
  return isFull(error.parent, depth + 1) || isFull(error.cause, depth + 1)
}
