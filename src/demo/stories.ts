import { addDays } from '@/core/calendar'
import { runAt, instantOf } from '@/services/house'
import { addAssembly, getMachine, retireMachine, moveAssembly } from '@/services/fleet'
import { settleReading } from '@/services/hours'
import { accessories, drives, machines, spares } from './fleet'
import { idOf } from './random'
import { timeZone, coordinator, pumpInput, enter, makeMachine } from './machines'

export async function makeSpares(begin: string): Promise<void> {
  await runAt(instantOf(begin, '10:00', timeZone), async () => {
    for (const [number, model, serial, hours, yard, bin] of spares) {
      await addAssembly(coordinator, {
        ...pumpInput([number, model, serial, hours, 1], begin),
        kind: 'pump',
        name: '',
        place: { where: 'shelf', yardId: idOf(yard), bin },
      })
    }
    for (const [number, kind, model, on] of drives) {
      await addAssembly(coordinator, {
        ...pumpInput([number, model, '', 'new', 1], begin),
        kind,
        name: '',
        place: {
          where: 'machine',
          machineId: idOf(on),
          slot: '',
          meterId: idOf(`${on} meter`),
          share: 100,
          shareBasis: 'own',
        },
      })
    }
    for (const [number, name, on, meter, model] of accessories) {
      await addAssembly(coordinator, {
        ...pumpInput([number, '', '', 'new', 1], begin),
        kind: 'accessory',
        modelId: model ? idOf(model) : null,
        name,
        place: {
          where: 'machine',
          machineId: idOf(on),
          slot: '',
          meterId: idOf(`${on} ${meter === 'Jet-on hours' ? 'jet' : 'meter'}`),
          share: 100,
          shareBasis: 'own',
        },
      })
    }
  })
}

/** What a coordinator would recognise: a slip, a high reading, a new meter, a swapped pump, a sold van. */
export async function tellStories(today: string): Promise<void> {
  const at = <T>(daysAgo: number, time: string, work: () => Promise<T>) =>
    runAt(instantOf(addDays(today, -daysAgo), time, timeZone), work)
  const shownLast = async (number: string) => {
    const machine = await at(0, '06:00', () => getMachine(coordinator, number))
    return machine.meters[0]!.readings.find((reading) => reading.status === 'accepted')!.value
  }

  // The decimal point was lost on the phone; nobody has settled it yet.
  await enter(
    'T-09 meter',
    addDays(today, -1),
    '16:40',
    String(Math.round((await shownLast('T-09')) * 10 + 312)),
    'crew 2',
    false,
  )
  // Higher than this van ever ran in nine days.
  await enter(
    'V-12 meter',
    addDays(today, -1),
    '17:05',
    ((await shownLast('V-12')) + 74.8).toFixed(1),
    'crew 5',
    false,
  )

  // A reading ten times too big, caught and corrected in the summer.
  const slip = await at(96, '06:10', () => getMachine(coordinator, 'R-05'))
  const before = slip.meters[0]!.readings.find((reading) => reading.day < addDays(today, -97))!
  const right = before.value + 1.4
  const wrong = await enter(
    'R-05 meter',
    addDays(before.day, 1),
    '06:20',
    String(Math.round(right * 10)),
    'crew 5',
    false,
  )
  await at(95, '08:15', () =>
    settleReading(coordinator, {
      decision: 'correct',
      readingId: wrong.id,
      id: idOf('R-05 corrected'),
      typed: right.toFixed(1),
      day: addDays(before.day, 1),
      time: '06:20',
      reason: 'Crew 5 sent a photo: the point was missed.',
    }),
  )

  await sellVan(today)
}

/** The quay trailer's pump leaked past its oil seals and the spare went on in its place. */
export async function swapPumps(today: string): Promise<void> {
  const at = <T>(daysAgo: number, time: string, work: () => Promise<T>) =>
    runAt(instantOf(addDays(today, -daysAgo), time, timeZone), work)
  await at(128, '14:00', () =>
    moveAssembly(coordinator, {
      id: idOf('P-07 off'),
      assemblyId: idOf('P-07'),
      version: 1,
      day: addDays(today, -128),
      time: '13:30',
      place: { where: 'shelf', yardId: idOf('Harbour yard'), bin: 'bench 1' },
      reason: 'Milky oil: water past the oil seals.',
    }),
  )
  await at(128, '15:00', () =>
    moveAssembly(coordinator, {
      id: idOf('P-27 on'),
      assemblyId: idOf('P-27'),
      version: 1,
      day: addDays(today, -128),
      time: '14:30',
      place: {
        where: 'machine',
        machineId: idOf('T-07'),
        slot: 'main pump',
        meterId: idOf('T-07 meter'),
        share: 100,
        shareBasis: 'own',
      },
      reason: 'Spare while P-07 is rebuilt.',
    }),
  )
}

async function sellVan(today: string): Promise<void> {
  const day = addDays(today, -300)
  const template = machines.find((machine) => machine.number === 'V-24')!
  await makeMachine(
    { ...template, number: 'V-03', name: 'old market van', start: 7350, lastRead: 0, pumps: [] },
    addDays(today, -420),
    day,
  )
  await runAt(instantOf(day, '16:00', timeZone), () =>
    retireMachine(coordinator, { id: idOf('V-03'), version: 1, reason: 'Sold; its pump was worn out.' }),
  )
}
