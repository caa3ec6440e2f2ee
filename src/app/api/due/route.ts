import { exportDue } from '@/services/plan'
import { formatOf, handOut, respond } from '../../access/request'

/** The due list of a yard or of all, as CSV or JSON. */
export async function GET(request: Request): Promise<Response> {
  const yard = new URL(request.url).searchParams.get('yard') || undefined
  return respond(request, async (actor) => handOut(await exportDue(actor, formatOf(request), yard)))
}
