import 'server-only'
import { invalid, problemOf, type Problem } from '@/core/problem'
import type { Actor } from '@/services/house'
import type { Download, Format } from '@/services/interchange'
import { currentActor } from './session'
import { aheadOfPages } from './turn'
import { unforeseenWords } from './unforeseen'

/** The HTTP status that says the same as a problem's kind. */
const statusOf: Record<Problem['kind'], number> = {
  invalid: 422,
  notFound: 404,
  conflict: 409,
  notAllowed: 403,
  slowDown: 429,
}

/**
 * Answers a request to a route handler for whoever is signed in. What changes something must come from
 * a page of ours: route handlers check the Origin themselves.
 */
export async function respond(
  request: Request,
  work: (actor: Actor) => Promise<Response>,
): Promise<Response> {
  try {
    if (request.method !== 'GET' && !isOurs(request))
      return refuse(403, 'This request did not come from a page of Atelier.')
    const response = await (request.method === 'GET' ? answer(work) : aheadOfPages(() => answer(work)))
    // What somebody may see is kept by no cache between us and them.
    if (!response.headers.has('cache-control')) response.headers.set('cache-control', 'no-store')
    return response
  } catch (error) {
    const problem = problemOf(error)
    if (problem) return Response.json({ problem }, { status: statusOf[problem.kind] })
    return refuse(500, unforeseenWords(error))
  }
}

async function answer(work: (actor: Actor) => Promise<Response>): Promise<Response> {
  const actor = await currentActor()
  return actor
    ? work(actor)
    : refuse(401, 'You have been signed out. Sign in again; nothing you entered is lost.')
}

/** The most text that a list of entries, or any other JSON, may have. */
const mostJson = 2_000_000

/**
 * A request's body, read only as far as it may go: what is larger is let go at that point, whatever its
 * headers said of its length.
 *
 * @throws `invalid` with `words` for what is larger
 */
export async function readLimited(request: Request, most: number, words: string): Promise<Uint8Array> {
  const tooLarge = () => invalid({ file: words })
  if (Number(request.headers.get('content-length')) > most) throw tooLarge()
  const reader = request.body?.getReader()
  if (!reader) return new Uint8Array()
  const pieces: Uint8Array[] = []
  let length = 0
  for (;;) {
    const { done, value } = await reader.read()
    if (done) return new Uint8Array(Buffer.concat(pieces))
    length += value.length
    if (length > most) {
      await reader.cancel().catch(() => undefined)
      throw tooLarge()
    }
    pieces.push(value)
  }
}

/** A request's JSON, or null where it is none. @throws `invalid` for what is too large */
export async function readJson(request: Request): Promise<unknown> {
  const bytes = await readLimited(request, mostJson, 'This is too much at once: send it in portions.')
  try {
    return JSON.parse(new TextDecoder().decode(bytes)) as unknown
  } catch {
    return null
  }
}

function refuse(status: number, message: string): Response {
  return Response.json({ problem: { kind: 'notAllowed', message } }, { status })
}

function isOurs(request: Request): boolean {
  const origin = request.headers.get('origin')
  const host = request.headers.get('x-forwarded-host') ?? request.headers.get('host')
  if (!origin || !host) return false
  try {
    return new URL(origin).host === host
  } catch {
    return false
  }
}

export function formatOf(request: Request): Format {
  return new URL(request.url).searchParams.get('format') === 'json' ? 'json' : 'csv'
}

export function handOut({ name, type, text }: Download): Response {
  return new Response(text, {
    headers: { 'content-type': type, 'content-disposition': `attachment; filename="${name}"` },
  })
}
