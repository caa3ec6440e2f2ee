import { pumpModelJsonSchema } from '@/core/models'
import { respond } from '../../../access/request'

/** The JSON Schema of a pump model, for editors that check while somebody writes. */
export async function GET(request: Request): Promise<Response> {
  return respond(request, () => Promise.resolve(Response.json(pumpModelJsonSchema())))
}
