import fc from 'fast-check'
import {
  blockedBy,
  inspected,
  notReady,
  phasesOf,
  presumedEndReason,
  sheetState,
  unfinished,
  type Payloads,
  type SheetContent,
  type SheetState,
  type SheetEntry,
} from '@/core/sheets'
import {
  contentFor,
  done,
  entry,
  fold,
  lockOn,
  madeSafe,
  nothing,
  read,
  refusal,
  restart,
  safe,
  soFar,
  stepLike,
  triplex,
} from './fixture'

const content = contentFor(triplex, [{ task: 'hpSeals', positions: ['hpSeal@1', 'hpSeal@2'] }])
const composed = content
const ready = () => madeSafe(content)

beforeEach(() => restart())

test('a sheet begins with everything open, and the meter unread', () => {
  const state = fold(entry('composed', content))
  expect(state.unread.map((meter) => meter.id)).toEqual(['meter'])
  // Steps that hang on what was found wait for the answer: two in the stacks, six where the manifold came
  // off, four at proving.
  expect(state.steps.filter((each) => each.state === 'waiting')).toHaveLength(12)
  expect(unfinished(state)).toHaveLength(composed.steps.length)
  expect(sheetState([])).toBeNull()
  expect(phasesOf(state).map((each) => each.phase)).toEqual([
    'makeSafe',
    'stripDown',
    'inspect',
    'rebuild',
    'prove',
  ])
})

test('first the meter, then making safe by name, then each gate in its turn', () => {
  const start = [entry('composed', content)]
  const first = composed.steps[0]!
  const strip = composed.steps.find((step) => step.phase === 'stripDown')!
  const tick = (stepKey: string) => ({ stepKey, kind: 'done' as const, payload: nothing })
  expect(refusal(fold(...start), tick(first.key))).toBe('Read the meter first: engine hours.')
  const seen = [...start, read(), lockOn()]
  expect(refusal(fold(...start, read()), tick(first.key))).toMatch(/^Say whose lock is on/)
  expect(refusal(fold(...seen), tick(first.key))).toBeNull()
  expect(refusal(fold(...seen), tick(strip.key))).toBe('Make safe first, and confirm it by name.')
  expect(refusal(fold(...seen), { stepKey: null, kind: 'madeSafe', payload: { name: 'M. Osei' } })).toMatch(
    /^Not yet: Isolate and lock out/,
  )
  const ticked = [
    ...seen,
    ...composed.steps.filter((step) => step.phase === 'makeSafe').map((step) => done(step.key)),
  ]
  expect(
    refusal(fold(...ticked), { stepKey: null, kind: 'madeSafe', payload: { name: 'M. Osei' } }),
  ).toBeNull()
  expect(refusal(fold(...ticked), tick(strip.key))).toBe('Make safe first, and confirm it by name.')
  const made = fold(...ticked, safe())
  expect(refusal(made, tick(strip.key))).toBeNull()
  // The crank gate of the strip-down stands before everything after it.
  const later = stepLike(made, 'manifold/open/runOut')
  expect(blockedBy(made, later)).toMatch(/^First: Turn the shaft/)
  expect(refusal(made, { stepKey: 'no/such/step', kind: 'done', payload: nothing })).toBe(
    'This sheet has no such step.',
  )
  // Locking out is never skipped; a strip-down step may be, with its reason.
  const skip = (stepKey: string) => ({ stepKey, kind: 'skipped' as const, payload: { reason: 'seized' } })
  expect(refusal(fold(...seen), skip(first.key))).toBe('This step is never skipped.')
  expect(refusal(made, skip(strip.key))).toBeNull()
})

test('an answer at one cylinder decides that cylinder’s branch only', () => {
  const before = fold(...ready())
  const ask = (cylinder: number) => stepLike(before, `sealStack@${cylinder}/open/draw`).step.key
  restart(40)
  const state = fold(
    ...ready(),
    done(ask(1), { answer: 'all came out' }),
    done(ask(2), { answer: 'something stayed in the bore' }),
  )
  expect(stepLike(state, 'sealStack@1/open/leftBehind').state).toBe('notNeeded')
  expect(stepLike(state, 'sealStack@2/open/leftBehind').state).toBe('open')
  expect(refusal(before, { stepKey: ask(1), kind: 'done', payload: nothing })).toMatch(
    /First: Turn the shaft|Say what/,
  )
})

test('torque, measure and answer: what a step asks for is entered, in limits, or explained', () => {
  const crank = composed.steps.find((step) => step.key.endsWith('manifold/open/crank'))!
  const refit = composed.steps.find((step) => step.key.endsWith('manifold/close/crankOuter'))!
  const state = fold(...ready(), done(crank.key), done(refit.key))
  const torque = stepLike(state, 'manifold/close/stage1').step.key
  const enter = (stepKey: string, payload: Partial<Payloads['done']>) =>
    refusal(state, { stepKey, kind: 'done', payload: { ...nothing, ...payload } })
  expect(enter(torque, {})).toBe('Enter what was pulled, or say why it was not measured.')
  expect(enter(torque, { torque: { value: 20, unit: 'N·m' } })).toBeNull()
  // 177 in-lb is 20.0 N·m.
  expect(enter(torque, { torque: { value: 177, unit: 'in-lb' } })).toBeNull()
  expect(enter(torque, { torque: { value: 20, unit: 'ft-lb' } })).toMatch(/36\u00a0% too tight.*fit in N·m/)
  expect(
    enter(torque, { torque: { value: 20, unit: 'ft-lb' }, reason: 'checked with a second wrench' }),
  ).toBeNull()
  const clear = stepLike(state, 'visit/prove/clear').step.key
  const pressure = stepLike(state, 'visit/prove/pressure').step.key
  expect(enter(pressure, { measure: { value: 200, unit: 'bar' } })).toMatch(/^First: Closing count/)
  const back = stepLike(state, 'visit/prove/toolsBack').step.key
  const energised = fold(...ready(), done(crank.key), done(refit.key), done(back), done(clear))
  const measure = (payload: Partial<Payloads['done']>) =>
    refusal(energised, { stepKey: pressure, kind: 'done', payload: { ...nothing, ...payload } })
  expect(measure({})).toMatch(/^Enter the pressure in bar/)
  expect(measure({ measure: { value: 150, unit: 'bar' } })).toMatch(/150\u00a0bar is below 190\u00a0bar/)
  expect(measure({ measure: { value: 200, unit: 'bar' } })).toBeNull()
})

test('a position is renewed once its fitting step is done, kept once that was skipped, or as somebody says', () => {
  const at = (state: SheetState, position: string) =>
    state.positions.find((each) => each.position === position)!
  const fit = (cylinder: number) =>
    composed.steps.find((step) => step.key.endsWith(`hpSeal@${cylinder}/fit`))!.key
  const state = fold(
    ...ready(),
    done(fit(1)),
    entry('skipped', { reason: 'no seal left' }, { stepKey: fit(2) }),
    entry('renewed', { assemblyId: 'pump', position: 'oilSeal@3', reason: 'lip torn' }),
  )
  expect(at(state, 'hpSeal@1')).toMatchObject({ state: 'renewed', planned: true })
  expect(at(state, 'hpSeal@2')).toMatchObject({ state: 'kept', planned: true })
  expect(at(state, 'oilSeal@3')).toMatchObject({ state: 'renewed', planned: false, reason: 'lip torn' })
  expect(at(state, 'plunger@1')).toMatchObject({ state: 'open', planned: false })
})

test('order comes from what a device had seen: what was said in ignorance of each other stands side by side', () => {
  const key = composed.steps[0]!.key
  const start = ready().slice(0, 2)
  const base = soFar()
  const a = done(key, {}, { deviceId: 'a', seenUpTo: base, sequence: base + 1 })
  const b = entry(
    'skipped',
    { reason: 'done elsewhere' },
    { stepKey: key, deviceId: 'b', seenUpTo: base, sequence: base + 2 },
  )
  expect(fold(...start, a, b).steps[0]!.rival?.id).toBe(a.id)
  // The same said twice is no contradiction.
  const same = done(key, {}, { deviceId: 'b', seenUpTo: base, sequence: base + 2 })
  expect(fold(...start, a, same).steps[0]).toMatchObject({ state: 'done', rival: null })
  // A third that has seen both settles it.
  const settled = done(key, {}, { deviceId: 'c', seenUpTo: base + 2, sequence: base + 3 })
  expect(fold(...start, a, b, settled).steps[0]).toMatchObject({ state: 'done', rival: null })
  expect(notReady(fold(...start, a, b)).join(' ')).toContain('marked differently on two devices')
  // On one device the later word stands, whichever arrived first.
  const first = done(key, {}, { deviceId: 'a', deviceSeq: 1, sequence: base + 2, seenUpTo: 0 })
  const second = entry(
    'skipped',
    { reason: 'no' },
    { stepKey: key, deviceId: 'a', deviceSeq: 2, sequence: base + 1, seenUpTo: 0 },
  )
  expect(fold(...start, first, second).steps[0]!.state).toBe('skipped')
})

test('what is taken back does not count, even where the taking back arrives first', () => {
  const key = composed.steps[0]!.key
  const tick = done(key)
  const back = entry('takeBack', { of: tick.id, reason: '' })
  expect(fold(entry('composed', content), tick, back).steps[0]!.state).toBe('open')
  const swapped = [
    entry('composed', content),
    { ...back, sequence: 50 },
    { ...tick, sequence: 51 },
  ] as SheetEntry[]
  expect(fold(...swapped).steps[0]!.state).toBe('open')
})

test('what comes in after signing is kept and changes nothing', () => {
  const state = fold(...ready(), { ...entry('remark', { text: 'one more thing' }), late: true })
  expect(state.remarks).toHaveLength(0)
  expect(state.late).toHaveLength(1)
})

test('looking tasks count where all their steps are done', () => {
  const looking: SheetContent = {
    ...content,
    assemblies: [
      { ...content.assemblies[0]!, tasks: [{ ...content.assemblies[0]!.tasks[0]!, kind: 'inspect' }] },
    ],
  }
  const own = composed.steps.filter((step) => step.position === 'hpSeal@1')
  expect(own.length).toBe(2)
  const state = fold(entry('composed', looking), ...own.map((step) => done(step.key)))
  expect(inspected(state)).toEqual([{ assemblyId: 'pump', task: 'hpSeals', position: 'hpSeal@1' }])
})

test.each([
  ['planned', true, 'overdue', 'preventive'],
  ['breakdown', true, 'healthy', 'failed'],
  ['planned', false, 'healthy', 'disturbed'],
  ['planned', false, 'dueSoon', 'preventive'],
  ['breakdown', false, 'healthy', 'disturbed'],
] as const)('on a %s sheet, planned %s and %s: %s is presumed', (trigger, planned, clock, reason) => {
  expect(presumedEndReason(trigger, planned, clock)).toBe(reason)
})

test('the order in which entries arrive in the list does not matter', () => {
  const entries = [...ready(), ...composed.steps.slice(3, 12).map((step) => done(step.key))]
  const plain = JSON.stringify(fold(...entries))
  fc.assert(
    fc.property(fc.shuffledSubarray(entries, { minLength: entries.length }), (shuffled) => {
      expect(JSON.stringify(fold(...shuffled))).toBe(plain)
    }),
  )
})
