import 'server-only'
import { sheetState, type SheetState } from '@/core/sheets'
import { keptEach } from '@/db/house'
import { sheetEntries } from '@/db/sheets'
import { breathe, groupBy } from '../house'
import { asEntry } from './rows'

/** So many sheets are read at a time: what each was composed into is long. */
const atOnce = 20

/**
 * What some sheets tell, each read and folded when it is first asked for and kept until something more comes onto
 * it: a pump has more sheets every year, and of most of them nothing ever changes.
 *
 * @param name of what is told
 * @param tell from what stands on one sheet alone
 */
export function toldBySheets<T>(
  name: string,
  sheetIds: string[],
  tell: (state: SheetState) => T,
): Promise<Map<string, T>> {
  return keptEach(`${name} of sheets`, sheetIds, ['sheet_entries'], async (ids) => {
    const told = new Map<string, T>()
    for (let from = 0; from < ids.length; from += atOnce) {
      const some = ids.slice(from, from + atOnce)
      const rows = await sheetEntries.all({ sheetId: some }, [['sequence', 'ASC']])
      for (const [id, own] of groupBy(rows, (row) => row.sheetId)) {
        const state = sheetState(own.map(asEntry))
        if (state) told.set(id, tell(state))
        await breathe()
      }
    }
    return told
  })
}
