import { addDays, dayNumber, daysBetween } from '@/core/calendar'
import { metricUnits } from '@/core/units'
import { type Actor, runAt, instantOf } from '@/services/house'
import { addAssembly, addMachine, saveYard } from '@/services/fleet'
import { addPerson, demoAccounts, setUp, setUpCode } from '@/services/access'
import { saveMeter, recordReading, settleReading } from '@/services/hours'
import { savePumpModel } from '@/services/models'
import { characters, models, type Character, type DemoMachine } from './fleet'
import { idOf, randomFrom } from './random'

const [first, ...others] = demoAccounts
export const timeZone = 'Europe/London'
export const coordinator: Actor = { id: idOf('person lindqvist'), name: first!.name, role: 'coordinator' }
const readers = ['L. Varga', 'M. Osei', 'T. Brandt', 'crew 2', 'crew 5']

export async function makeCompany(): Promise<void> {
  await setUp(
    {
      code: setUpCode(),
      company: { name: 'Fennmark Surface & Cutting', timeZone, currency: 'EUR', units: metricUnits },
      yard: { id: idOf('Harbour yard'), name: 'Harbour yard' },
      coordinator: {
        id: coordinator.id,
        name: first!.name,
        signInName: first!.signInName,
        password: first!.password,
      },
    },
    'demo',
  )
  for (const account of others)
    await addPerson(coordinator, { id: idOf(`person ${account.signInName}`), ...account })
  await saveYard(coordinator, {
    id: idOf('Harbour yard'),
    version: 1,
    name: 'Harbour yard',
    place: 'by the east lock',
    note: 'Mild; first frost late.',
  })
  await saveYard(coordinator, {
    id: idOf('Upland yard'),
    name: 'Upland yard',
    place: 'on the moor road',
    note: 'Frost comes early up here.',
  })
  for (const [maker, name, design] of models) {
    await savePumpModel(coordinator, {
      id: idOf(`${maker} ${name}`),
      maker,
      name,
      design,
      note: 'Demo data; not to be used on a real pump.',
    })
  }
}

export async function makeMachine(machine: DemoMachine, begin: string, today: string): Promise<void> {
  const { number } = machine
  const cutting = machine.kind === 'cuttingTable'
  const quantity = (value: number, unit: string) => (value > 0 ? { value, unit } : null) as never
  const [pump, ...more] = machine.pumps
  await runAt(instantOf(begin, '09:00', timeZone), async () => {
    await addMachine(coordinator, {
      id: idOf(number),
      number,
      name: machine.name,
      kind: machine.kind,
      yardId: idOf(machine.yard),
      bay: machine.bay,
      crew: crewOf(machine),
      storage: machine.storage,
      inServiceSince: machine.since,
      drive: machine.drive,
      driveName: machine.driveName,
      drivePower: quantity(machine.kW, 'kW'),
      workingPressure: quantity(machine.bar, 'bar'),
      flow: quantity(machine.litresAMinute, 'L/min'),
      hoseLength: quantity(machine.hose[0], 'm'),
      hoseBore: quantity(machine.hose[1], 'mm'),
      tankVolume: quantity(machine.tank, 'L'),
      bypass: machine.bypass,
      note: machine.note ?? '',
      meter: {
        id: idOf(`${number} meter`),
        name: cutting ? 'Pump hours' : 'Engine hours',
        kind: cutting ? 'pump' : 'engine',
        digits: machine.digits ?? 5,
        decimals: 1,
        readingIntervalDays: 7,
        firstTyped: machine.start.toFixed(1),
        firstDay: begin,
      },
      pump: pump ? { ...pumpInput(pump, begin), slot: 'main pump', ...shareInput(pump[4]) } : null,
    })
    for (const second of more) {
      await addAssembly(coordinator, {
        ...pumpInput(second, begin),
        kind: 'pump',
        name: '',
        place: {
          where: 'machine',
          machineId: idOf(number),
          slot: 'chemical pump',
          meterId: idOf(`${number} meter`),
          ...shareInput(second[4]),
        },
      })
    }
    if (cutting) {
      await saveMeter(coordinator, idOf(number), {
        id: idOf(`${number} jet`),
        name: 'Jet-on hours',
        kind: 'jetOn',
        digits: 5,
        decimals: 1,
        readingIntervalDays: 7,
      })
    }
  })
  const hours = hoursByDay(machine, begin, today)
  await readWeekly(machine, `${number} meter`, hours, 0, begin, today, machine.digits)
  if (cutting)
    await readWeekly(
      machine,
      `${number} jet`,
      hours.map((value) => (value - machine.start) * 0.62 + machine.start * 0.6),
      1,
      begin,
      today,
    )
}

/** Trailers go out with crews 1 and 2, vans with 3 to 5; what stays in the yard is nobody's own. */
function crewOf({ number, kind }: DemoMachine): string {
  const turn = Number(number.replace(/\D/g, ''))
  if (kind === 'trailer') return `crew ${1 + (turn % 2)}`
  return kind === 'van' ? `crew ${3 + (turn % 3)}` : ''
}

type PumpRow = DemoMachine['pumps'][number]

export function pumpInput([number, model, serial, hours]: PumpRow, begin: string) {
  return {
    id: idOf(number),
    number,
    modelId: idOf(model),
    serial,
    usageScale: 'h' as const,
    openingKind: hours === 'new' || hours === 'unknown' ? hours : ('known' as const),
    openingUsage: typeof hours === 'number' ? hours : 0,
    takenOverOn: begin,
    note: '',
  }
}

/** A duty share as the form takes it: a percentage. */
function shareInput(share: number) {
  return { share: share * 100, shareBasis: share === 1 ? ('own' as const) : ('assumed' as const) }
}

/** What the meter stands at on every day from `begin` to `today`, made up from the machine's character. */
function hoursByDay(machine: DemoMachine, begin: string, today: string): number[] {
  const random = randomFrom(Number(BigInt(`0x${idOf(machine.number).slice(0, 8)}`)))
  const character: Character = characters[machine.character]
  const days = daysBetween(begin, today)
  const series: number[] = [machine.start]
  let left = 4
  let busy = true
  for (let index = 1; index <= days; index += 1) {
    const day = addDays(begin, index)
    const month = Number(day.slice(5, 7)) - 1
    const monthDay = day.slice(5)
    const inLayUp =
      character.laidUp !== undefined && (monthDay >= character.laidUp[0] || monthDay <= character.laidUp[1])
    if (character.bursts && (left -= 1) <= 0) {
      busy = !busy
      left = Math.round((busy ? character.bursts.busy : character.bursts.idle) * (0.5 + random()))
    }
    const works = character.days.includes((dayNumber(day) + 4) % 7) && busy && !inLayUp && random() > 0.07
    const spread = 0.55 + random() * 0.9
    const use = works ? Math.min(character.hours * (character.year?.[month] ?? 1) * spread, 20) : 0
    series.push(series.at(-1)! + Math.round(use * 10) / 10)
  }
  return series
}

async function readWeekly(
  machine: DemoMachine,
  meter: string,
  hours: number[],
  shift: number,
  begin: string,
  today: string,
  digits = 5,
): Promise<void> {
  const random = randomFrom(Number(BigInt(`0x${idOf(meter).slice(0, 8)}`)))
  const last = daysBetween(begin, today) - machine.lastRead
  const days: number[] = []
  for (
    let day = 3 + Math.floor(random() * 5);
    day < last - 3;
    day += 6 + Math.floor(random() * 3) + (random() < 0.06 ? 7 : 0)
  )
    days.push(day)
  days.push(last)
  const swap =
    machine.meterReplaced === undefined ? Infinity : daysBetween(begin, today) - machine.meterReplaced
  let zero: { day: number; value: number } | undefined
  for (const [index, day] of days.entries()) {
    const minute = (35 + ((index * 7) % 20)).toString().padStart(2, '0')
    const readBy = readers[Math.floor(random() * readers.length)]!
    const fresh = day > swap && !zero
    if (fresh) zero = { day: days[index - 1]!, value: hours[days[index - 1]!]! }
    const counted = hours[day]! + shift - (zero?.value ?? 0)
    const turns = Math.floor(counted / 10 ** digits)
    const rolled = index > 0 && turns > Math.floor((hours[days[index - 1]!]! + shift) / 10 ** digits)
    const shown = (counted - turns * 10 ** digits).toFixed(1)
    const plain = !fresh && !rolled
    const recorded = await enter(meter, addDays(begin, day), `06:${minute}`, shown, readBy, plain)
    if (rolled)
      await runAt(instantOf(addDays(begin, day), '08:05', timeZone), () =>
        settleReading(coordinator, {
          decision: 'rollOver',
          readingId: recorded.id,
          reason: 'Four digits: it turned to zero on the night shift.',
        }),
      )
    if (fresh)
      await settleNewMeter(
        recorded.id,
        zero!.value.toFixed(1),
        addDays(begin, zero!.day),
        addDays(begin, day),
      )
  }
}

async function settleNewMeter(
  readingId: string,
  oldLastTyped: string,
  day: string,
  settledOn: string,
): Promise<void> {
  const reason = 'Display went dark; new meter fitted at the bench.'
  await runAt(instantOf(settledOn, '08:05', timeZone), () =>
    settleReading(coordinator, {
      decision: 'newMeter',
      readingId,
      oldLastTyped,
      newFirstTyped: '0',
      day,
      time: '12:00',
      reason,
    }),
  )
}

export function enter(
  meter: string,
  day: string,
  time: string,
  typed: string,
  readBy: string,
  vouched = true,
) {
  const instant = instantOf(day, time, timeZone)
  const later = new Date(Date.parse(instant) + 25 * 60_000).toISOString()
  const id = idOf(`${meter} ${day} ${typed}`)
  return runAt(later, () =>
    recordReading(
      coordinator,
      { id, meterId: idOf(meter), day, time, typed, readBy, note: '', vouched },
      'phone',
    ),
  )
}
