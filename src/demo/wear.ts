import { addDays } from '@/core/calendar'
import type { RenewalInput } from '@/core/wear'
import type { Actor } from '@/services/actor'
import { listAssemblies } from '@/services/assemblies'
import { runAt } from '@/services/clock'
import { instantOf } from '@/services/days'
import { publishPumpModel } from '@/services/pumpModels'
import { together } from '@/services/together'
import { bookVisit } from '@/services/visits'
import { getWear, recordRenewal, startClocks } from '@/services/wear'
import ostrelP3200 from './models/ostrel-p3-200.json'
import { idOf } from './random'

/** Renews its seals far too often: its inlet cavitates, and nobody has found out why. */
const sealEater = 'P-37'
/** Its seals are overdue, and stay so. */
const overdue = 'P-04'

/**
 * Publishes the one model whose data is written, starts the clocks of its pumps and services them for
 * two years as a coordinator would, a little early or a little late, with the stories the demo tells.
 */
export async function tellWear(coordinator: Actor, today: string, timeZone: string): Promise<void> {
  const begin = addDays(today, -730)
  const at = <T>(day: string, work: () => Promise<T>) => runAt(instantOf(day, '16:00', timeZone), work)
  const text = JSON.stringify(ostrelP3200)
  await at(begin, () => publishPumpModel(coordinator, { modelId: idOf('Ostrel P3-200'), text }))
  const pumps = (await at(begin, () => listAssemblies(coordinator))).filter(
    (pump) => pump.title === 'Ostrel P3-200',
  )
  for (const [index, pump] of pumps.entries()) {
    await together(async () => {
      await at(begin, () => startClocks(coordinator, { assemblyId: pump.id, basis: 'takeOver' }))
      // Every nine days somebody looks at the list and renews what is due; each pump on its own rhythm.
      for (let ago = 720 - index * 3; ago > 12; ago -= 9) {
        await at(addDays(today, -ago), () =>
          serviceWhatIsDue(pump.id, pump.number, addDays(today, -ago), ago),
        )
      }
    })
  }

  async function serviceWhatIsDue(
    assemblyId: string,
    number: string,
    day: string,
    ago: number,
  ): Promise<void> {
    const view = await getWear(coordinator, assemblyId)
    const eaten = number === sealEater && ago % 7 === 0
    for (const clock of view?.clocks ?? []) {
      if (clock.kind !== 'renew' && clock.kind !== 'change') continue
      // Two seals of this one were last renewed in the spring and have been put off since.
      const putOff =
        number === overdue && clock.task === 'hpSeals' && ago < 200 && !clock.positions.includes('hpSeal@3')
      const early = eaten && clock.task === 'hpSeals' && clock.share > 0.35
      const due = clock.share > 0.93 + (Number(idOf(number).charCodeAt(1)) % 5) / 50
      if (putOff || !(due || early)) continue
      await renew(
        assemblyId,
        clock.task,
        clock.positions,
        day,
        early ? 'failed' : 'preventive',
        early ? 'Weeping at half its life.' : '',
      )
    }
    if (number === overdue && ago <= 300 && ago > 291) {
      await renew(assemblyId, 'hpSeals', ['hpSeal@1', 'hpSeal@2', 'hpSeal@3'], day, 'preventive', '')
    }
    if (number === overdue && ago <= 64 && ago > 55) {
      await renew(assemblyId, 'hpSeals', ['hpSeal@3'], day, 'failed', 'Weeping; the other two looked sound.')
      await renew(assemblyId, 'lpSeals', ['lpSeal@3'], day, 'disturbed', '')
    }
  }

  function renew(
    assemblyId: string,
    task: string,
    positions: string[],
    day: string,
    endReason: RenewalInput['endReason'],
    note: string,
  ) {
    const id = idOf(`${assemblyId} ${task} ${positions.join(' ')} ${day}`)
    return recordRenewal(coordinator, { id, assemblyId, task, positions, day, runSince: 0, endReason, note })
  }
}

/** Visits in the book on the demo's first day: one today, two this week. */
export async function bookVisits(coordinator: Actor, today: string, timeZone: string): Promise<void> {
  const book = (
    pump: string,
    tasks: string[],
    lead: string,
    daysAhead: number,
    startTime: string,
    note: string,
  ) =>
    runAt(instantOf(addDays(today, -2), '15:00', timeZone), async () => {
      const view = await getWear(coordinator, idOf(pump))
      const items = (view?.clocks ?? [])
        .filter((clock) => tasks.includes(clock.task))
        .map(({ task, positions }) => ({ assemblyId: idOf(pump), task, positions }))
      await bookVisit(coordinator, {
        id: idOf(`visit ${pump}`),
        items,
        day: addDays(today, daysAhead),
        startTime,
        leadId: idOf(`person ${lead}`),
        note,
      })
    })
  await book('P-31', ['inletFilter'], 'osei', 0, '10:30', 'Crew 2 brings it back by ten.')
  await book(
    'P-12',
    ['plungers', 'oilSeals', 'outletValves', 'inletValves'],
    'brandt',
    2,
    '08:00',
    'All of it in one strip-down.',
  )
  await book('P-37', ['outletValves', 'inletValves'], 'varga', 5, '', '')
}
