import 'server-only'
import { visitNumber } from '@/core/plan'
import { sheetState, type EarlierMeasure, type SettledTorque } from '@/core/sheets'
import { Op } from '@/db/house'
import { sheetEntries, sheets, type SheetEntryRow, type SheetRow } from '@/db/sheets'
import { ourCompany, dayOf, groupBy } from '../house'
import { asEntry, sheetRowsOf } from './rows'

/** How many earlier sheets of a pump are looked through for what they measured. */
const sheetsBack = 12

/** What earlier signed sheets of these pumps measured: what a value of today is compared with. */
export async function earlierMeasures(row: SheetRow): Promise<EarlierMeasure[]> {
  const { timeZone } = await ourCompany()
  const lists = await Promise.all(row.assemblyIds.map((assemblyId) => sheetRowsOf({ assemblyId })))
  const before = [...new Map(lists.flat().map((each) => [each.id, each])).values()]
    .filter((each) => each.state === 'signed' && each.id !== row.id && each.startedAt <= row.startedAt)
    .sort((a, b) => (a.startedAt < b.startedAt ? 1 : -1))
    .slice(0, sheetsBack)
  const entryRows = await sheetEntries.all({ sheetId: before.map((each) => each.id) }, [['sequence', 'ASC']])
  const entriesOf = groupBy(entryRows, (entry: SheetEntryRow) => entry.sheetId)
  return before.flatMap((each): EarlierMeasure[] => {
    const state = sheetState((entriesOf.get(each.id) ?? []).map(asEntry))
    if (!state) return []
    const day = dayOf(each.workedAt ?? each.startedAt, timeZone)
    const common = { day, sheet: visitNumber(each.number) }
    const bySteps = state.steps.flatMap(({ step, by }): EarlierMeasure[] => {
      const measure = by?.kind === 'done' ? by.payload.measure : null
      if (!measure || !step.step.measure) return []
      return [
        {
          ...common,
          assemblyId: step.assemblyId,
          what: step.step.measure.what,
          where: step.where,
          value: measure.value,
          unit: measure.unit,
          how: measure.how ?? '',
        },
      ]
    })
    const free = state.measures.map(({ payload }): EarlierMeasure => ({
      ...common,
      assemblyId: payload.assemblyId,
      what: payload.what,
      where: payload.position ?? '',
      value: payload.value,
      unit: payload.unit,
      how: payload.how,
    }))
    return [...bySteps, ...free]
  })
}

/**
 * Torques looked up on signed sheets, the newest for each model version and fastener: offered again at the
 * bench, and told with the model.
 * @param except a sheet that knows its own
 */
export async function settledTorques(except?: SheetRow): Promise<SettledTorque[]> {
  const others = except ? { sheetId: { [Op.ne]: except.id } } : {}
  const found = await sheetEntries.all({ kind: 'torqueSet', late: 0, ...others } as never, [
    ['at', 'DESC'],
    ['sequence', 'DESC'],
  ])
  if (found.length === 0) return []
  const ids = [...new Set(found.map((entry) => entry.sheetId))]
  const [sheetRows, composed, takenBack] = await Promise.all([
    sheets.all({ id: ids, state: 'signed' }),
    sheetEntries.all({ sheetId: ids, kind: 'composed' }, [['sequence', 'ASC']]),
    sheetEntries.all({ sheetId: ids, kind: 'takeBack', late: 0 }),
  ])
  const gone = new Set(takenBack.map(asEntry).map((entry) => entry.kind === 'takeBack' && entry.payload.of))
  const seen = new Set<string>()
  return found.flatMap((entryRow): SettledTorque[] => {
    const sheet = sheetRows.find((each) => each.id === entryRow.sheetId)
    if (gone.has(entryRow.id)) return []
    const entry = asEntry(entryRow)
    const content = composed.findLast((each) => each.sheetId === entryRow.sheetId)
    if (!sheet || !content || entry.kind !== 'torqueSet') return []
    const first = asEntry(content)
    const { assemblyId, fastener, value, unit, page } = entry.payload
    const versionId =
      first.kind === 'composed'
        ? first.payload.assemblies.find((each) => each.id === assemblyId)?.modelVersionId
        : undefined
    if (!versionId || seen.has(`${versionId} ${fastener}`)) return []
    seen.add(`${versionId} ${fastener}`)
    return [
      {
        modelVersionId: versionId,
        fastener,
        value,
        unit,
        page,
        byName: entry.byName,
        sheet: visitNumber(sheet.number),
      },
    ]
  })
}
