import 'server-only'
import { addDays, type Day } from '@/core/calendar'
import { frostCurve, type ZoneState } from '@/core/winter'
import { kept } from '@/db/house'
import { now } from '../house'
import { isHeld } from './standings'
import { isWaiting, jobEnd, loadBasis, watchKeeps } from './campaign'

/** What planning asks of winter: which machines wait, what that takes, and when frost comes to them. */
export type WinterNeeds = {
  needs: { machineId: string; minutes: number; valueCents: number; frost: string; from: Day | null }[]
  /** Chance that frost has come by each day from today on, by yard and by what stands it. */
  frosts: Record<string, number[]>
  risk: number
  /** Machines that must not be started until they are brought back. */
  held: { machineId: string; state: ZoneState }[]
}

/** Planning looks so many days ahead at most. */
const farthest = 366

export function winterNeeds(): Promise<WinterNeeds> {
  return kept(`winter needs ${Math.floor(Date.parse(now()) / watchKeeps)}`, async () => {
    const basis = await loadBasis()
    const { machines: list, standings, terms, today } = basis
    const frosts: WinterNeeds['frosts'] = {}
    const needs = list.flatMap((each): WinterNeeds['needs'] => {
      const { machine, frost, standsC, plan, valueCents } = each
      if (!frost?.climate || standsC === null || plan.troubles.length > 0) return []
      if (!isWaiting(each, standings.get(machine.id)!.worst)) return []
      const key = `${machine.yardId} ${standsC}`
      frosts[key] ??= frostCurve({
        climate: frost.climate,
        standsC,
        outlook: frost.outlook,
        from: today,
        to: addDays(today, farthest - 1),
      }).map(({ chance }) => Math.round(1e4 * chance) / 1e4)
      const end = jobEnd(basis, machine.id)
      const from = end === null ? null : addDays(end, 1)
      return [{ machineId: machine.id, minutes: plan.minutes, valueCents, frost: key, from }]
    })
    const held = [...standings].flatMap(([id, { worst }]) =>
      isHeld(worst) ? [{ machineId: id, state: worst }] : [],
    )
    return { needs, frosts, risk: terms.riskPercent / 100, held }
  })
}
