import { readSheetPhoto } from '@/services/sheets'
import { respond } from '../../../access/request'

/** A photo taken at the bench. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ photo: string }> },
): Promise<Response> {
  return respond(request, async (actor) => {
    const { name, bytes } = await readSheetPhoto(actor, (await params).photo)
    return new Response(new Uint8Array(bytes), {
      headers: {
        'content-type': 'image/jpeg',
        'content-disposition': `inline; filename*=UTF-8''${encodeURIComponent(name)}`,
        'cache-control': 'private, max-age=86400',
        'content-security-policy': "default-src 'none'; sandbox",
      },
    })
  })
}
