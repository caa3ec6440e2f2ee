import { readFileSync } from 'node:fs'
import { v7 as uuid } from 'uuid'
import type { Actor } from '@/services/house'
import { addPerson } from '@/services/access'
import { runAt } from '@/services/house'
import { addMachine, getMachine } from '@/services/fleet'
import { publishPumpModel } from '@/services/models'
import { savePumpModel } from '@/services/models'
import { recordReading } from '@/services/hours'
import { entriesOf, startSheet } from '@/services/sheets'
import { appendEntries, type EntriesAnswer } from '@/services/sheets/bench/entries'
import { startClocks } from '@/services/wear'
import { bookVisit } from '@/services/plan'
import type { Fastener } from '@/core/models'
import {
  fastenerOf,
  partsOpen,
  sheetState,
  statedTorque,
  unseen,
  valvesBack,
  wantsLookingUp,
  type DeviceEntryKind,
  type Done,
  type Payloads,
  type SentEntry,
  type SheetState,
} from '@/core/sheets'
import { madeOnce, makeCompany } from './database'
import { plainFinding } from './finding'
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
export function workshop(model: object = ostrelModel()): Promise<Workshop> {
  return madeOnce(JSON.stringify(model), () => makeWorkshop(model))
}

async function makeWorkshop(model: object): Promise<Workshop> {
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
      authorId: this.actor.id,
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
    return sheetState(await entriesOf(this.sheetId))!
  }

  /** Ticks every open step in order, with what it asks for; stops before `until`. */
  async tickAll(until?: string): Promise<void> {
    for (;;) {
      const state = await this.state()
      const open = state.steps.filter((each) => each.state === 'open')
      const next = open[0]
      if (!next) return until ? undefined : this.sayTheRest(state)
      if (until && next.step.key.includes(until)) return
      if (next.step.phase !== 'makeSafe' && !state.madeSafe) {
        await this.all(this.entry('madeSafe', { name: this.actor.name, round: state.safeRound }))
        continue
      }
      if (next.step.step.locks)
        await this.all(
          this.entry(
            'lock',
            { name: this.actor.name, goes: next.step.step.locks, reason: '' },
            next.step.key,
          ),
        )
      const fastener = fastenerOf(state, next)
      if (fastener && wantsLookingUp(fastener))
        await this.all(this.entry('torqueSet', lookedUp(next.step.assemblyId, fastener)))
      await this.all(this.entry('done', answersTo(await this.state(), next), next.step.key))
    }
  }

  /** What signing asks besides the steps: what was seen on the old parts, and what became of the new. */
  private async sayTheRest(state: SheetState): Promise<void> {
    const { assemblies } = state.content
    for (const { assemblyId, position } of unseen(state)) {
      const about = assemblies
        .find((each) => each.id === assemblyId)!
        .positions.find((each) => each.key === position)!
      await this.all(
        this.entry('finding', plainFinding(assemblyId, position, { sort: about.sort ?? 'other' })),
      )
    }
    for (const { assemblyId, part } of partsOpen(state))
      await this.all(this.entry('notUsed', { assemblyId, part, reason: 'noted on paper' }))
  }

  private async all(entry: SentEntry): Promise<void> {
    const { refused } = await this.send(entry)
    expect(refused).toEqual([])
  }
}

/** A torque as somebody found it in the manual: the stated one, or 22 N·m where none is stated. */
export function lookedUp(assemblyId: string, { key, torque }: Fastener): Payloads['torqueSet'] {
  const { value, unit } = torque.state === 'stated' ? torque : { value: 22, unit: 'N·m' }
  return { assemblyId, fastener: key, value, unit, page: 'manual page 9' }
}

/** What a technician would enter at a step: the stated torque, a measure inside its limits, the first answer. */
export function answersTo(state: SheetState, each: SheetState['steps'][number]): Done {
  const { measure, asks, timer, setting, fastener } = each.step.step
  return {
    measure: measure
      ? { value: ((measure.min ?? 0) + (measure.max ?? measure.min ?? 0)) / 2, unit: measure.unit }
      : null,
    torque: statedTorque(state, each),
    answer: asks?.answers[0] ?? '',
    reason: timer && fastener === null ? 'left standing long enough' : '',
    setting: setting ? 'three turns out' : '',
    ...(each.step.step.key === 'toolsBack' && { ownBores: valvesBack(state).map(({ key }) => key) }),
  }
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
