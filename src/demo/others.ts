import { addDays } from '@/core/calendar'
import { composeSheet } from '@/core/composing'
import type { AssemblyView } from '@/core/fleet'
import type { PumpModel } from '@/core/models'
import type { ClockView } from '@/core/wear'
import { type Actor, instantOf, runAt } from '@/services/house'
import { listAssemblies } from '@/services/fleet'
import { getPumpModel } from '@/services/models'
import { listBenchParts, receivePart, savePart } from '@/services/stores'
import { getWear, recordRenewal, startClocks } from '@/services/wear'
import { passEarlyCheck, workSheet, type Job } from './bench'
import { idOf } from './random'

/** What the stores keep for a model: our number before the maker's parts, and where they lie. */
const kept: [model: string, prefix: string, bin: string][] = [
  ['Tarnwick C5', 'C5', 'U-1'],
  ['Quillon X2', 'X2', 'U-2'],
  ['Vardle P9', 'P9', 'H-31'],
  ['Vardle D22', 'D22', 'H-32'],
  ['Vardle M15', 'M15', 'H-33'],
  ['Ostrel HB90', 'HB', 'H-34'],
]

/** Priced by what it is made of, invented: cents for small rubber, more for what is machined. */
function priceOf(name: string): string {
  if (/oil|coolant|descaler/i.test(name)) return '6.90'
  if (/o-ring|washer|seal ring|clamp|drain plug seal/i.test(name)) return '0.90'
  if (/seal|rope|gasket|plug$/i.test(name)) return '5.40'
  if (/coil|battery|hose assembly/i.test(name)) return '118.00'
  return '14.20'
}

/** The parts of the other pumps and of the drives, a few of each, fitting one model each. */
export async function stockOthers(coordinator: Actor, begin: string, timeZone: string): Promise<void> {
  for (const [title, prefix, bin] of kept) {
    const model = await modelOf(coordinator, title)
    for (const [index, part] of model.parts.entries()) {
      const number = `${prefix}-${String(index + 1).padStart(2, '0')}`
      const litres = part.unit !== 'piece'
      await runAt(instantOf(begin, '11:00', timeZone), () =>
        savePart(coordinator, {
          id: idOf(`part ${number}`),
          number,
          name: `${part.name}, ${title.split(' ')[1]}`,
          makersNumber: '',
          unit: part.unit,
          packSize: 1,
          price: priceOf(part.name),
          leadDays: 7 + (index % 3) * 4,
          minimum: (litres ? '5' : '2') as never,
          bin,
          fits: [{ modelId: idOf(title), part: part.key }],
          note: '',
        }),
      )
      await take(coordinator, number, part.name, litres ? 25 : 6, begin, timeZone)
    }
  }
}

async function take(
  coordinator: Actor,
  number: string,
  name: string,
  quantity: number,
  day: string,
  timeZone: string,
): Promise<void> {
  const rubber = /seal|o-ring|ring|hose|insert/i.test(name)
  await runAt(instantOf(day, '11:30', timeZone), () =>
    receivePart(coordinator, {
      id: idOf(`lot ${number} ${day}`),
      partId: idOf(`part ${number}`),
      quantity: String(quantity) as never,
      code: `${number}/${day.slice(2, 4)}${day.slice(5, 7)}`,
      receivedOn: day,
      price: '' as never,
      expiresOn: rubber ? `${Number(day.slice(0, 4)) + 7}${day.slice(4)}` : null,
      note: '',
    }),
  )
}

async function modelOf(coordinator: Actor, title: string): Promise<PumpModel> {
  return (await getPumpModel(coordinator, idOf(title))).shown!.model
}

/** Begins the clocks of everything that is kept here, all parts as they were at the take-over. */
export async function startOthers(
  coordinator: Actor,
  begin: string,
  timeZone: string,
): Promise<AssemblyView[]> {
  const all = await runAt(instantOf(addDays(begin, 1), '06:30', timeZone), () => listAssemblies(coordinator))
  // A spare on the shelf has no clocks before it is fitted.
  const others = all.filter(
    ({ title, place }) => place.machineId !== null && kept.some(([model]) => model === title),
  )
  for (const { id } of others)
    await runAt(instantOf(begin, '16:40', timeZone), () =>
      startClocks(coordinator, { assemblyId: id, basis: 'takeOver' }),
    )
  return others
}

type Other = Pick<AssemblyView, 'id' | 'number' | 'title'>

/** What happens to single ones on single days. */
function storyOf(
  { number }: Other,
  services: Job['services'],
): Pick<Job, 'answers' | 'seen' | 'used' | 'note' | 'remarks'> {
  const does = (task: string) => services.some((service) => service.task === task)
  // One plunger of this one was scored by grit from a torn strainer; the other two stayed.
  if (number === 'P-22' && does('plungerCheck'))
    return {
      answers: [{ at: 'plunger@2/verdict', answer: 'scored, chipped or cracked: renew' }],
      seen: [
        { position: 'plunger@2', damages: ['scoring'], extent: 'clear', words: 'lengthwise, from grit' },
      ],
      used: [
        { part: 'plunger', quantity: 1 },
        { part: 'plungerWasher', quantity: 1 },
        { part: 'plungerOring', quantity: 1 },
      ],
      note: 'Strainer torn at its rim: one plunger of three scored. New strainer fitted.',
    }
  if (number === 'E-12' && does('battery'))
    return {
      answers: [{ at: 'battery/verdict', answer: 'weak, leaking or swollen: renew' }],
      seen: [{ position: 'battery', damages: ['swollen'], words: 'one side bulged' }],
      used: [{ part: 'battery', quantity: 1 }],
      note: 'Would not hold overnight in the frost.',
    }
  if (number === 'P-39' && does('cartridges'))
    return { remarks: [{ at: 'cartridge@1/look', text: 'Outlet spring shorter than the others.' }] }
  return {}
}

/**
 * What is due of them is done together, with what is looked at on condition, a little early or late, each in
 * a rhythm of its own; the newest are left as they are.
 */
export async function serviceOther(
  coordinator: Actor,
  technician: Actor,
  other: Other,
  day: string,
  timeZone: string,
  { onPaper, passed }: { onPaper: boolean; passed: boolean },
): Promise<void> {
  const view = await runAt(instantOf(day, '06:30', timeZone), () => getWear(coordinator, other.id))
  if (!view?.machineNumber) return
  const limit = 0.95 + (Number(`0x${idOf(other.number).slice(0, 2)}`) % 5) / 40
  if (!view.clocks.some(({ share }) => share > limit)) return
  // What comes soon is done in the same hour.
  const due = view.clocks.filter(({ share }) => share > 0.7)
  if (onPaper) return renewOnPaper(coordinator, other, due, day, timeZone)
  const model = await modelOf(coordinator, other.title)
  const services = due.map(({ task, positions }) => ({ task, positions }))
  await refill(coordinator, model, other.title, services, day, timeZone)
  const job: Job = {
    pump: other.number,
    day,
    services,
    technician,
    coordinator,
    timeZone,
    ...storyOf(other, services),
  }
  await workSheet(job)
  // Of the last weeks’ services nobody has looked yet.
  if (passed) await passEarlyCheck(job, other.id)
}

/** In the first year their sheets were still kept on paper: what was renewed is on record, by hand. */
async function renewOnPaper(
  coordinator: Actor,
  { id, number, title }: Other,
  due: ClockView[],
  day: string,
  timeZone: string,
): Promise<void> {
  const model = await modelOf(coordinator, title)
  const renewing = due.filter(({ task }) =>
    model.tasks.some(({ key, kind }) => key === task && (kind === 'renew' || kind === 'change')),
  )
  for (const [index, { task, positions }] of renewing.entries())
    await runAt(instantOf(day, '15:30', timeZone), () =>
      recordRenewal(coordinator, {
        id: idOf(`renewal ${number} ${day} ${index}`),
        assemblyId: id,
        task,
        positions,
        day,
        runSince: 0,
        endReason: 'preventive',
        note: 'From the paper sheet',
      }),
    )
}

/** Orders what a job would leave too few of, some days before it. */
async function refill(
  coordinator: Actor,
  model: PumpModel,
  title: string,
  services: Job['services'],
  day: string,
  timeZone: string,
): Promise<void> {
  const prefix = kept.find(([name]) => name === title)![1]
  const sheet = composeSheet({ assemblies: [{ id: 'any', model, tasks: merged(services) }] })
  const stock = await runAt(instantOf(day, '07:00', timeZone), () => listBenchParts(coordinator))
  for (const need of [...sheet.parts, ...sheet.spares]) {
    const index = model.parts.findIndex(({ key }) => key === need.part)
    const number = `${prefix}-${String(index + 1).padStart(2, '0')}`
    const onHand = stock.find((part) => part.number === number)?.onHand ?? 0
    if (onHand - need.quantity < 2)
      await take(coordinator, number, need.name, need.unit === 'piece' ? 12 : 25, addDays(day, -3), timeZone)
  }
}

function merged(services: Job['services']): Job['services'] {
  const tasks = [...new Set(services.map(({ task }) => task))]
  return tasks.map((task) => ({
    task,
    positions: services.filter((each) => each.task === task).flatMap(({ positions }) => positions),
  }))
}
