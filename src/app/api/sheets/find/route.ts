import { findSheets } from '@/services/sheets'
import { respond } from '../../../access/request'

/** What is looked for is a few words, not a page of them. */
const longest = 200

/** Closed sheets by any word on them, by whom, when, what was seen; a portion at a time. */
export async function GET(request: Request): Promise<Response> {
  return respond(request, async (actor) => {
    const asked = new URL(request.url).searchParams
    const text = (name: string) => (asked.get(name) ?? '').slice(0, longest)
    const skip = Number(asked.get('skip') ?? 0)
    const query = {
      words: text('words'),
      person: text('person'),
      month: text('month'),
      damage: text('damage'),
      cause: text('cause'),
      breakdown: asked.has('breakdown'),
    }
    return Response.json(await findSheets(actor, query, Number.isSafeInteger(skip) && skip > 0 ? skip : 0))
  })
}
