import { takeFrom } from '@/core/parts'
import { cumulativeHours, hoursAt } from '@/core/hours'
import type { EndReason } from '@/core/wear'
import {
  foldSheet,
  statedTorque,
  type DeviceEntryKind,
  type Payloads,
  type SentEntry,
  type SheetState,
} from '@/core/sheet'
import type { Actor } from '@/services/actor'
import { getAssembly } from '@/services/assemblies'
import { runAt } from '@/services/clock'
import { instantOf } from '@/services/days'
import { getMachine } from '@/services/fleet'
import { appendEntries } from '@/services/sheetEntries'
import { getSigning, signSheet } from '@/services/sheetSigning'
import { entriesOf, startSheet, startUnplannedSheet } from '@/services/sheets'
import { listBenchParts } from '@/services/stores'
import { bookVisit } from '@/services/visits'
import { addDays } from '@/core/calendar'
import { idOf } from './random'

/** One service as the demo tells it. */
export type Job = {
  pump: string
  day: string
  /** Without it the sheet is opened for a breakdown. */
  trouble?: string
  services: { task: string; positions: string[] }[]
  technician: Actor
  coordinator: Actor
  timeZone: string
  note?: string
  /** Said of steps whose key contains the words. */
  remarks?: { at: string; text: string }[]
  endReason?: EndReason
  seenFailingOn?: string
  /** Renewed besides what was planned. */
  besides?: { position: string; reason: string }[]
  /** More of one part used than expected: a piece was lost, a seal was nicked. */
  extra?: { part: string; quantity: number; remark: string }
  substitute?: { at: string; used: string; reason: string }
  /** Stops before the step whose key contains this, and leaves the sheet open. */
  stopBefore?: string
}

/** A tablet that works one sheet through, as a technician would, over the minutes it takes. */
class Bench {
  private sequence = 0
  private readonly written: SentEntry[] = []
  constructor(
    private readonly sheetId: string,
    private readonly begin: number,
    private readonly stepMs: number,
  ) {}

  write<Kind extends DeviceEntryKind>(
    kind: Kind,
    payload: Partial<Payloads[Kind]>,
    stepKey: string | null = null,
  ) {
    this.sequence += 1
    const entry: SentEntry = {
      id: idOf(`${this.sheetId} ${this.sequence}`),
      deviceId: idOf('bench tablet'),
      deviceSeq: this.sequence,
      seenUpTo: 1,
      deviceTime: new Date(this.begin + this.sequence * this.stepMs).toISOString(),
      stepKey,
      kind,
      payload,
    }
    this.written.push(entry)
    return entry
  }

  get ends(): string {
    return new Date(this.begin + (this.sequence + 2) * this.stepMs).toISOString()
  }

  async send(actor: Actor): Promise<void> {
    const { refused } = await runAt(this.ends, () =>
      appendEntries(actor, this.sheetId, this.written, this.ends),
    )
    if (refused[0]) throw new Error(`The demo’s sheet was refused: ${refused[0].message}`)
  }
}

/** Books the visit, works its sheet step by step, notes the parts, and signs it. */
export async function workSheet(job: Job): Promise<string> {
  const { technician, coordinator, day, timeZone } = job
  const assemblyId = idOf(job.pump)
  const items = job.services.map((service) => ({ assemblyId, ...service }))
  const id = idOf(`sheet ${job.pump} ${day}`)
  const start = instantOf(day, '08:05', timeZone)
  if (job.trouble)
    await runAt(start, () => startUnplannedSheet(technician, { id, items, trouble: job.trouble! }))
  else {
    const visitId = idOf(`visit ${job.pump} ${day}`)
    await runAt(instantOf(addDays(day, -5), '15:00', timeZone), () =>
      bookVisit(coordinator, {
        id: visitId,
        items,
        day,
        startTime: '08:00',
        leadId: technician.id,
        note: '',
      }),
    )
    await runAt(start, () => startSheet(technician, { id, visitId }))
  }
  const state = await readState(id)
  const bench = new Bench(id, Date.parse(start), (state.content.minutes * 60_000) / (state.steps.length + 4))
  await writeSheet(bench, state, job, start)
  await bench.send(technician)
  if (job.stopBefore) return id
  await runAt(bench.ends, async () => {
    const { upTo, ending } = await getSigning(technician, id)
    await signSheet(technician, {
      id: idOf(`signed ${id}`),
      sheetId: id,
      seenUpTo: upTo,
      ended: ending.map(({ assemblyId: pump, position, presumed, planned }) => ({
        assemblyId: pump,
        position,
        endReason: planned && job.endReason ? job.endReason : presumed,
        seenFailingOn: (planned && job.seenFailingOn) || null,
      })),
      note: job.note ?? '',
    })
  })
  return id
}

async function writeSheet(bench: Bench, state: SheetState, job: Job, start: string): Promise<void> {
  for (const meter of state.content.meters) {
    const typed = await shownAt(job, meter.id, start)
    bench.write('reading', { meterId: meter.id, typed, unreadable: '', vouched: true })
  }
  let safe = false
  for (const each of state.steps) {
    const { key, step } = each.step
    if (job.stopBefore && key.includes(job.stopBefore)) break
    // Nothing stayed behind in any bore, so what hangs on that is not done.
    if (step.when) continue
    if (each.step.phase !== 'makeSafe' && !safe) {
      bench.write('madeSafe', { name: job.technician.name })
      safe = true
    }
    const other = job.substitute
    if (other && key.includes(other.at) && step.tools[0])
      bench.write(
        'substitute',
        { tool: toolName(state, step.tools[0]), used: other.used, reason: other.reason },
        key,
      )
    bench.write('done', answersTo(state, each), key)
    for (const remark of job.remarks ?? [])
      if (key.includes(remark.at)) bench.write('remark', { text: remark.text }, key)
  }
  for (const { position, reason } of job.besides ?? [])
    bench.write('renewed', { assemblyId: idOf(job.pump), position, reason })
  if (job.stopBefore === undefined) await noteParts(bench, state, job)
}

async function noteParts(bench: Bench, state: SheetState, job: Job): Promise<void> {
  const stock = await listBenchParts(job.technician)
  const modelId = state.content.assemblies[0]!.modelId
  for (const need of state.content.parts) {
    const part = stock.find((each) =>
      each.fits.some((fit) => fit.modelId === modelId && fit.part === need.part),
    )
    const more = job.extra?.part === need.part ? job.extra.quantity : 0
    for (const share of takeFrom(part?.lots ?? [], need.quantity + more))
      take(share.quantity, part, share.lotId)
    function take(quantity: number, from: (typeof stock)[number] | undefined, lotId: string | null) {
      bench.write('part', {
        partId: from?.id ?? null,
        lotId,
        name: from?.name ?? need.name,
        unit: need.unit,
        quantity,
        assemblyId: need.assemblyId,
        part: need.part,
      })
    }
  }
  if (job.extra) bench.write('remark', { text: job.extra.remark })
}

/** What a technician enters: the stated torque as pulled, a measure inside its limits, nothing found. */
function answersTo(state: SheetState, each: SheetState['steps'][number]): Payloads['done'] {
  const { step } = each.step
  const fastener = state.content.assemblies[0]!.fasteners.find((candidate) => candidate.key === step.fastener)
  const { measure } = step
  const middle = measure ? Math.round(((measure.min ?? 0) + (measure.max ?? measure.min ?? 0)) * 5) / 10 : 0
  return {
    measure: measure ? { value: middle, unit: measure.unit } : null,
    torque: statedTorque(state, each),
    answer: step.asks?.answers[0] ?? '',
    reason: fastener?.torque.state === 'notGiven' ? '22 N·m, page 9 of the demo manual' : '',
  }
}

const toolName = (state: SheetState, key: string) =>
  state.content.tools.find((tool) => tool.key === key)?.name ?? key

async function readState(sheetId: string): Promise<SheetState> {
  return foldSheet(await entriesOf(sheetId))!
}

/** What a meter of the pump’s machine showed at an instant, between the readings around it. */
async function shownAt(job: Job, meterId: string, at: string): Promise<string> {
  const pump = await getAssembly(job.coordinator, job.pump)
  const number = pump.stays.findLast((stay) => stay.at <= at)?.machineNumber ?? ''
  const machine = await getMachine(job.coordinator, number)
  const meter = machine.meters.find((each) => each.id === meterId)!
  const line = cumulativeHours(meter.history.readings, meter.history.events)
  return (hoursAt(line, at) ?? 0).toFixed(1)
}
