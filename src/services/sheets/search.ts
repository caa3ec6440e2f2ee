import 'server-only'
import { visitNumber } from '@/core/plan'
import { anySheet, isLookedFor, type FoundBy, type SheetLine, type SheetQuery } from '@/core/sheets'
import { machines } from '@/db/fleet'
import { sheets, type SheetRow } from '@/db/sheets'
import { dayOf, ourCompany, type Actor } from '../house'
import { digestsOf } from './digests'
import { asLines } from './sheets'

/** Every open sheet, and the newest closed ones. */
export async function listSheets(actor: Actor): Promise<{ open: SheetLine[]; closed: FoundSheets }> {
  const [open, closed] = await Promise.all([
    sheets.all({ state: 'open' }, [['startedAt', 'DESC']]),
    findSheets(actor, anySheet, 0),
  ])
  return { open: await asLines(open), closed }
}

/** So many sheets come at a time; the next portion when somebody has scrolled there. */
const portion = 100

/** Closed sheets that somebody looks for, newest first. */
export type FoundSheets = {
  lines: SheetLine[]
  /** How many there are in all. */
  total: number
}

/**
 * Looks for closed sheets: by any word on them and by whom, when, what was seen and what it points to.
 *
 * @param skip how many of them are known already
 */
export async function findSheets(_actor: Actor, query: SheetQuery, skip: number): Promise<FoundSheets> {
  const { rows, found } = await closedSheets()
  const matching = rows.filter((row) => isLookedFor(found.get(row.id)!, query))
  return { lines: await asLines(matching.slice(skip, skip + portion)), total: matching.length }
}

/** What closed sheets can be narrowed to: who worked them, in which months, what was seen and points to what. */
export async function sheetChoices(
  _actor: Actor,
): Promise<{ people: string[]; months: string[]; damages: string[]; causes: string[] }> {
  const { found } = await closedSheets()
  const all = [...found.values()]
  const distinct = (list: string[]) => [...new Set(list)].sort()
  return {
    people: distinct(all.flatMap((each) => each.people)),
    months: distinct(all.map((each) => each.day.slice(0, 7))).reverse(),
    damages: distinct(all.flatMap((each) => each.damages)),
    causes: distinct(all.flatMap((each) => each.causes)),
  }
}

async function closedSheets(): Promise<{ rows: SheetRow[]; found: Map<string, FoundBy> }> {
  const rows = await sheets.all({ state: ['signed', 'abandoned'] }, [['startedAt', 'DESC']])
  const digests = await digestsOf(rows.map((row) => row.id))
  const [machineRows, { timeZone }] = await Promise.all([machines.every(), ourCompany()])
  const machineOf = new Map(machineRows.map((machine) => [machine.id, machine]))
  const found = rows.map((row): [string, FoundBy] => {
    const { people: names, damages, causes, words } = digests.get(row.id)!
    const machine = row.machineId === null ? undefined : machineOf.get(row.machineId)
    const day = dayOf(row.signedAt ?? row.startedAt, timeZone)
    return [
      row.id,
      {
        ...{ people: names, damages, causes, words, day, trigger: row.trigger },
        called: [visitNumber(row.number), machine?.number, machine?.name, row.trouble, row.endReason]
          .filter(Boolean)
          .join(' ')
          .toLowerCase(),
      },
    ]
  })
  return { rows, found: new Map(found) }
}
