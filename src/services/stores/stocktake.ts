import 'server-only'
import { judgeCount, stocktakeSchema, tidy, type StocktakeInput, type StocktakeLine } from '@/core/stores'
import { check, invalid } from '@/core/problem'
import { write } from '@/db/house'
import { stockLots, stockMovements, type StockMovementRow } from '@/db/stores'
import { recordChange, requirePermission, type Actor } from '../house'
import { shift, isKept } from './moves'
import { requirePlace } from './places'
import { loadStock } from './stock'

/** What lies on the shelves of a place, bin after bin, as a stocktake goes round. */
export async function listToCount(
  _actor: Actor,
  place: string,
): Promise<{ placeId: string; lines: StocktakeLine[] }> {
  const placeId = await requirePlace(place)
  const [stocked, lotRows] = await Promise.all([loadStock(), stockLots.every()])
  const lotOf = new Map(lotRows.map((lot) => [lot.id, lot]))
  const lines = stocked
    .filter(({ row }) => row.retiredOn === null)
    .flatMap(({ row, stock, buckets }) =>
      stock.lots.flatMap((lot): StocktakeLine[] => {
        const bucket = buckets.find(
          (each) => each.lotId === lot.id && each.placeId === placeId && each.state === 'shelf',
        )
        if (!bucket && lot.taken === 0) return []
        if (!bucket && !buckets.some((each) => each.lotId === lot.id)) return []
        const { code, unitCents } = lotOf.get(lot.id)!
        return [
          {
            partId: row.id,
            number: row.number,
            name: row.name,
            unit: row.unit,
            bin: row.bin,
            packSize: row.packSize,
            unitCents: unitCents ?? row.priceCents,
            lotId: lot.id,
            lot: lot.number,
            code,
            expired: lot.expired,
            onHand: bucket?.quantity ?? 0,
            taken: lot.taken,
          },
        ]
      }),
    )
  const bins = new Intl.Collator('en', { numeric: true })
  return {
    placeId,
    lines: lines.sort(
      (a, b) => bins.compare(a.bin || '~', b.bin || '~') || bins.compare(a.number, b.number) || a.lot - b.lot,
    ),
  }
}

/**
 * Sets the book right by a round of counts: all of them, or none where one is not right.
 *
 * @throws `invalid` at `lines.3.counted` for what cannot be, and for what is doubted and nobody is sure of
 */
export async function keepStocktake(
  actor: Actor,
  input: StocktakeInput,
): Promise<{ counted: number; changed: number; cents: number }> {
  requirePermission(actor, 'stores.count')
  const round = check(stocktakeSchema, input)
  return write(async () => {
    const counted = round.lines.filter((line) => line.counted !== null)
    if (await isKept(round.id)) return { counted: counted.length, changed: 0, cents: 0 }
    const { placeId, lines } = await listToCount(actor, round.placeId)
    const byLot = new Map(lines.map((line) => [line.lotId, line]))
    const stocked = new Map(
      (await loadStock([...new Set(counted.map(({ partId }) => partId))])).map((each) => [each.row.id, each]),
    )
    if (counted.length === 0) throw invalid({ lines: 'Enter what is there for at least one bin.' })
    const faults: Record<string, string> = {}
    const rows: StockMovementRow[] = []
    const changes = new Map<string, { number: string; name: string; difference: number }>()
    let cents = 0
    let changed = 0
    const seen = new Set<string>()
    for (const [at, line] of round.lines.entries()) {
      if (line.counted === null) continue
      const field = `lines.${at}.counted`
      const known = stocked.get(line.partId)
      const lot = known?.stock.lots.find((each) => each.id === line.lotId)
      if (!known || !lot) {
        faults[field] = 'This lot is not of this part.'
        continue
      }
      if (seen.has(line.lotId)) faults[field] = 'This lot stands in the round twice.'
      seen.add(line.lotId)
      const onHand = byLot.get(line.lotId)?.onHand ?? 0
      const unitCents = byLot.get(line.lotId)?.unitCents ?? known.row.priceCents
      const verdict = judgeCount(line.counted, {
        unit: known.row.unit,
        packSize: known.row.packSize,
        onHand,
        unitCents,
      })
      if (verdict.state === 'fault') faults[field] = verdict.words
      if (verdict.state === 'doubted' && !line.sure) faults[field] = verdict.words
      const difference = tidy(line.counted - onHand)
      // A bin that was found as the book says was counted all the same: what left it before is known by that.
      rows.push(
        ...shift(
          actor,
          { id: round.id, index: rows.length, partId: line.partId, kind: 'count', reason: round.reason },
          difference,
          null,
          { lotId: line.lotId, placeId, state: 'shelf', visitId: null },
        ),
      )
      if (difference === 0) continue
      changed += 1
      cents += Math.round(difference * unitCents)
      const { number, name } = known.row
      const before = changes.get(line.partId)?.difference ?? 0
      changes.set(line.partId, { number, name, difference: tidy(before + difference) })
    }
    if (Object.keys(faults).length > 0) throw invalid(faults)
    await stockMovements.insertMany(rows)
    for (const [partId, { number, name, difference }] of changes)
      await recordChange(actor, {
        entity: 'part',
        entityId: partId,
        action: 'counted',
        summary: `${number} ${name} counted: ${difference > 0 ? '+' : ''}${difference} against the book`,
        reason: round.reason,
      })
    return { counted: counted.length, changed, cents }
  })
}
