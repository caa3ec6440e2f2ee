import { readDocument } from '@/services/fleet'
import { respond } from '../../../access/request'

/** A photo or document of a machine. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ document: string }> },
): Promise<Response> {
  return respond(request, async (actor) => {
    const { name, type, bytes } = await readDocument(actor, (await params).document)
    return new Response(new Uint8Array(bytes), {
      headers: {
        'content-type': type,
        'content-disposition': `inline; filename*=UTF-8''${encodeURIComponent(name)}`,
        'cache-control': 'private, max-age=86400',
        'content-security-policy': "default-src 'none'; sandbox",
      },
    })
  })
}
