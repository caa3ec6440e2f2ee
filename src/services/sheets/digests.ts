import 'server-only'
import { digestOf, sheetState, type SheetDigest } from '@/core/sheets'
import { write } from '@/db/house'
import { lastEntries, sheetDigests, sheetEntries, undigestedSheets, type SheetEntryRow } from '@/db/sheets'
import { breathe, groupBy } from '../house'
import { asEntry } from './rows'

/** So many sheets are read and folded at a time. */
const atOnce = 20

/** What lists tell of some sheets; those that have no digest yet get one. */
export async function digestsOf(sheetIds: string[]): Promise<Map<string, SheetDigest>> {
  const found = new Map((await sheetDigests.all({ id: sheetIds })).map((row) => [row.id, row.digest]))
  const missing = sheetIds.filter((id) => !found.has(id))
  for (let from = 0; from < missing.length; from += atOnce) {
    const ids = missing.slice(from, from + atOnce)
    const entries = groupBy(
      await sheetEntries.all({ sheetId: ids }, [['sequence', 'ASC']]),
      (row: SheetEntryRow) => row.sheetId,
    )
    const made: { id: string; digest: SheetDigest }[] = []
    for (const id of ids) {
      const state = sheetState((entries.get(id) ?? []).map(asEntry))
      if (state) made.push({ id, digest: digestOf(state) })
      await breathe()
    }
    await write(async () => {
      // Something may have come in meanwhile: then it is made again when it is asked for next.
      const newest = new Map((await lastEntries(ids)).map((row) => [row.sheetId, row.sequence]))
      const still = made.filter(({ id }) => newest.get(id) === entries.get(id)!.at(-1)!.sequence)
      await sheetDigests.remove({ id: ids })
      await sheetDigests.insertMany(still)
    })
    for (const { id, digest } of made) found.set(id, digest)
  }
  return found
}

/** Makes what is told of closed sheets before somebody looks for them. */
export async function prepareDigests(): Promise<void> {
  const missing = await undigestedSheets()
  if (missing.length > 0) await digestsOf(missing)
}

/** A sheet was composed anew, signed or corrected: what lists tell of it is made again. Inside `write()`. */
export async function forgetDigest(sheetId: string): Promise<void> {
  await sheetDigests.remove({ id: sheetId })
}
