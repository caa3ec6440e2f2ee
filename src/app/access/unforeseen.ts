import 'server-only'
import { isDiskFull, logFault } from '@/services/house'

/**
 * What nobody foresaw: logged with what caused it, and told in one plain sentence. A full disk is told as
 * what it is, since whoever reads it can do something about it.
 */
export function unforeseenWords(error: unknown): string {
  logFault(error)
  return isDiskFull(error)
    ? 'The disk that keeps Atelier’s data is full. Nothing was saved; what you typed is still here. Make room on it, or tell whoever looks after the server.'
    : 'Something went wrong on our side. Nothing was saved; what you typed is still here.'
}
