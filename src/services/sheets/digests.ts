import 'server-only'
import { digestOf, sheetState, type SheetDigest } from '@/core/sheets'
import { write } from '@/db/house'
import { sheetDigests, sheetEntries, type SheetEntryRow } from '@/db/sheets'
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
    const made = ids.flatMap((id) => {
      const state = sheetState((entries.get(id) ?? []).map(asEntry))
      return state ? [{ id, digest: digestOf(state) }] : []
    })
    await write(async () => {
      await sheetDigests.remove({ id: ids })
      await sheetDigests.insertMany(made)
    })
    for (const { id, digest } of made) found.set(id, digest)
    await breathe()
  }
  return found
}

/** A sheet was composed anew, signed or corrected: what lists tell of it is made again. Inside `write()`. */
export async function forgetDigest(sheetId: string): Promise<void> {
  await sheetDigests.remove({ id: sheetId })
}
