import fc from 'fast-check'
import { damagesOf, usualDisposition } from '@/core/inspection'
import {
  alwaysRenewed,
  blockedBy,
  borePieces,
  boltPlaces,
  currentStep,
  fastenerOf,
  isLook,
  keptSettings,
  locksOn,
  nextBolt,
  notReady,
  partsOpen,
  proofStops,
  refusal,
  sheetState,
  sortAt,
  soundFinding,
  statedTorque,
  stopped,
  toRenew,
  unfinished,
  unseen,
  valvesBack,
  looksUpFirst,
  wentBack,
  type DeviceEntryKind,
  type Done,
  type Payloads,
  type SheetContent,
  type SheetEntry,
  type SheetState,
  type StepState,
} from '@/core/sheets'
import { recomposeSheet, type ChosenTask } from '@/core/composing'
import type { CompanyPractices } from '@/core/practices'
import type { PumpModel } from '@/core/models'
import { anyJob } from '../composing/arbitraries'
import { contentFor, entry, nothing, read, restart } from './fixture'

/** Somebody who works a sheet as the bench offers it, with a choice wherever there is one. */
class Worker {
  private entries: SheetEntry[]
  private minutes = 0

  constructor(
    content: SheetContent,
    private readonly choose: (upTo: number) => number,
  ) {
    restart()
    this.entries = [entry('composed', content), read()]
  }

  get state(): SheetState {
    return sheetState(this.entries)!
  }

  private get now(): string {
    return new Date(Date.parse('2026-10-14T08:00:00.000Z') + this.minutes * 60_000).toISOString()
  }

  /** Writes what the rules allow; fails with their sentence where they do not. */
  write<Kind extends DeviceEntryKind>(kind: Kind, payload: Payloads[Kind], stepKey: string | null = null) {
    this.minutes += 1
    const sent = { kind, payload, stepKey }
    expect([kind, stepKey, refusal(this.state, sent, { byName: 'M. Osei', now: this.now })]).toEqual([
      kind,
      stepKey,
      null,
    ])
    this.entries.push(entry(kind, payload, { stepKey, at: this.now } as Partial<SheetEntry<Kind>>))
  }

  /** Composes it anew with what was found on the way, as the server does. */
  addWork(model: PumpModel, tasks: ChosenTask[], practices: CompanyPractices) {
    const { state } = this
    const done = new Set(
      state.steps
        .filter((each) => each.state === 'done' || each.state === 'skipped')
        .map(({ step }) => step.key),
    )
    const { steps, parts } = recomposeSheet(
      state.steps.map(({ step }) => step),
      (key) => done.has(key),
      { assemblies: [{ id: 'pump', model, tasks }] },
      practices,
    )
    this.entries.push(entry('composed', { ...contentFor(model, tasks, practices), steps, parts }))
  }

  /** Does steps until none is left, or so many; answers with how many. */
  work(most = Number.POSITIVE_INFINITY): number {
    for (let steps = 0; ; steps += 1) {
      if (steps >= most) return steps
      const { state } = this
      const step = currentStep(state)
      if (!state.madeSafe && step?.step.phase !== 'makeSafe') {
        this.write('madeSafe', { name: 'M. Osei', round: state.safeRound })
        continue
      }
      if (!step) return steps
      this.doStep(step)
    }
  }

  private doStep(each: StepState) {
    const { step, assemblyId, position, key } = each.step
    const fastener = fastenerOf(this.state, each)
    if (fastener && looksUpFirst(this.state, each)) {
      const { value, unit } =
        fastener.torque.state === 'stated' ? fastener.torque : { value: 22, unit: 'N·m' }
      this.write('torqueSet', { assemblyId, fastener: fastener.key, value, unit, page: 'page 9' })
    }
    if (isLook(each) && position) this.look(assemblyId, position, key)
    if (step.locks === 'on') this.write('lock', { name: 'M. Osei', goes: 'on', reason: '' }, key)
    if (step.locks === 'off')
      for (const { name } of locksOn(this.state)) this.write('lock', { name, goes: 'off', reason: '' }, key)
    if (step.timer?.kind === 'soak') {
      this.write('timer', { kind: 'soak', name: 'soak', minutes: step.timer.minutes }, key)
      this.minutes += step.timer.minutes
    }
    if (step.timer?.kind === 'cured') this.minutes += step.timer.minutes
    const places = boltPlaces(this.state, each)
    const boltByBolt = places.length > 0 && (step.places === 'pinned' || this.choose(2) === 0)
    if (boltByBolt) for (const _ of places) this.pull(key)
    this.write('done', this.answer(key), key)
  }

  private pull(key: string) {
    const each = this.at(key)
    const { place, bolt } = nextBolt(this.state, each)!
    this.write('bolt', { place, bolt, torque: statedTorque(this.state, each), reason: '' }, key)
  }

  private at(key: string): StepState {
    return this.state.steps.find(({ step }) => step.key === key)!
  }

  /** Nothing seen, or something of what the part is looked at for, with what is usually decided. */
  private look(assemblyId: string, position: string, key: string) {
    const { state } = this
    const sort = sortAt(state, assemblyId, position)
    const damages = damagesOf[sort].filter(() => this.choose(4) === 0)
    const disposition = usualDisposition(sort, damages, alwaysRenewed(state, { assemblyId, position }))
    this.write('finding', { ...soundFinding(state, assemblyId, position), damages, disposition }, key)
  }

  private answer(key: string): Done {
    const { state } = this
    const each = this.at(key)
    const { measure, asks, setting } = each.step.step
    const noted = keptSettings(state).find(({ what }) => what === setting?.what)?.noted ?? ''
    const bore = borePieces(state).find(({ step }) => step.step.key === key)
    return {
      ...nothing,
      torque: statedTorque(state, each),
      measure: measure && {
        value: ((measure.min ?? 0) + (measure.max ?? measure.min ?? 0)) / 2,
        unit: measure.unit,
      },
      answer: asks ? asks.answers[this.choose(asks.answers.length)]! : '',
      ...(setting && { setting: noted || 'three turns out' }),
      ...(bore && {
        pieces: bore.pieces.map(({ part, pieces, fate }) => ({ part, pieces, fate, reason: '' })),
      }),
      ...(each.step.step.key === 'toolsBack' && { ownBores: valvesBack(state).map((valve) => valve.key) }),
    }
  }

  /** What is left at the end, each settled by what the end of the sheet offers for it. */
  settle() {
    for (const { assemblyId, position } of unseen(this.state))
      this.write('finding', soundFinding(this.state, assemblyId, position))
    for (const { step } of proofStops(this.state))
      this.write('done', { ...nothing, reason: 'allowed by the manual, page 40' }, step.key)
    for (const { payload } of stopped(this.state))
      this.write('finding', { ...payload, disposition: 'renew', words: 'decided by phone' })
    for (const { payload } of [...toRenew(this.state), ...wentBack(this.state)])
      this.write('kept', {
        assemblyId: payload.assemblyId,
        position: payload.position!,
        reason: 'none in stock, booked',
      })
    for (const { assemblyId, position, planned, state } of this.state.positions)
      if (planned && state === 'open') this.write('renewed', { assemblyId, position, reason: 'as told' })
    for (const { assemblyId, position } of unseen(this.state))
      this.write('finding', soundFinding(this.state, assemblyId, position))
    for (const { assemblyId, part } of partsOpen(this.state))
      this.write('notUsed', { assemblyId, part, reason: 'from the van' })
  }
}

test('no sheet comes to a standstill: whatever is chosen, seen and answered, it can be worked to its signature', () => {
  fc.assert(
    fc.property(anyJob, fc.infiniteStream(fc.nat({ max: 1000 })), ([model, tasks, practices], stream) => {
      const worker = new Worker(
        contentFor(model, tasks, practices),
        (upTo) => (stream.next().value as number) % upTo,
      )
      const done = worker.work()
      expect(done).toBeGreaterThan(3)
      // Every question was asked: nothing waits for an answer that cannot come.
      expect(unfinished(worker.state).map(({ step }) => step.key)).toEqual([])
      worker.settle()
      expect(notReady(worker.state)).toEqual([])
    }),
    { numRuns: 25 },
  )
})

test('work is added at any point, after it was energised again too: nothing is opened unless it is safe and locked, and it is proved last', () => {
  fc.assert(
    fc.property(
      anyJob.filter(([, tasks]) => tasks.length > 1),
      fc.nat({ max: 400 }),
      fc.infiniteStream(fc.nat({ max: 1000 })),
      ([model, tasks, practices], cut, stream) => {
        const [first] = tasks
        const worker = new Worker(
          contentFor(model, [first!], practices),
          (upTo) => (stream.next().value as number) % upTo,
        )
        const whole = worker.state.steps.length
        worker.work(Math.max(1, whole - (cut % whole)))
        const energised = worker.state.steps.some(
          ({ step, state }) => step.step.locks === 'off' && state === 'done',
        )
        worker.addWork(model, tasks, practices)
        const { state } = worker
        if (energised) {
          expect(state.madeSafe).toBeNull()
          expect(currentStep(state)!.step.phase).toBe('makeSafe')
          const opening = state.steps.find(
            (each) => each.state === 'open' && each.step.phase !== 'makeSafe' && each.step.phase !== 'prove',
          )
          if (opening) expect(blockedBy(state, opening)).toMatch(/^Make safe first/)
        }
        worker.work()
        worker.settle()
        expect(notReady(worker.state)).toEqual([])
        // Whatever was opened last was proved after.
        const phases = worker.state.steps
          .filter((each) => each.state === 'done')
          .map((each) => ({ phase: each.step.phase, at: each.by!.sequence }))
          .sort((a, b) => a.at - b.at)
        expect(phases.at(-1)!.phase).toBe('prove')
      },
    ),
    { numRuns: 25 },
  )
})
