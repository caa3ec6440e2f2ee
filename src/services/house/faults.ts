import 'server-only'

type Cause = { code?: string; message?: string; sql?: string; parent?: Cause; cause?: Cause }

/** Logs what nobody foresaw, with what caused it. */
export function logFault(error: unknown): void {
  const stack = error instanceof Error ? error.stack : String(error)
  const { parent, cause, sql } = (error ?? {}) as Cause
  const under = [parent?.message, parent?.code, cause?.message, sql].filter(Boolean).join('\n  ')
  process.stderr.write(`${stack}${under ? `\n  caused by: ${under}` : ''}\n`)
}

/** Whether the disk that keeps the data had no room, by whatever the fault was wrapped in. */
export function isDiskFull(error: unknown, depth = 0): boolean {
  const { code, message, parent, cause } = (error ?? {}) as Cause
  if (!error || depth > 4) return false
  if (code === 'ENOSPC' || code === 'SQLITE_FULL' || /SQLITE_FULL|disk is full/.test(message ?? ''))
    return true
  return isDiskFull(parent, depth + 1) || isDiskFull(cause, depth + 1)
}
