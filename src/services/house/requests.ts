import 'server-only'
import { subscribe } from 'node:diagnostics_channel'
import type { IncomingMessage } from 'node:http'

/** Under this name a request carries the address of the other end of its connection, set by us alone. */
export const connectionHeader = 'x-atelier-connection'

/**
 * Prepares every request of this process before Next sees it:
 *
 * - it carries where it really comes from, since Next hands pages no socket; whatever a client writes
 *   into a header of that name is overwritten;
 * - an address that is no text at all ("%E0%A4%A") becomes one that does not exist: Next fails on it
 *   before any code of ours is reached, and answers with a fault of the server's.
 */
export function prepareRequests(): void {
  subscribe('http.server.request.start', (message) => {
    const { request } = message as { request: IncomingMessage }
    asked += 1
    request.headers[connectionHeader] = request.socket.remoteAddress ?? 'unknown'
    if (!isText(request.url?.split('?')[0] ?? '/')) request.url = '/malformed'
  })
}

let asked = 0
/** How many requests have come to this process since it was prepared. */
export const requestsSoFar = (): number => asked

function isText(address: string): boolean {
  try {
    decodeURIComponent(address)
    return true
  } catch {
    return false
  }
}
