import { addDays } from '@/core/calendar'
import type { Actor } from '@/services/house'
import { saveSpell } from '@/services/hours'
import { saveDuties, saveLimit } from '@/services/wear'
import { characters, machines } from './fleet'
import { idOf } from './random'

/** Every winter's lay-up of the machines that have one, and the jobs that two trailers are booked for. */
export async function tellSpells(coordinator: Actor, today: string): Promise<void> {
  const year = Number(today.slice(0, 4))
  for (const machine of machines) {
    const character = characters[machine.character]
    if (!('laidUp' in character)) continue
    const [from, to] = character.laidUp
    for (const winter of [year - 2, year - 1, year])
      await saveSpell(coordinator, idOf(machine.number), {
        id: idOf(`${machine.number} winter ${winter}`),
        kind: 'layUp',
        fromDay: `${winter}-${from}`,
        toDay: `${winter + 1}-${to}`,
        hoursPerDay: null,
        what: 'Winter: no outdoor washing',
      })
  }
  const jobs = [
    ['T-10', 6, 16, 8.5, 'Ship lift, north cradle'],
    ['T-15', 19, 33, 8, 'Viaduct, piers 4 to 9'],
    ['T-04', 26, 30, 9, 'Grain silos, both rows'],
  ] as const
  for (const [number, first, last, hoursPerDay, what] of jobs)
    await saveSpell(coordinator, idOf(number), {
      id: idOf(`${number} job`),
      kind: 'job',
      fromDay: addDays(today, first),
      toDay: addDays(today, last),
      hoursPerDay,
      what,
    })
}

/** What two pumps go by beside their model: chemical drawn through one, sand in the water of the other. */
export async function tellRules(coordinator: Actor): Promise<void> {
  await saveDuties(coordinator, {
    assemblyId: idOf('P-31'),
    seen: [],
    duties: [
      {
        id: idOf('P-31 chemical'),
        key: 'chemical',
        factor: 75,
        reason: 'Injector sits before the pump on this rig',
      },
    ],
  })
  await saveLimit(coordinator, {
    id: idOf('P-11 valves'),
    assemblyId: idOf('P-11'),
    task: 'outletValves',
    seen: '',
    hours: 900,
    days: null,
    firstHours: null,
    firstDays: null,
    early: 10,
    late: 5,
    reason: 'Sand in the dock water: pitted at 950 h twice',
  })
}
