import { largestDocument } from '@/core/fleet'
import { addSheetPhoto } from '@/services/sheets'
import { readLimited, respond } from '../../../../access/request'

/** Keeps one photo with a sheet: its bytes are the body, its id and name stand in the address. */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ sheet: string }> },
): Promise<Response> {
  return respond(request, async (actor) => {
    const { sheet } = await params
    const asked = new URL(request.url).searchParams
    const name = asked.get('name') ?? ''
    const words = `“${name.slice(0, 120)}” is larger than ${largestDocument / 1e6} MB.`
    // Read only once this person may, and no further than a photo goes.
    const bytes = () => readLimited(request, largestDocument, words)
    const authorId = asked.get('author') ?? undefined
    await addSheetPhoto(actor, sheet, { id: asked.get('id') ?? '', name, authorId }, bytes)
    return Response.json({ ok: true })
  })
}
