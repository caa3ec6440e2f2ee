import 'server-only'
import { addDays, showDay, type Day } from '@/core/calendar'
import type { WhatIf } from '@/core/winter'
import { breathe } from '../house'
import { type Basis, type Change, isWaiting, jobEnd, runCampaign } from './campaign'

/** What would change the campaign: each beside how it is. */
export async function whatIfs(basis: Basis): Promise<WhatIf[]> {
  const { yards, machines: list, today, standings } = basis
  const told = async (name: string, change: Change): Promise<WhatIf> => {
    // Each is a campaign of its own: whoever waits goes first.
    await breathe()
    const { plan, litres, minutes, cents } = runCampaign(basis, change)
    const ends = Object.values(plan.finish)
    return {
      name,
      finish: ends.some((day) => day === null)
        ? null
        : (ends as Day[]).reduce((a, b) => (a > b ? a : b), today),
      exposedCents: Math.round(plan.exposed),
      litres,
      minutes,
      cents,
    }
  }
  const withCrew = yards.filter(
    ({ climate, yard }) => climate && list.some(({ machine }) => machine.yardId === yard.id),
  )
  const out = list.find(
    (each) =>
      jobEnd(basis, each.machine.id) !== null && isWaiting(each, standings.get(each.machine.id)!.worst),
  )
  return Promise.all([
    told('As planned', {}),
    ...withCrew.map(({ yard }) => told(`One more person in ${yard.name}`, { more: { [yard.id]: 1 } })),
    told('Everything to the nozzle', {
      methods: { pump: 'through', bypass: 'through', hose: 'toNozzle', coil: 'through' },
    }),
    told('Everything blown out', {
      methods: { pump: 'blowOut', bypass: 'blowOut', hose: 'blowOut', coil: 'blowOut' },
    }),
    ...(yards.some(({ outlook }) => outlook !== null) ? [told('An outlook 3 °C colder', { colder: 3 })] : []),
    ...(out
      ? [
          told(
            `${out.machine.number} stays out two weeks longer, to ${showDay(addDays(jobEnd(basis, out.machine.id)!, 14), today)}`,
            {
              away: { machineId: out.machine.id, until: addDays(jobEnd(basis, out.machine.id)!, 15) },
            },
          ),
        ]
      : []),
  ])
}
