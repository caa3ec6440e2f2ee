import { addDays } from '@/core/calendar'
import { allPositions, parsePumpModel, splitInstance, type PumpModel } from '@/core/models'
import { type Actor, runAt, instantOf } from '@/services/house'
import { publishPumpModel, getPumpModel } from '@/services/models'
import { choosePractice } from '@/services/practices'
import { recordRenewal, startClocks } from '@/services/wear'
import { saveTool } from '@/services/tools'
import ostrelHb90 from './models/ostrel-hb90.json'
import ostrelP3200 from './models/ostrel-p3-200.json'
import ostrelP3500 from './models/ostrel-p3-500.json'
import ostrelWl2 from './models/ostrel-wl2.json'
import quillonD35 from './models/quillon-d35.json'
import quillonU20 from './models/quillon-u20.json'
import quillonX2 from './models/quillon-x2.json'
import tarnwickC5 from './models/tarnwick-c5.json'
import tarnwickK4 from './models/tarnwick-k4.json'
import vardleD22 from './models/vardle-d22.json'
import vardleM15 from './models/vardle-m15.json'
import vardleP9 from './models/vardle-p9.json'
import { idOf } from './random'

export const modelData = [
  ostrelP3200,
  ostrelP3500,
  tarnwickK4,
  quillonD35,
  quillonU20,
  ostrelWl2,
  tarnwickC5,
  quillonX2,
  vardleP9,
  vardleD22,
  vardleM15,
  ostrelHb90,
]

/** Publishes every model that is written, as the demo's first day ends. */
export async function publishModels(coordinator: Actor, begin: string, timeZone: string): Promise<void> {
  for (const data of modelData)
    await runAt(instantOf(begin, '16:00', timeZone), () =>
      publishPumpModel(coordinator, { text: JSON.stringify(data) }),
    )
}

/** Pumps of other models, all renewed so many days ago. */
const renewedAgo: [pump: string, model: string, daysAgo: number][] = [
  ['P-10', 'Ostrel P3-500', 120],
  ['P-25', 'Tarnwick K4', 150],
  ['P-33', 'Quillon D35', 100],
  ['A-01', 'Quillon U20', 90],
]

/**
 * What the company has settled about its models by now: a correction that became a second version, its
 * practices, its register of tools, and the pumps of other models on their clocks.
 */
export async function tellLibrary(coordinator: Actor, today: string, timeZone: string): Promise<void> {
  const at = <T>(daysAgo: number, work: () => Promise<T>) =>
    runAt(instantOf(addDays(today, -daysAgo), '15:20', timeZone), work)
  for (const [number, model, daysAgo] of renewedAgo)
    await at(daysAgo, () => renewAll(coordinator, number, model, addDays(today, -daysAgo)))

  await at(40, () => publishPumpModel(coordinator, correctedK4()))
  await at(60, () =>
    choosePractice(coordinator, {
      practice: 'guidePins',
      modelId: null,
      choice: 'used',
      reason: 'Two ceramic plungers cracked without them',
      version: 0,
    }),
  )
  await at(60, () =>
    choosePractice(coordinator, {
      practice: 'headBoltThreads',
      modelId: null,
      choice: 'threadlocker',
      reason: 'Trailers shake bolts loose',
      version: 0,
    }),
  )
  await at(58, () =>
    choosePractice(coordinator, {
      practice: 'goodValves',
      modelId: idOf('Tarnwick K4'),
      choice: 'inspect',
      reason: 'Kits of four come late, and most valves look new at 1 500 h',
      version: 0,
    }),
  )
  for (const tool of register(today)) await at(300, () => saveTool(coordinator, tool))
}

async function renewAll(coordinator: Actor, number: string, title: string, day: string): Promise<void> {
  const assemblyId = idOf(number)
  await startClocks(coordinator, { assemblyId, basis: 'takeOver' })
  const { shown } = await getPumpModel(coordinator, idOf(title))
  const model = shown!.model
  for (const task of model.tasks) {
    if (task.kind !== 'renew' && task.kind !== 'change') continue
    await recordRenewal(coordinator, {
      id: idOf(`renewal ${number} ${task.key}`),
      assemblyId,
      task: task.key,
      positions: allPositions(model).filter((each) => task.positions.includes(splitInstance(each).key)),
      day,
      runSince: 0,
      endReason: 'preventive',
      note: 'Overhauled before its clocks were kept here',
    })
  }
}

/** The second printing of a manual: the seal rings of the K4 are due a little earlier. */
function correctedK4() {
  const model: PumpModel = parsePumpModel(tarnwickK4)
  const corrected = {
    ...model,
    source: 'demo manual, edition 2',
    tasks: model.tasks.map((task) =>
      task.key === 'sealRings' ? { ...task, limit: { ...task.limit, hours: 850 } } : task,
    ),
  }
  return {
    text: JSON.stringify(corrected),
    seen: { 'Tarnwick K4': 1 },
    news: 'Edition 2 of the manual: seal rings at 850 h',
  }
}

function register(today: string) {
  const plain = { count: 1, rangeFrom: null, rangeTo: null, rangeUnit: 'N·m', leverMm: null, note: '' }
  const harbour = { ...plain, yardId: idOf('Harbour yard') }
  const upland = { ...plain, yardId: idOf('Upland yard') }
  const wrench = (
    number: string,
    name: string,
    rangeFrom: number,
    rangeTo: number,
    rangeUnit: string,
    calibrationDue: string,
    leverMm: number,
    where: typeof harbour = harbour,
  ) => ({
    ...where,
    id: idOf(`tool ${number}`),
    number,
    name,
    kind: 'torqueWrench' as const,
    rangeFrom,
    rangeTo,
    rangeUnit,
    leverMm,
    calibrationDue,
    place: 'bench drawer 1',
    serves: [],
  })
  const special = (
    number: string,
    name: string,
    serves: string[],
    where: typeof harbour = harbour,
    count = 1,
  ) => ({
    ...where,
    id: idOf(`tool ${number}`),
    number,
    name,
    kind: 'special' as const,
    count,
    calibrationDue: null,
    place: 'special tools cabinet',
    serves,
  })
  return [
    wrench('W-1', 'Torque wrench 5 to 25', 5, 25, 'N·m', addDays(today, 210), 280),
    wrench('W-2', 'Torque wrench 10 to 60', 10, 60, 'N·m', addDays(today, 96), 390),
    wrench('W-3', 'Torque wrench 40 to 200', 40, 200, 'N·m', addDays(today, -12), 520),
    wrench('W-4', 'Torque wrench 10 to 80 ft-lb', 10, 80, 'ft-lb', addDays(today, 33), 410, upland),
    special('S-1', 'Slide hammer', ['Slide hammer, M10']),
    special('S-2', 'Valve puller', []),
    special('S-7', 'Seat extractor with jaws', ['Valve seat extractor']),
    special('S-3', 'Guide pins M8', ['Guide pins, pair'], harbour, 2),
    special('S-4', 'Seal installer 20', ['Seal installer, 20 mm']),
    special('S-5', 'Cartridge puller with collets', ['Cartridge puller', 'Collet, 24 mm', 'Collet, 28 mm']),
    special('S-8', 'Small valve tools', ['Valve puller, small', 'Valve seat extractor, small'], upland),
    special('S-9', 'Guide pins M6', ['Guide pins M6, pair'], upland),
    special('S-10', 'Cartridge hook and stand', ['Cartridge hook', 'Cartridge stand'], upland),
    special('S-11', 'Seal extractor hooks', ['Seal extractor hook'], harbour, 2),
    special('S-12', 'Insulation tester', ['Insulation tester, 500 V']),
    special('S-6', 'Dial gauge', ['Dial gauge with magnetic foot'], upland),
  ]
}
