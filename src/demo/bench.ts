import { stockedFor, takeFrom } from '@/core/stores'
import { cumulativeHours, hoursAt } from '@/core/hours'
import type { Damage, Extent } from '@/core/inspection'
import type { EndReason } from '@/core/wear'
import {
  boltPlaces,
  fastenerOf,
  sheetState,
  statedTorque,
  looksUpFirst,
  type DeviceEntryKind,
  type Payloads,
  type SentEntry,
  type SheetState,
} from '@/core/sheets'
import { type Actor, runAt, instantOf } from '@/services/house'
import { getAssembly, getMachine } from '@/services/fleet'
import {
  appendEntries,
  takeInEntries,
  getSigning,
  signSheet,
  entriesOf,
  startSheet,
  startUnplannedSheet,
} from '@/services/sheets'
import { listBenchParts } from '@/services/stores'
import { checksOf, recordEarlyCheck } from '@/services/wear'
import { bookVisit } from '@/services/plan'
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
  /** What was seen on old parts; on the others nothing. */
  seen?: { position: string; damages: Damage[]; extent?: Extent; words?: string }[]
  /** Other than the first answer of a question, by words of its step’s key. */
  answers?: { at: string; answer: string }[]
  /** Parts that what was found asked for, besides the planned. */
  used?: { part: string; quantity: number }[]
  /** Renewed besides what was planned. */
  besides?: { position: string; reason: string }[]
  /** More of one part used than expected: a piece was lost, a seal was nicked. */
  extra?: { part: string; quantity: number; remark: string }
  substitute?: { at: string; used: string; reason: string }
  /**
   * Somebody else had ticked on the same tablet and could not send it any more: said so, and why, by the
   * coordinator who took it in.
   */
  shared?: { author: Actor; remarks: { at: string; text: string }[]; why: string }
  /** Stops before the step whose key contains this, and leaves the sheet open. */
  stopBefore?: string
}

/** A tablet that works one sheet through, as a technician would, over the minutes it takes. */
class Bench {
  private sequence = 0
  private readonly written: Omit<SentEntry, 'authorId'>[] = []
  private readonly said = new Set<string>()
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
    const entry: Omit<SentEntry, 'authorId'> = {
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

  once(what: string, say: () => void): void {
    if (this.said.has(what)) return
    this.said.add(what)
    say()
  }

  get ends(): string {
    return new Date(this.begin + (this.sequence + 2) * this.stepMs).toISOString()
  }

  async send(actor: Actor): Promise<void> {
    const { refused } = await runAt(this.ends, () =>
      appendEntries(
        actor,
        this.sheetId,
        this.written.map((entry) => ({ ...entry, authorId: actor.id })),
        this.ends,
      ),
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
  const bench = new Bench(id, Date.parse(start), (state.content.minutes * 60_000) / entriesFor(state))
  await writeSheet(bench, state, job, start)
  await bench.send(technician)
  if (job.shared) await takeInShared(id, job.shared, job.coordinator, bench.ends)
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

/** What another had written on the tablet before it went into other hands. */
async function takeInShared(
  sheetId: string,
  { author, remarks, why }: NonNullable<Job['shared']>,
  coordinator: Actor,
  at: string,
): Promise<void> {
  const { steps } = await readState(sheetId)
  const entries = remarks.map(({ at: where, text }, index): SentEntry => ({
    id: idOf(`${sheetId} shared ${index}`),
    authorId: author.id,
    deviceId: idOf(`bench tablet ${author.id}`),
    deviceSeq: index + 1,
    seenUpTo: 1,
    deviceTime: new Date(Date.parse(at) - 90 * 60_000).toISOString(),
    stepKey: steps.find(({ step }) => step.key.includes(where))?.step.key ?? null,
    kind: 'remark',
    payload: { text },
  }))
  const { refused, held } = await runAt(at, () => takeInEntries(coordinator, sheetId, entries, why, at))
  const [first] = [...refused, ...held]
  if (first) throw new Error(`The demo’s shared tablet was refused: ${first.message}`)
}

/** About how many entries a sheet takes: steps, bolts, what was seen, parts. */
function entriesFor(state: SheetState): number {
  const bolts = state.steps.reduce((sum, each) => sum + boltPlaces(state, each).length, 0)
  return state.steps.length + bolts + state.content.parts.length + 12
}

async function writeSheet(bench: Bench, state: SheetState, job: Job, start: string): Promise<void> {
  for (const meter of state.content.meters) {
    const typed = await shownAt(job, meter.id, start)
    bench.write('reading', { meterId: meter.id, typed, unreadable: '', vouched: true })
  }
  let safe = false
  const lookedUp = new Set<string>()
  for (const each of state.steps) {
    const { key, step } = each.step
    if (job.stopBefore && key.includes(job.stopBefore)) break
    // What hangs on another answer than the one that is always given is not done.
    if (step.when && ![step.when.is].flat().includes(answerBefore(state, job, each, step.when.question)))
      continue
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
    if (step.locks) bench.write('lock', { name: job.technician.name, goes: step.locks, reason: '' }, key)
    const fastener = fastenerOf(state, each)
    if (fastener && looksUpFirst(state, each) && !lookedUp.has(fastener.key)) {
      const { value, unit } =
        fastener.torque.state === 'stated' ? fastener.torque : { value: 22, unit: 'N·m' }
      const page = fastener.torque.state === 'stated' ? fastener.torque.source : 'page 9 of the demo manual'
      bench.write('torqueSet', {
        assemblyId: each.step.assemblyId,
        fastener: fastener.key,
        value,
        unit,
        page,
      })
      lookedUp.add(fastener.key)
    }
    if (isLook(each)) look(bench, state, job, each)
    writeBolts(bench, state, each)
    bench.write('done', { ...answersTo(state, each), answer: answerAt(job, each) }, key)
    for (const remark of job.remarks ?? [])
      if (key.includes(remark.at)) bench.write('remark', { text: remark.text }, key)
  }
  for (const { position, reason } of job.besides ?? [])
    bench.write('renewed', { assemblyId: idOf(job.pump), position, reason })
  if (job.stopBefore === undefined) {
    for (const position of positionsRenewed(state, job)) lookAt(bench, state, job, position)
    await noteParts(bench, state, job)
  }
}

/** Nothing stayed behind, everything was sound: the first answer of a question, unless the story has another. */
function answerAt(job: Job, { step }: SheetState['steps'][number]): string {
  const told = job.answers?.find(({ at }) => step.key.includes(at))
  return step.step.asks ? (told?.answer ?? step.step.asks.answers[0]!) : ''
}

/** The answer on which a step hangs, given at its own cylinder where each has its own. */
function answerBefore(
  state: SheetState,
  job: Job,
  { step: { key } }: SheetState['steps'][number],
  question: string,
): string {
  const index = (words: string) => /@(\d+)/.exec(words)?.[1]
  const asking = state.steps.filter(({ step }) => step.step.asks?.question === question)
  const own = asking.find(({ step }) => index(step.key) === index(key)) ?? asking[0]
  return own ? answerAt(job, own) : ''
}

/** What was renewed: planned, and besides. */
function positionsRenewed(state: SheetState, job: Job): string[] {
  return [
    ...state.positions
      .filter(({ assemblyId, position, planned }) => planned && !onCondition(state, assemblyId, position))
      .map(({ position }) => position),
    // Of what was only looked at, what the story found bad.
    ...(job.seen ?? []).map(({ position }) => position).filter((each) => isPlanned(state, each)),
    ...(job.besides ?? []).map(({ position }) => position),
  ]
}

const isPlanned = (state: SheetState, position: string) =>
  state.positions.some((each) => each.planned && each.position === position)

/** Whether a sheet looks at a position and renews it only where it is bad. */
function onCondition(state: SheetState, assemblyId: string, position: string): boolean {
  const tasks = state.content.assemblies
    .find(({ id }) => id === assemblyId)!
    .tasks.filter(({ positions }) => positions.includes(position))
  return tasks.length > 0 && tasks.every(({ kind }) => kind === 'condition')
}

/** An inspection step about one position. */
function isLook({ step }: SheetState['steps'][number]): boolean {
  return step.phase === 'inspect' && step.position !== null && step.step.asks === null
}

function look(bench: Bench, state: SheetState, job: Job, { step }: SheetState['steps'][number]): void {
  if (step.position) lookAt(bench, state, job, step.position)
}

/** What was seen on a part, each once: what the story says, or nothing. */
function lookAt(bench: Bench, state: SheetState, job: Job, position: string): void {
  const assembly = state.content.assemblies[0]!
  const sort = assembly.positions.find((each) => each.key === position)?.sort ?? 'other'
  const told = job.seen?.find((each) => each.position === position)
  const renewed = isPlanned(state, position) && !onCondition(state, assembly.id, position)
  bench.once(`finding ${position}`, () =>
    bench.write('finding', {
      assemblyId: assembly.id,
      position,
      what: '',
      sort,
      damages: told?.damages ?? [],
      extent: told?.extent ?? '',
      disposition: renewed || told ? 'renew' : 'reuse',
      words: told?.words ?? '',
    }),
  )
}

/** Every bolt of a pass, in its order. */
function writeBolts(bench: Bench, state: SheetState, each: SheetState['steps'][number]): void {
  const torque = statedTorque(state, each)
  for (const { place, bolt } of boltPlaces(state, each))
    bench.write('bolt', { place, bolt, torque, reason: '' }, each.step.key)
}

async function noteParts(bench: Bench, state: SheetState, job: Job): Promise<void> {
  const stock = await listBenchParts(job.technician)
  const modelId = state.content.assemblies[0]!.modelId
  const found = (job.used ?? []).flatMap(({ part, quantity }) => {
    const spare = (state.content.spares ?? []).find((each) => each.part === part)
    return spare ? [{ ...spare, quantity }] : []
  })
  for (const need of [...state.content.parts, ...found]) {
    const part = stockedFor(stock, { modelId, part: need.part }) ?? undefined
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
  const { measure, timer } = step
  return {
    measure: measure && measured(state, measure),
    torque: statedTorque(state, each) ?? lookedUpHere(state, each),
    answer: '',
    ...(step.setting && !measure && { setting: 'four and a half turns' }),
    reason: timer && step.fastener === null ? 'Proved with the gun open; to pressure after the night.' : '',
  }
}

/** Inside the limits, not always in their middle; flow as bucket and watch have it on such a pump. */
function measured(
  state: SheetState,
  { what, unit, min, max }: NonNullable<SheetState['steps'][number]['step']['step']['measure']>,
): NonNullable<Payloads['done']['measure']> {
  const [low, high] = min === null || max === null ? [14.2, 15.1] : [min, max]
  // The same sheet measures the same each time the demo is made.
  const chance =
    parseInt(
      idOf(
        `${state.content.assemblies[0]!.id} ${state.readings.length} ${state.steps.length} ${what} ${state.positions.map((each) => each.planned)}`,
      ).slice(0, 4),
      16,
    ) / 0xffff
  const value = low + (high - low) * (0.25 + 0.5 * chance)
  const how = unit === 'L/min' ? 'bucket and watch' : ''
  return { value: Number(value.toPrecision(3)), unit, how }
}

/** What was looked up for a fastener that the model gives no value for. */
function lookedUpHere(state: SheetState, each: SheetState['steps'][number]): Payloads['done']['torque'] {
  return fastenerOf(state, each)?.torque.state === 'notGiven' ? { value: 22, unit: 'N·m' } : null
}

const toolName = (state: SheetState, key: string) =>
  state.content.tools.find((tool) => tool.key === key)?.name ?? key

async function readState(sheetId: string): Promise<SheetState> {
  return sheetState(await entriesOf(sheetId))!
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

/** Somebody looked at it after its first hours, and all was well. */
export async function passEarlyCheck({ day, technician, timeZone }: Job, assemblyId: string): Promise<void> {
  await runAt(instantOf(addDays(day, 6), '15:10', timeZone), async () => {
    for (const check of await checksOf(technician, assemblyId))
      if (check.result === null)
        await recordEarlyCheck(technician, {
          id: check.id,
          version: check.version,
          result: 'good',
          words: 'Weep holes dry, oil clear',
          symptom: '',
        })
  })
}
