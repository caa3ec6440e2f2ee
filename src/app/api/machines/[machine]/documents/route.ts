import { largestDocument } from '@/core/fleet'
import { addDocument } from '@/services/fleet'
import { readLimited, respond } from '../../../../access/request'

/** Keeps one file with a machine: its bytes are the body, its id and name stand in the address. */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ machine: string }> },
): Promise<Response> {
  return respond(request, async (actor) => {
    const { machine } = await params
    const asked = new URL(request.url).searchParams
    const name = asked.get('name') ?? ''
    const words = `“${name.slice(0, 120)}” is larger than ${largestDocument / 1e6} MB.`
    // Read only once this person may, and no further: nobody waits for a film to arrive.
    const bytes = () => readLimited(request, largestDocument, words)
    await addDocument(actor, { id: asked.get('id') ?? '', machineId: machine, name }, bytes)
    return Response.json({ ok: true })
  })
}
