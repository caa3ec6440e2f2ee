import { readFileSync } from 'node:fs'
import { v7 as uuid } from 'uuid'
import type { Actor } from '@/services/house'
import { addPerson } from '@/services/access'
import { runAt } from '@/services/house'
import { addMachine, getMachine } from '@/services/fleet'
import { publishPumpModel } from '@/services/models'
import { savePumpModel } from '@/services/models'
import { recordReading } from '@/services/hours'
import { startSheet } from '@/services/sheets'
import { startClocks } from '@/services/wear'
import { bookVisit } from '@/services/plan'
import { madeOnce, makeCompany } from './database'
import { plainMachine, plainMeter } from './machine'
import { Tablet } from './serviceTablet'

export { signAsPresumed, Tablet } from './serviceTablet'

export const at = <T>(day: string, work: () => Promise<T>, time = '15:00') =>
  runAt(`${day}T${time}:00.000Z`, work)

export type Workshop = {
  coordinator: Actor
  technician: Actor
  viewer: Actor
  yardId: string
  modelId: string
  machineId: string
  meterId: string
  pumpId: string
}

/** A company with one trailer, its pump's model published, its clocks running, and 820 h on its seals. */
export function workshop(model: object = ostrelModel()): Promise<Workshop> {
  return madeOnce(JSON.stringify(model), () => makeWorkshop(model))
}

export async function makeWorkshop(model: object = ostrelModel()): Promise<Workshop> {
  const { coordinator, yardId } = await makeCompany()
  const ids = { modelId: uuid(), machineId: uuid(), meterId: uuid(), pumpId: uuid() }
  const person = (name: string, role: Actor['role']): Actor => ({ id: uuid(), name, role })
  const technician = person('M. Osei', 'technician')
  const viewer = person('A. Coyle', 'viewer')
  await at('2026-06-01', async () => {
    for (const { id, name, role } of [technician, viewer])
      await addPerson(coordinator, {
        id,
        name,
        role,
        signInName: name.slice(3).toLowerCase(),
        password: 'long enough to pass',
      })
    await savePumpModel(coordinator, {
      id: ids.modelId,
      maker: 'Ostrel',
      name: 'P3-200',
      design: '',
      note: '',
    })
    await publishPumpModel(coordinator, { text: JSON.stringify(model) })
    await addMachine(coordinator, {
      ...plainMachine('T-04', yardId, {
        id: ids.machineId,
        meter: plainMeter({ id: ids.meterId, firstTyped: '1000' }),
      }),
      pump: {
        id: ids.pumpId,
        number: 'P-04',
        modelId: ids.modelId,
        serial: '20917',
        usageScale: 'h',
        openingKind: 'known',
        openingUsage: 700,
        takenOverOn: '2026-06-01',
        note: '',
        slot: 'main pump',
        share: 100,
        shareBasis: 'own',
      } as never,
    })
    await startClocks(coordinator, { assemblyId: ids.pumpId, basis: 'pump' })
  })
  await at('2026-07-01', () => read(coordinator, ids.meterId, '2026-07-01', '1060'))
  await at('2026-08-01', () => read(coordinator, ids.meterId, '2026-08-01', '1120'))
  const machine = await getMachine(coordinator, 'T-04')
  expect(machine.meters[0]!.readings).toHaveLength(3)
  return { coordinator, technician, viewer, yardId, ...ids }
}

export function ostrelModel(): Record<string, unknown> {
  return JSON.parse(readFileSync('src/demo/models/ostrel-p3-200.json', 'utf8'))
}

function read(actor: Actor, meterId: string, day: string, typed: string) {
  return recordReading(actor, {
    id: uuid(),
    meterId,
    day,
    time: '12:00',
    typed,
    readBy: 'crew',
    note: '',
    vouched: true,
  })
}

/** A visit of the day with these services, and its sheet opened on a tablet. */
export async function bookedSheet(
  shop: Workshop,
  items: { task: string; positions: string[] }[] = [
    { task: 'hpSeals', positions: ['hpSeal@1', 'hpSeal@2', 'hpSeal@3'] },
  ],
): Promise<{ visitId: string; sheetId: string; tablet: Tablet }> {
  const visitId = uuid()
  await bookVisit(shop.coordinator, {
    id: visitId,
    items: items.map((item) => ({ assemblyId: shop.pumpId, ...item })),
    day: '2026-08-03',
    startTime: '',
    leadId: shop.technician.id,
    note: '',
  })
  const { id } = await startSheet(shop.technician, { id: uuid(), visitId })
  return { visitId, sheetId: id, tablet: new Tablet(shop.technician, id) }
}
