import { appendEntries, entriesSince } from '@/services/sheets'
import { readJson, respond } from '../../../../access/request'

type Context = { params: Promise<{ sheet: string }> }

/** Takes in what a tablet wrote on a sheet; answers with what it has not seen. */
export async function POST(request: Request, { params }: Context): Promise<Response> {
  return respond(request, async (actor) => {
    const { sheet } = await params
    const sent = await readJson(request)
    return Response.json(await appendEntries(actor, sheet, sent, request.headers.get('x-sent-at')))
  })
}

/** What has come in since `after`. */
export async function GET(request: Request, { params }: Context): Promise<Response> {
  return respond(request, async (actor) => {
    const { sheet } = await params
    const after = Number(new URL(request.url).searchParams.get('after') ?? 0)
    return Response.json(await entriesSince(actor, sheet, Number.isSafeInteger(after) ? after : 0))
  })
}
