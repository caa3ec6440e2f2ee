import { exportParts } from '@/services/interchange'
import { formatOf, handOut, respond } from '../../access/request'

/** The parts list with what is on hand, as CSV or JSON. */
export async function GET(request: Request): Promise<Response> {
  return respond(request, async (actor) => handOut(await exportParts(actor, formatOf(request))))
}
