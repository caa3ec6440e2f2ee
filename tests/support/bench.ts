import { readFileSync } from 'node:fs'
import { v7 as uuid } from 'uuid'
import type { Actor } from '@/services/actor'
import { addPerson } from '@/services/people'
import { runAt } from '@/services/clock'
import { addMachine, getMachine } from '@/services/fleet'
import { publishPumpModel } from '@/services/modelPublishing'
import { savePumpModel } from '@/services/pumpModels'
import { recordReading } from '@/services/readings'
import { entriesOf } from '@/services/sheets'
import { appendEntries, type EntriesAnswer } from '@/services/sheetEntries'
import { startClocks } from '@/services/renewals'
import { foldSheet, type DeviceEntryKind, type Payloads, type SentEntry, type SheetState } from '@/core/sheet'
import { freshCompany } from './database'
import { plainMachine, plainMeter } from './machine'

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
export async function workshop(model: object = ostrelModel()): Promise<Workshop> {
  const { coordinator, yardId } = await freshCompany()
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

/** A tablet on one sheet: numbers its entries and knows what it has seen. */
export class Tablet {
  private sequence = 0
  seenUpTo = 0
  constructor(
    readonly actor: Actor,
    readonly sheetId: string,
    readonly deviceId: string = uuid(),
  ) {}

  entry<Kind extends DeviceEntryKind>(
    kind: Kind,
    payload: Partial<Payloads[Kind]>,
    stepKey: string | null = null,
  ): SentEntry {
    this.sequence += 1
    return {
      id: uuid(),
      deviceId: this.deviceId,
      deviceSeq: this.sequence,
      seenUpTo: this.seenUpTo,
      deviceTime: '2026-08-03T09:00:00.000Z',
      stepKey,
      kind,
      payload,
    }
  }

  async send(...entries: SentEntry[]): Promise<EntriesAnswer> {
    const answer = await appendEntries(this.actor, this.sheetId, entries, '2026-08-03T09:00:00.000Z')
    this.seenUpTo = Math.max(this.seenUpTo, ...answer.entries.map((entry) => entry.sequence))
    return answer
  }

  async state(): Promise<SheetState> {
    return foldSheet(await entriesOf(this.sheetId))!
  }

  /** Ticks every open step in order, with what it asks for; stops before `until`. */
  async tickAll(until?: string): Promise<void> {
    for (;;) {
      const state = await this.state()
      const open = state.steps.filter((each) => each.state === 'open')
      const next = open[0]
      if (!next || (until && next.step.key.includes(until))) return
      if (next.step.phase !== 'makeSafe' && !state.madeSafe) {
        await this.all(this.entry('madeSafe', { name: this.actor.name }))
        continue
      }
      await this.all(this.entry('done', answersTo(state, next), next.step.key))
    }
  }

  private async all(entry: SentEntry): Promise<void> {
    const { refused } = await this.send(entry)
    expect(refused).toEqual([])
  }
}

/** What a technician would enter at a step: the stated torque, a measure inside its limits, the first answer. */
export function answersTo(state: SheetState, { step }: SheetState['steps'][number]): Payloads['done'] {
  const { measure, asks, fastener, stage } = step.step
  const torque = state.content.assemblies[0]!.fasteners.find((each) => each.key === fastener)?.torque
  const value = torque?.state === 'stated' ? (torque.stages[(stage ?? 0) - 1] ?? torque.value) : null
  return {
    measure: measure ? { value: ((measure.min ?? 0) + (measure.max ?? 0)) / 2, unit: measure.unit } : null,
    torque: torque?.state === 'stated' && value !== null ? { value, unit: torque.unit } : null,
    answer: asks?.answers[0] ?? '',
    reason: torque?.state === 'notGiven' ? '22 N·m, manual page 9' : '',
  }
}
