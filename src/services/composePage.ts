import 'server-only'
import type { ComposePage } from '@/core/procedure/views'
import { answersTo } from '@/core/tools'
import type { WearView } from '@/core/wear/views'
import { pumpModelVersions, settledDoubts } from '@/db/pumpModels'
import { tools } from '@/db/tools'
import type { Actor } from './actor'
import { companyPractices } from './practices'
import { listBenchParts } from './stores'
import { listWrenches, toolBookings } from './tools'

/** Everything that composing on one pump needs: its model, practices, wrenches, special tools, the stores. */
export async function getComposePage(actor: Actor, wear: WearView): Promise<ComposePage | null> {
  const version = await pumpModelVersions.byId(wear.modelVersionId)
  if (!version) return null
  const [practices, wrenches, parts, bookings, register, doubts] = await Promise.all([
    companyPractices(),
    listWrenches(),
    listBenchParts(actor),
    toolBookings(),
    tools.all({ retiredOn: null }),
    settledDoubts.all({ modelId: version.modelId }),
  ])
  return {
    modelId: version.modelId,
    modelVersion: version.version,
    model: version.data,
    practices,
    wrenches,
    stock: parts.flatMap((part) =>
      part.fits
        .filter((fit) => fit.modelId === version.modelId)
        .map((fit) => ({ part: fit.part, number: part.number, bin: part.bin, onHand: part.onHand })),
    ),
    specialTools: register
      .filter((tool) => version.data.tools.some(({ name }) => answersTo(tool, name)))
      .map((tool) => ({
        number: tool.number,
        name: tool.name,
        serves: tool.serves,
        count: tool.count,
        place: tool.place,
        taken: bookings
          .filter((booking) => booking.tools.some((name) => answersTo(tool, name)))
          .map(({ number, day, yard }) => ({ number, day, yard })),
      })),
    settled: doubts.map(({ words, answer }) => ({ words, answer })),
  }
}
