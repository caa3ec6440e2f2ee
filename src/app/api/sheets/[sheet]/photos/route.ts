import { largestDocument } from '@/core/fleet'
import { invalid } from '@/core/problem'
import { addSheetPhoto } from '@/services/sheetPhotos'
import { respond } from '../../../../access/request'

/** Keeps one photo with a sheet: its bytes are the body, its id and name stand in the address. */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ sheet: string }> },
): Promise<Response> {
  return respond(request, async (actor) => {
    const { sheet } = await params
    const asked = new URL(request.url).searchParams
    const name = asked.get('name') ?? ''
    if (Number(request.headers.get('content-length')) > largestDocument)
      throw invalid({ file: `“${name}” is larger than ${largestDocument / 1e6} MB.` })
    const bytes = new Uint8Array(await request.arrayBuffer())
    const authorId = asked.get('author') ?? undefined
    await addSheetPhoto(actor, sheet, { id: asked.get('id') ?? '', name, authorId }, bytes)
    return Response.json({ ok: true })
  })
}
