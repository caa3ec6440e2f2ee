import { createReadStream } from 'node:fs'
import { Readable } from 'node:stream'
import { backupFile } from '@/services/backups'
import { respond } from '../../../access/request'

/** Hands out one archive of the whole company, to coordinators alone. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ name: string }> },
): Promise<Response> {
  return respond(request, async (actor) => {
    const { name } = await params
    const { file, bytes } = await backupFile(actor, name)
    return new Response(Readable.toWeb(createReadStream(file)) as ReadableStream, {
      headers: {
        'content-type': 'application/gzip',
        'content-length': String(bytes),
        'content-disposition': `attachment; filename="${name}"`,
      },
    })
  })
}
