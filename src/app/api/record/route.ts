import { notFound } from '@/core/problem'
import { exportRecord } from '@/services/interchange'
import { formatOf, handOut, respond } from '../../access/request'

/** The service record of a sheet, a machine or a pump, as CSV or JSON. */
export async function GET(request: Request): Promise<Response> {
  return respond(request, async (actor) => {
    const asked = new URL(request.url).searchParams
    const [sheet, machine, pump] = ['sheet', 'machine', 'pump'].map((name) => asked.get(name))
    const subject = sheet ? { sheet } : machine ? { machine } : pump ? { pump } : null
    if (!subject) throw notFound('A record without a sheet, machine or pump')
    return handOut(await exportRecord(actor, subject, formatOf(request)))
  })
}
