import { offersOn } from '@/services/sheets'
import { respond } from '../../../../access/request'

/** What could be done besides on an open sheet. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ sheet: string }> },
): Promise<Response> {
  return respond(request, async (actor) => Response.json(await offersOn(actor, (await params).sheet)))
}
