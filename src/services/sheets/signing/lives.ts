import 'server-only'
import { daysBetween } from '@/core/calendar'
import { usageSinceTakeOver } from '@/core/hours'
import { hasOwnClock, splitInstance, type PumpModel } from '@/core/models'
import { presumedEndReason, type SheetState, type EndingLife } from '@/core/sheets'
import { clockOf, ruledLimit, sortsOf, type WearRules } from '@/core/wear'
import { lives, type LifeRow } from '@/db/wear'
import { pumpModelVersions } from '@/db/models'
import type { SheetRow } from '@/db/sheets'
import { loadCounting, loadRules } from '../../wear'
import { ourCompany, dayOf } from '../../house'

/** A position of a sheet with the number of its pump, in words. */
export function named(state: SheetState, assemblyId: string, position: string) {
  const assembly = state.content.assemblies.find((each) => each.id === assemblyId)
  return {
    pump: assembly?.number ?? '',
    name: assembly?.positions.find((each) => each.key === position)?.name ?? position,
  }
}

/** Lives end and begin at the sheet's reading; where no meter could be read, when that was said. */
export function workedAtOf(state: SheetState): string | null {
  return state.readings[0]?.at ?? state.madeSafe?.at ?? null
}

/** The lives that end, and every position where a new one begins. */
export async function livesOf(sheet: SheetRow, state: SheetState, at: string) {
  const renewed = state.positions.filter((each) => each.state === 'renewed')
  const [lifeRows, counting, versionRows, company, rulesOf] = await Promise.all([
    lives.all({ assemblyId: sheet.assemblyIds, status: 'active', endedAt: null }),
    loadCounting(sheet.assemblyIds),
    pumpModelVersions.all({ id: state.content.assemblies.map((each) => each.modelVersionId) }),
    ourCompany(),
    loadRules(sheet.assemblyIds),
  ])
  const damaged = (assemblyId: string, position: string) =>
    state.findings.some(
      ({ payload }) =>
        payload.assemblyId === assemblyId && payload.position === position && payload.damages.length > 0,
    )
  // What else was damaged says nothing of the parts that the sheet was opened for.
  const anyDamage = state.positions.some((each) => each.planned && damaged(each.assemblyId, each.position))
  type Ending = EndingLife & { life: LifeRow; task: string | null }
  const ending = renewed.flatMap(({ assemblyId, position, planned }): Ending[] => {
    const life = lifeRows.find((each) => each.assemblyId === assemblyId && each.position === position)
    if (!life) return []
    const assembly = state.content.assemblies.find((each) => each.id === assemblyId)!
    const model = versionRows.find((version) => version.id === assembly.modelVersionId)!.data
    const { stretches } = counting.of(assemblyId)
    const reached =
      usageSinceTakeOver(stretches, at) - usageSinceTakeOver(stretches, life.startedAt) + life.carriedUsage
    const days = daysBetween(
      dayOf(life.carriedFrom ?? life.startedAt, company.timeZone),
      dayOf(at, company.timeZone),
    )
    const { task, clock, early } = clockOfLife(
      model,
      position,
      { hours: Math.max(0, reached), days: Math.max(0, days) },
      life.first === 1,
      rulesOf(assemblyId),
    )
    return [
      {
        life,
        task: task?.key ?? null,
        assemblyId,
        position,
        ...named(state, assemblyId, position),
        reached,
        unit: assembly.unit,
        limit: clock?.hoursLimit ?? null,
        early,
        state: clock?.state ?? 'healthy',
        days,
        planned,
        presumed: presumedEndReason(
          state.content.trigger,
          planned,
          clock?.state ?? 'healthy',
          assembly.tasks.some((each) => each.disturbed && each.positions.includes(position)),
          anyDamage && !damaged(assemblyId, position),
        ),
      },
    ]
  })
  return { ending, beginning: renewed }
}

/** The clock that a part stood against: by the limit its own pump goes by, hard duty and all. */
function clockOfLife(
  model: PumpModel,
  position: string,
  used: { hours: number; days: number },
  first: boolean,
  rules: WearRules,
) {
  const task = model.tasks.find(
    (each) => !hasOwnClock(each) && each.positions.includes(splitInstance(position).key),
  )
  if (!task) return { task, clock: null, early: 0 }
  const { limit, tolerance } = ruledLimit(task, sortsOf(model, task), rules)
  return { task, clock: clockOf(used, limit, tolerance, first), early: tolerance.early }
}
