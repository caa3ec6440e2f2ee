import { v7 as uuid } from 'uuid'
import type { Fastener } from '@/core/models'
import {
  currentStep,
  fastenerOf,
  partsOpen,
  sheetState,
  statedTorque,
  unseen,
  valvesBack,
  boltPlaces,
  looksUpFirst,
  whereWorkStands,
  type DeviceEntryKind,
  type Done,
  type Payloads,
  type SentEntry,
  type SheetEntry,
  type SheetState,
  type StepState,
} from '@/core/sheets'
import { plainFinding } from './finding'

type Answer = { taken: string[]; refused: { message: string }[]; entries: SheetEntry[] }

/** A tablet on one sheet: numbers its entries, knows what it has seen, and can work a sheet by itself. */
export abstract class BenchTablet<Answered extends Answer = Answer> {
  private sequence = 0
  seenUpTo = 0
  constructor(
    readonly actor: { id: string; name: string },
    readonly sheetId: string,
    readonly deviceId: string = uuid(),
  ) {}

  protected abstract takeIn(entries: SentEntry[]): Promise<Answered>
  abstract state(): Promise<SheetState>
  /** What its clock shows. */
  protected now(): string {
    return '2026-08-03T09:00:00.000Z'
  }

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
      deviceTime: this.now(),
      stepKey,
      kind,
      payload,
    }
  }

  async send(...entries: SentEntry[]): Promise<Answered> {
    const answer = await this.takeIn(entries)
    this.seenUpTo = Math.max(this.seenUpTo, ...answer.entries.map((entry) => entry.sequence))
    return answer
  }

  /** Ticks every open step in order, with what it asks for; stops before the step whose key contains `until`. */
  async tickAll(until?: string): Promise<void> {
    const stoppedAt = await this.work((step) => until !== undefined && step.step.key.includes(until))
    if (stoppedAt === null && until === undefined) await this.sayTheRest(await this.state())
  }

  /** Does open steps until one is to be stopped at; null where none was. */
  protected async work(stopsAt: (step: StepState, state: SheetState) => boolean): Promise<StepState | null> {
    for (;;) {
      const state = await this.state()
      const next = currentStep(state)
      if (!next) return null
      if (stopsAt(next, state)) return next
      if (whereWorkStands(state).at === 'madeSafe') {
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
      if (fastener && looksUpFirst(state, next))
        await this.all(this.entry('torqueSet', lookedUp(next.step.assemblyId, fastener)))
      // Bolts of places that pins stood in are called one by one.
      if (next.step.step.places === 'pinned')
        for (const { place, bolt } of boltPlaces(state, next))
          await this.all(this.entry('bolt', { place, bolt, torque: null, reason: '' }, next.step.key))
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
    if (refused.length > 0) throw new Error(`Refused: ${JSON.stringify(refused)}`)
  }
}

/** A tablet that talks to a running server, as whoever the cookie belongs to. */
export class RemoteTablet extends BenchTablet {
  private constructor(
    private readonly address: { url: string; cookie: string },
    actor: { id: string; name: string },
    sheetId: string,
    private entries: SheetEntry[],
  ) {
    super(actor, sheetId)
  }

  static async at(url: string, cookie: string, sheetId: string): Promise<RemoteTablet> {
    const found = await fetch(`${url}/api/sheets/${sheetId}/entries?after=0`, { headers: { cookie } })
    const { actor, entries } = (await found.json()) as Answer & { actor: { id: string; name: string } }
    const tablet = new RemoteTablet({ url, cookie }, actor, sheetId, entries)
    tablet.seenUpTo = entries.at(-1)?.sequence ?? 0
    return tablet
  }

  protected override now(): string {
    return new Date().toISOString()
  }

  protected async takeIn(sent: SentEntry[]): Promise<Answer> {
    const { url, cookie } = this.address
    const answer = await fetch(`${url}/api/sheets/${this.sheetId}/entries`, {
      method: 'POST',
      headers: { cookie, origin: url, 'content-type': 'application/json', 'x-sent-at': this.now() },
      body: JSON.stringify(sent),
    })
    const answered = (await answer.json()) as Answer
    this.entries = [...this.entries, ...answered.entries]
    return answered
  }

  async state(): Promise<SheetState> {
    return sheetState(this.entries)!
  }

  /**
   * Does open steps until the bench would show a title with these words: the text of a step, the question
   * whether all is safe, or that nothing is left to do.
   */
  async forwardTo(words: string): Promise<void> {
    const gate = 'Is everything safe to open?'
    const stoppedAt = await this.work(({ step }, state) => {
      const asksSafe = whereWorkStands(state).at === 'madeSafe'
      return asksSafe ? gate.includes(words) : step.step.text.includes(words)
    })
    if (stoppedAt === null && !'Not ready to be signed yet'.includes(words))
      throw new Error(`The sheet never came to “${words}”: every step of it is done.`)
  }
}

/** A torque as somebody found it in the manual: the stated one, or 22 N·m where none is stated. */
function lookedUp(assemblyId: string, { key, torque }: Fastener): Payloads['torqueSet'] {
  const { value, unit } = torque.state === 'stated' ? torque : { value: 22, unit: 'N·m' }
  return { assemblyId, fastener: key, value, unit, page: 'manual page 9' }
}

/** What a technician would enter at a step: the stated torque, a measure inside its limits, the first answer. */
function answersTo(state: SheetState, each: SheetState['steps'][number]): Done {
  const { measure, asks, timer, setting, fastener } = each.step.step
  const { min = null, max = null } = measure ?? {}
  const closing = state.content.winter?.meters[each.step.key]
  const read = state.readings.find(({ payload }) => payload.meterId === closing)?.payload.typed
  return {
    measure: measure
      ? { value: Number(read ?? ((min ?? max ?? 0) + (max ?? min ?? 0)) / 2), unit: measure.unit }
      : null,
    torque: statedTorque(state, each),
    answer: asks?.answers[0] ?? '',
    reason: timer && fastener === null ? 'left standing long enough' : '',
    setting: setting ? 'three turns out' : '',
    ...(each.step.step.key === 'toolsBack' && { ownBores: valvesBack(state).map(({ key }) => key) }),
  }
}
