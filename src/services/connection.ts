import 'server-only'
import { EventEmitter } from 'node:events'
import { Server, type IncomingMessage } from 'node:http'

/** Under this name a request carries the address of the other end of its connection, set by us alone. */
export const connectionHeader = 'x-atelier-connection'

/**
 * Makes every request of this process carry where it really comes from. Next hands pages no socket, and
 * whatever a client writes into a header of that name is overwritten.
 */
export function tellConnections(): void {
  const marked = Symbol.for('atelier.connections')
  const prototype = Server.prototype as Server & Record<symbol, true>
  if (prototype[marked]) return
  prototype[marked] = true
  prototype.emit = function emit(this: Server, event: string, ...rest: unknown[]): boolean {
    if (event === 'request') {
      const request = rest[0] as IncomingMessage
      request.headers[connectionHeader] = request.socket.remoteAddress ?? 'unknown'
    }
    return EventEmitter.prototype.emit.call(this, event, ...rest)
  } as Server['emit']
}
