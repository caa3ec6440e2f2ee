import { largestDocument } from '@/core/fleet'
import { invalid } from '@/core/problem'
import { addDocument } from '@/services/documents'
import { respond } from '../../../../access/request'

/** Keeps one file with a machine: its bytes are the body, its id and name stand in the address. */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ machine: string }> },
): Promise<Response> {
  return respond(request, async (actor) => {
    const { machine } = await params
    const asked = new URL(request.url).searchParams
    const name = asked.get('name') ?? ''
    // Refused before it is read: nobody waits for a film to arrive.
    if (Number(request.headers.get('content-length')) > largestDocument)
      throw invalid({ file: `“${name}” is larger than ${largestDocument / 1e6} MB.` })
    const bytes = new Uint8Array(await request.arrayBuffer())
    await addDocument(actor, { id: asked.get('id') ?? '', machineId: machine, name }, bytes)
    return Response.json({ ok: true })
  })
}
