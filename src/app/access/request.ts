import 'server-only'
import { problemOf, type Problem } from '@/core/problem'
import type { Actor } from '@/services/actor'
import type { Download, Format } from '@/services/exports'
import { currentActor } from './session'

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
    const actor = await currentActor()
    if (!actor) return refuse(401, 'You have been signed out. Sign in again; nothing you entered is lost.')
    return await work(actor)
  } catch (error) {
    const problem = problemOf(error)
    if (problem) return Response.json({ problem }, { status: statusOf[problem.kind] })
    process.stderr.write(`${error instanceof Error ? error.stack : String(error)}\n`)
    return refuse(500, 'Something went wrong on our side.')
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
