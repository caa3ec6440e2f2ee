import { exportOrder } from '@/services/interchange'
import { respond } from '../../../access/request'

/** An order as it goes to the supplier: CSV, or a spreadsheet. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ order: string }> },
): Promise<Response> {
  const { order } = await params
  const format = new URL(request.url).searchParams.get('format') === 'xlsx' ? 'xlsx' : 'csv'
  return respond(request, async (actor) => {
    const file = await exportOrder(actor, order, format)
    return new Response(new Uint8Array(file.body), {
      headers: {
        'content-type': file.type,
        'content-disposition': `attachment; filename="${file.name}"`,
        'x-content-type-options': 'nosniff',
      },
    })
  })
}
