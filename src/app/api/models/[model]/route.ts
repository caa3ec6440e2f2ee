import { exportPumpModel } from '@/services/models'
import { respond } from '../../../access/request'

/** A model's data as it can be read in again, by version; the newest where none is named. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ model: string }> },
): Promise<Response> {
  return respond(request, async (actor) => {
    const { model } = await params
    const asked = Number(new URL(request.url).searchParams.get('version'))
    const { name, data } = await exportPumpModel(actor, model, asked > 0 ? asked : undefined)
    return new Response(JSON.stringify(data, null, 2), {
      headers: {
        'content-type': 'application/json; charset=utf-8',
        'content-disposition': `attachment; filename="${name}"`,
      },
    })
  })
}
