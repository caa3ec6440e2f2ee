import 'server-only'
import type { ComposePage } from '@/core/composing'
import { answersTo } from '@/core/tools'
import type { WearView } from '@/core/wear'
import { pumpModelVersions, settledDoubts } from '@/db/models'
import { tools } from '@/db/tools'
import type { Actor } from '../house'
import { unitFacts } from '../composing'
import { companyPractices } from '../practices'
import { availability, stockedFor } from '@/core/stores'
import { loadBook } from '../stores'
import { listWrenches, toolBookings } from '../tools'
import { renewalRates } from '../wear'

/** Everything that composing on one pump needs: its model, practices, wrenches, special tools, the stores. */
export async function getComposePage(_actor: Actor, wear: WearView): Promise<ComposePage | null> {
  const version = await pumpModelVersions.byId(wear.modelVersionId)
  if (!version) return null
  const [practices, wrenches, book, bookings, register, doubts, facts, rates] = await Promise.all([
    companyPractices(),
    listWrenches(),
    loadBook(),
    toolBookings(),
    tools.all({ retiredOn: null }),
    settledDoubts.all({ modelId: version.modelId }),
    unitFacts(),
    renewalRates(version.modelId, version.data),
  ])
  return {
    modelId: version.modelId,
    modelVersion: version.version,
    model: version.data,
    practices,
    wrenches,
    stock: version.data.parts.flatMap(({ key: part }) => {
      const stocked = stockedFor(book.parts.values(), { modelId: version.modelId, part })
      if (!stocked) return []
      const { free } = availability(book, { part: stocked.id, quantity: 0, day: book.today })
      return [{ part, number: stocked.number, bin: stocked.bin, free }]
    }),
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
    facts: facts.get(wear.assemblyId) ?? {},
    renewals: Object.fromEntries(rates),
    settled: doubts.map(({ words, answer }) => ({ words, answer })),
  }
}
