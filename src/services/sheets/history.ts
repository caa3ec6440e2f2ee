import 'server-only'
import { visitNumber } from '@/core/plan'
import type { EarlierMeasure, SettledTorque, SheetState } from '@/core/sheets'
import { sheets, sheetsWithTorques, type SheetRow } from '@/db/sheets'
import { ourCompany, dayOf } from '../house'
import { sheetRowsOf } from './rows'
import { toldBySheets } from './told'

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
  const measured = await toldBySheets(
    'measures',
    before.map((each) => each.id),
    measuresOn,
  )
  return before.flatMap((each) => {
    const common = { day: dayOf(each.workedAt ?? each.startedAt, timeZone), sheet: visitNumber(each.number) }
    return (measured.get(each.id) ?? []).map((measure) => ({ ...measure, ...common }))
  })
}

function measuresOn(state: SheetState): Omit<EarlierMeasure, 'day' | 'sheet'>[] {
  const bySteps = state.steps.flatMap(({ step, by }) => {
    const measure = by?.kind === 'done' ? by.payload.measure : null
    if (!measure || !step.step.measure) return []
    return [
      {
        assemblyId: step.assemblyId,
        what: step.step.measure.what,
        where: step.where,
        value: measure.value,
        unit: measure.unit,
        how: measure.how ?? '',
      },
    ]
  })
  const free = state.measures.map(({ payload }) => ({
    assemblyId: payload.assemblyId,
    what: payload.what,
    where: payload.position ?? '',
    value: payload.value,
    unit: payload.unit,
    how: payload.how,
  }))
  return [...bySteps, ...free]
}

/**
 * Torques looked up on signed sheets, the newest for each model version and fastener: offered again at the
 * bench, and told with the model.
 * @param except a sheet that knows its own
 */
export async function settledTorques(except?: SheetRow): Promise<SettledTorque[]> {
  const ids = (await sheetsWithTorques()).filter((id) => id !== except?.id)
  const [sheetRows, torques] = await Promise.all([
    sheets.all({ id: ids, state: 'signed' }),
    toldBySheets('torques', ids, torquesOn),
  ])
  const newestFirst = sheetRows
    .flatMap(({ id, number }) =>
      (torques.get(id) ?? []).map((torque) => ({ ...torque, sheet: visitNumber(number) })),
    )
    .sort((a, b) => (a.at < b.at ? 1 : a.at > b.at ? -1 : 0))
  const seen = new Set<string>()
  return newestFirst.flatMap(({ at: _at, ...torque }): SettledTorque[] => {
    const what = `${torque.modelVersionId} ${torque.fastener}`
    if (seen.has(what)) return []
    seen.add(what)
    return [torque]
  })
}

/** Those that stand on one sheet; a pump without a model has none to tell. */
function torquesOn({ torqueSets, content }: SheetState): (Omit<SettledTorque, 'sheet'> & { at: string })[] {
  return torqueSets.flatMap(({ payload, byName, at }) => {
    const { assemblyId, fastener, value, unit, page } = payload
    const versionId = content.assemblies.find((each) => each.id === assemblyId)?.modelVersionId
    return versionId ? [{ modelVersionId: versionId, fastener, value, unit, page, byName, at }] : []
  })
}
