import { exportWinter } from '@/services/interchange'
import { formatOf, handOut, respond } from '../../access/request'

/** The season report, as CSV or JSON. */
export async function GET(request: Request): Promise<Response> {
  return respond(request, async (actor) => handOut(await exportWinter(actor, formatOf(request))))
}
