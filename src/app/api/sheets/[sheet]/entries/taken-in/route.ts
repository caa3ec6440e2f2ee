import { takeInEntries } from '@/services/sheets'
import { readJson, respond } from '../../../../../access/request'

/** Takes in, for authors who cannot send them any more, what waits on a device: `{entries, why}`. */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ sheet: string }> },
): Promise<Response> {
  return respond(request, async (actor) => {
    const { sheet } = await params
    const { entries, why } = ((await readJson(request)) ?? {}) as Record<string, unknown>
    return Response.json(await takeInEntries(actor, sheet, entries, why, request.headers.get('x-sent-at')))
  })
}
