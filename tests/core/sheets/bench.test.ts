import {
  blockedBy,
  boltPlaces,
  borePieces,
  bucketFlow,
  causesOn,
  clockWords,
  comparable,
  converted,
  dripRate,
  fastenerOf,
  locksOf,
  matesToLookAt,
  nextBolt,
  notCounted,
  notReady,
  offLimits,
  openStretch,
  partsOpen,
  positionLines,
  positionPlace,
  pulledOff,
  pulledTo,
  recordLines,
  statedTorque,
  temporaryTools,
  timersOf,
  timerStand,
  toRenew,
  torqueRefusal,
  unlikeBefore,
  unseen,
  wantsLookingUp,
  wrenchAdvice,
  type Finding,
  type SheetContent,
  type SheetEntry,
  type SheetState,
} from '@/core/sheets'
import {
  contentFor,
  done,
  doneUntil,
  entry,
  finding,
  fold,
  lockOn,
  madeSafe,
  nothing,
  read,
  readModel,
  refusal,
  restart,
  stepLike,
  triplex,
} from './fixture'

const seals = contentFor(triplex, [{ task: 'hpSeals', positions: ['hpSeal@1', 'hpSeal@2'] }])
const at = (minutes: number) =>
  new Date(Date.parse('2026-10-14T08:00:00.000Z') + minutes * 60_000).toISOString()
const tick = (state: SheetState, words: string, payload: object = {}, now = at(0), byName = 'M. Osei') =>
  refusal(
    state,
    { kind: 'done', stepKey: stepLike(state, words).step.key, payload: { ...nothing, ...payload } },
    { byName, now },
  )
beforeEach(() => restart())

describe('torque, bolt by bolt', () => {
  const bolt = (stepKey: string, place: number, value = 20, more: Partial<SheetEntry<'bolt'>> = {}) =>
    entry(
      'bolt',
      { place, bolt: String(place), torque: { value, unit: 'N·m' }, reason: '' },
      { stepKey, ...more },
    )
  const start = () => doneUntil(seals, 'manifold/close/stage1')

  test('one after the other in the computed order; what is left is named, and the last bolt closes the pass', () => {
    const entries = start()
    const state = fold(...entries)
    const step = stepLike(state, 'manifold/close/stage1')
    expect(boltPlaces(state, step).map(({ number }) => number)).toEqual([1, 2, 3, 4, 5, 6, 7, 8])
    const key = step.step.key
    const pull = (place: number, value: number, unit = 'N·m', reason = '', on = state) =>
      refusal(on, {
        kind: 'bolt',
        stepKey: key,
        payload: { place, bolt: String(place), torque: { value, unit }, reason },
      })
    expect(pull(1, 20)).toBeNull()
    expect(pull(3, 20)).toBe('In order: bolt 1 comes first.')
    expect(pull(3, 20, 'N·m', 'bolt 1 is in the guide pin’s place')).toBeNull()
    expect(pull(9, 20)).toBe('This sheet has no such bolt.')
    expect(pull(1, 20, 'ft-lb')).toMatch(/36\u00a0% too tight.*fit in N·m: was the unit misread/)
    const three = fold(...entries, bolt(key, 1), bolt(key, 2), bolt(key, 3))
    expect(nextBolt(three, stepLike(three, 'close/stage1'))!.place).toBe(4)
    expect(tick(three, 'close/stage1', { torque: { value: 20, unit: 'N·m' } })).toBe(
      '5 bolts are not pulled yet: bolt 4 is next.',
    )
    // The second pass waits for nobody but its own order; the first is closed by its last bolt.
    const all = fold(...entries, ...[1, 2, 3, 4, 5, 6, 7, 8].map((place) => bolt(key, place)))
    expect(nextBolt(all, stepLike(all, 'close/stage1'))).toBeNull()
    expect(tick(all, 'close/stage1')).toBeNull()
    // A bolt taken back is the next again.
    const undone = fold(
      ...entries,
      ...[1, 2].map((place) => bolt(key, place)),
      bolt(key, 3, 20, { id: 'wrong' }),
      entry('takeBack', { of: 'wrong', reason: '' }),
    )
    expect(nextBolt(undone, stepLike(undone, 'close/stage1'))!.place).toBe(3)
    // A team that calls the bolts out enters the pass as one.
    expect(tick(state, 'close/stage1', { torque: { value: 20, unit: 'N·m' } })).toBeNull()
  })

  test.each([
    [{ value: 0, unit: 'N·m' }, '', /no torque/],
    [{ value: 10_000, unit: 'N·m' }, 'I am sure', /cannot be right/],
    [{ value: 2, unit: 'N·m' }, 'I am sure', /fit in kgf·m.*pull it again/],
    [{ value: 110, unit: 'ft-lb' }, 'I am sure', /cannot be right/],
    [{ value: 24, unit: 'N·m' }, '', /20\u00a0% too tight/],
    [null, '', /Enter what was pulled/],
  ])('%j against 20 N·m with the reason “%s” is refused', (pulled, reason, words) => {
    expect(torqueRefusal({ value: 20, unit: 'N·m' }, pulled, reason)).toMatch(words)
  })

  test('a reason explains what is off, never the absurd; a twelvefold slip asks for new bolts', () => {
    const stated = { value: 20, unit: 'N·m' }
    expect(torqueRefusal(stated, { value: 24, unit: 'N·m' }, 'second wrench')).toBeNull()
    expect(torqueRefusal(stated, null, 'the wrench is broken')).toBeNull()
    expect(torqueRefusal({ value: 110, unit: 'in-lb' }, { value: 110, unit: 'ft-lb' }, 'so it was')).toMatch(
      /fit in in-lb.*new bolts/,
    )
  })

  test('a missing or unverified value is looked up with its page before anything is pulled', () => {
    const valves = contentFor(triplex, [{ task: 'outletValves', positions: ['outletValve@1'] }])
    const entries = doneUntil(valves, 'outletCap@1/close/torque')
    const state = fold(...entries)
    const step = stepLike(state, 'outletCap@1/close/torque')
    expect(wantsLookingUp(fastenerOf(state, step)!)).toBe(true)
    expect(tick(state, 'close/torque', { torque: { value: 80, unit: 'N·m' } })).toMatch(/Nobody has verified/)
    const set = (value: number, unit = 'N·m') => ({
      kind: 'torqueSet' as const,
      stepKey: null,
      payload: { assemblyId: 'pump', fastener: 'valveCap', value, unit, page: 'page 12' },
    })
    expect(refusal(state, set(75))).toBeNull()
    expect(refusal(state, set(8000))).toMatch(/The model says 80.*cannot be right/)
    const looked = fold(
      ...entries,
      entry('torqueSet', {
        assemblyId: 'pump',
        fastener: 'valveCap',
        value: 75,
        unit: 'N·m',
        page: 'page 30',
      }),
    )
    expect(statedTorque(looked, stepLike(looked, 'close/torque'))).toEqual({ value: 75, unit: 'N·m' })
    expect(tick(looked, 'close/torque', { torque: { value: 75, unit: 'N·m' } })).toBeNull()
    expect(recordLines(looked).find(({ kind }) => kind === 'torqueSet')).toMatchObject({
      value: 75,
      detail: 'looked up: page 30',
    })
    // No wrench is set to the value that it took the place of.
    const wrench = {
      id: 'w2',
      number: 'W-2',
      name: 'Wrench',
      rangeFrom: 10,
      rangeTo: 100,
      rangeUnit: 'N·m',
      leverMm: null,
      calibrationDue: null,
    }
    const composed = (register: SheetContent['register']) => ({
      ...valves,
      register,
      torques: valves.torques!.map((need) => ({ ...need, wrenches: ['W-2, set to 80 N·m'] })),
    })
    const adviceIn = (content: SheetContent, ...more: SheetEntry[]) => {
      const sheet = fold(...entries, entry('composed', content), ...more)
      return wrenchAdvice(sheet, stepLike(sheet, 'outletCap@1/close/torque'))
    }
    const register = { wrenches: [wrench], day: '2026-10-14' }
    expect(adviceIn(composed(register))).toBe('W-2, set to 80 N·m')
    expect(adviceIn(composed(register), entry('torqueSet', set(75).payload))).toBe('W-2, set to 75\u00a0N·m')
    expect(adviceIn(composed(undefined), entry('torqueSet', set(75).payload))).toMatch(/Choose a wrench/)

    // Looked up again: what was pulled to the first value no longer fits, until it is pulled anew.
    const { key } = stepLike(looked, 'close/torque').step
    const pulledTwice = [
      ...entries,
      entry('torqueSet', { ...set(75).payload }),
      done(key, { torque: { value: 75, unit: 'N·m' } }),
    ]
    const good = fold(...pulledTwice)
    expect(pulledOff(good)).toEqual([])
    expect(pulledTo(good, good.torqueSets[0]!).map(({ step }) => step.key)).toEqual([key])
    const corrected = fold(...pulledTwice, entry('torqueSet', { ...set(90).payload }))
    expect(pulledOff(corrected)).toMatchObject([
      { name: 'Valve caps, cylinder 1', pulled: '75\u00a0N·m', stated: '90\u00a0N·m' },
    ])
    expect(notReady(corrected).join(' ')).toMatch(/pulled to 75\u00a0N·m, and 90\u00a0N·m stands now/)
    const anew = done(key, { torque: { value: 90, unit: 'N·m' } })
    expect(pulledOff(fold(...pulledTwice, entry('torqueSet', { ...set(90).payload }), anew))).toEqual([])
    // A pull that was explained stays explained.
    const explained = done(key, { torque: { value: 75, unit: 'N·m' }, reason: 'wrench reads high' })
    expect(pulledOff(fold(...pulledTwice, entry('torqueSet', { ...set(90).payload }), explained))).toEqual([])

    const oil = contentFor(triplex, [{ task: 'oilChange', positions: ['oil'] }])
    const drained = fold(...doneUntil(oil, 'oilChange/oil/plug'))
    expect(tick(drained, 'oil/plug', { reason: 'tight' })).toMatch(/No value is given here/)
  })
})

describe('timers', () => {
  const plungers = contentFor(triplex, [{ task: 'plungers', positions: ['plunger@1'] }])
  const locker = () => doneUntil(plungers, 'plungerOut@1/close/torque')
  const pulled = { torque: { value: 15, unit: 'N·m' } }

  test('a working time that has run out stops the step until it is explained', () => {
    const entries = locker()
    const key = stepLike(fold(...entries), 'plungerOut@1/close/torque').step.key
    const running = fold(
      ...entries,
      entry('timer', { kind: 'sets', name: 'locker', minutes: 10 }, { stepKey: key, at: at(0) }),
    )
    expect(tick(running, 'plungerOut@1/close/torque', pulled, at(9))).toBeNull()
    expect(tick(running, 'plungerOut@1/close/torque', pulled, at(11))).toMatch(/working time has run out/)
    expect(
      tick(running, 'plungerOut@1/close/torque', { ...pulled, reason: 'slow grade, sets in 30' }, at(11)),
    ).toBeNull()
    expect(timersOf(running).map(({ kind }) => kind)).toEqual(['sets'])
    // It ends with its step, and the cure begins by itself.
    const after = fold(...entries, ...running.timers, done(key, pulled, { at: at(5) }))
    expect(timersOf(after)).toMatchObject([{ kind: 'cured', endsAt: at(5 + 1440), byHand: false }])
  })

  test('what must cure waits, or is signed against with a reason that the record keeps', () => {
    const content = plungers
    const entries = doneUntil(content, 'visit/prove/cured').map((each) => ({ ...each, at: at(0) }))
    const state = fold(...entries)
    expect(blockedWords(state)).toMatch(
      /^Threadlocker, plunger bolts: 23\u00a0h\u00a000\u00a0min until it has cured/,
    )
    function blockedWords(on: SheetState) {
      return tick(on, 'visit/prove/cured', {}, at(60))
    }
    expect(tick(state, 'visit/prove/cured', {}, at(1440))).toBeNull()
    expect(tick(state, 'visit/prove/cured', { reason: 'proved without pressure today' }, at(60))).toBeNull()
    const against = fold(
      ...entries,
      done(stepLike(state, 'visit/prove/cured').step.key, { reason: 'no pressure today' }),
    )
    expect(recordLines(against).find(({ kind }) => kind === 'against')).toMatchObject({
      detail: 'no pressure today',
    })
  })

  test('they warn before they run out, count over, and read as a clock', () => {
    const timer = { startedAt: at(0), endsAt: at(10) }
    expect(timerStand(timer, at(1))).toEqual({ state: 'running', ms: 540_000 })
    expect(timerStand(timer, at(8.5)).state).toBe('soon')
    expect(timerStand(timer, at(12))).toEqual({ state: 'over', ms: -120_000 })
    expect(timerStand({ startedAt: at(0), endsAt: null }, at(1)).ms).toBe(60_000)
    expect([clockWords(400_000), clockWords(7_500_000), clockWords(50 * 3_600_000)]).toEqual([
      '06:40',
      '2\u00a0h\u00a005\u00a0min',
      '2\u00a0d\u00a02\u00a0h',
    ])
  })

  test('several run at once; one ended by hand counts no more', () => {
    const entries = madeSafe(seals)
    const timer = (name: string, id: string) => entry('timer', { kind: 'own', name, minutes: 5 }, { id })
    const state = fold(
      ...entries,
      timer('tea', 'a'),
      timer('bath', 'b'),
      entry('timerEnd', { of: 'a', reason: '' }),
    )
    expect(timersOf(state).map(({ name }) => name)).toEqual(['bath'])
    expect(
      refusal(state, { kind: 'timerEnd', stepKey: null, payload: { of: 'nobody', reason: '' } }),
    ).toMatch(/not running/)
  })
})

describe('findings', () => {
  test('the old part is still asked for, always-renew is enforced, a bad mate is prompted', () => {
    const all = fold(...doneUntil(seals, 'visit/prove/toolsBack'))
    expect(unseen(all).map(({ position }) => position)).toEqual(['hpSeal@1', 'hpSeal@2'])
    expect(notReady(all).join()).toContain(
      'Say what was seen on the old part: High-pressure seal, cylinder 1',
    )
    const say = (more: Partial<Finding>) => ({
      kind: 'finding' as const,
      stepKey: null,
      payload: finding('hpSeal@1', more).payload,
    })
    expect(refusal(all, say({ disposition: 'reuse' }))).toMatch(/always renewed here/)
    expect(refusal(all, say({ position: 'hpSeal@9' }))).toMatch(/no position/)
    expect(refusal(fold(entry('composed', seals), read()), say({}))).toMatch(/Make safe first/)
    const seen = fold(
      ...doneUntil(seals, 'visit/prove/toolsBack'),
      finding('hpSeal@1', { damages: ['extrusion'], disposition: 'renewMate' }),
      finding('hpSeal@2'),
    )
    expect(unseen(seen)).toEqual([])
    expect(matesToLookAt(seen).map(({ position, because }) => [position, because])).toEqual([
      ['plunger@1', 'High-pressure seal, cylinder 1'],
    ])
    expect(causesOn(seen)[0]!.causes[0]!.cause).toBe('overPressure')
    const looked = fold(
      ...seen.findings,
      entry('composed', seals),
      finding('plunger@1', { sort: 'plunger', damages: ['scoring'], disposition: 'renewMate' }),
    )
    expect(matesToLookAt(looked).map(({ position }) => position)).not.toContain('plunger@1')
    // A bad part that the sheet does not renew is more work, or another decision.
    expect(toRenew(looked).map(({ payload }) => payload.position)).toContain('plunger@1')
    expect(notReady(looked).join()).toContain('Plunger, cylinder 1 is to be renewed and is not on this sheet')
    const stop = fold(
      ...doneUntil(seals, 'visit/prove/toolsBack'),
      finding('hpSeal@1', { disposition: 'stop' }),
    )
    expect(notReady(stop).join()).toContain('stopped to ask')
  })

  test('a later finding about the same part takes the place of the first; the record tells it by position', () => {
    const state = fold(
      ...doneUntil(seals, 'visit/prove/toolsBack'),
      finding('hpSeal@1', { damages: ['cut'] }),
      finding('hpSeal@1', { damages: ['cut', 'glazed'], extent: 'clear', words: 'one side' }),
    )
    expect(state.findings).toHaveLength(1)
    expect(positionLines(state)[0]).toMatchObject({
      name: 'High-pressure seal, cylinder 1',
      done: 'renewed',
      seen: 'Cut or nicked, glazed (clear)',
      words: 'one side',
    })
    expect(recordLines(state).some(({ kind, item }) => kind === 'cause' && item.startsWith('Assembly'))).toBe(
      true,
    )
  })
})

describe('closing count', () => {
  test('tools back out, every bore counted, written off only with a reason', () => {
    const early = fold(...doneUntil(seals, 'sealStack@2/close/countBack'))
    expect(temporaryTools(early)).toMatchObject([{ tool: 'guidePins', isOut: false }])
    const [bore] = borePieces(early)
    expect(bore!.pieces.map(({ part, fate }) => [part, fate])).toEqual([
      ['supportRing', 'refitted'],
      ['hpSeal', 'renewed'],
      ['spacer', 'refitted'],
      ['retainer', 'refitted'],
    ])
    expect(
      tick(early, 'sealStack@2/close/countBack', {
        pieces: [{ part: 'spacer', pieces: 1, fate: 'writtenOff', reason: '' }],
      }),
    ).toMatch(/Say why it is written off/)
    expect(notCounted(early)).toEqual([
      'Guide pins, pair: went in and has not come out.',
      'Seal stack out, cylinder 2: its pieces are not counted back.',
      'Seal stack out, cylinder 1: its pieces are not counted back.',
    ])
    // The pins' own step was passed by: the count does not close over it.
    const entries = doneUntil(seals, 'visit/prove/toolsBack')
    const out = stepLike(fold(...entries), 'manifold/close/pinsOut').step.key
    const skipped = entries.map((each) =>
      each.stepKey === out ? { ...entry('skipped', { reason: 'later' }), stepKey: out } : each,
    ) as SheetEntry[]
    expect(tick(fold(...skipped), 'visit/prove/toolsBack')).toMatch(
      /Guide pins, pair: went in and has not come out/,
    )
    expect(tick(fold(...entries), 'visit/prove/toolsBack')).toBeNull()
  })

  test('parts that the work uses up are noted or explained; those of kept positions need no word', () => {
    const entries = doneUntil(seals, 'visit/prove/nothing-such')
    const state = fold(...entries)
    expect(partsOpen(state).map(({ part }) => part)).toEqual(['retainerOring', 'hpSeal'])
    const noted = fold(
      ...entries,
      entry('notUsed', { assemblyId: 'pump', part: 'retainerOring', reason: 'none on the shelf' }),
      entry('part', {
        partId: null,
        lotId: null,
        name: 'HP seal',
        unit: 'piece',
        quantity: 2,
        assemblyId: 'pump',
        part: 'hpSeal',
      }),
    )
    expect(partsOpen(noted)).toEqual([])
    const kept = fold(
      ...entries,
      ...['hpSeal@1', 'hpSeal@2'].map((position) =>
        entry('kept', { assemblyId: 'pump', position, reason: 'no part' }),
      ),
    )
    expect(partsOpen(kept).map(({ part }) => part)).toEqual(['retainerOring'])
  })
})

test('locks: each is taken off by whoever set it, else only by a rule of the site; energising waits for the last', () => {
  const entries = [...doneUntil(seals, 'visit/prove/clear'), lockOn('A. Brandt')]
  const state = fold(...entries)
  const off = (name: string, byName: string, reason = '') =>
    refusal(
      state,
      { kind: 'lock', stepKey: null, payload: { name, goes: 'off', reason } },
      { byName, now: at(0) },
    )
  expect(off('M. Osei', 'M. Osei')).toBeNull()
  expect(off('A. Brandt', 'M. Osei')).toMatch(/A\. Brandt set this lock and takes it off/)
  expect(off('A. Brandt', 'M. Osei', 'foreman, by phone, rule 7')).toBeNull()
  expect(off('T. Nobody', 'M. Osei')).toBe('No lock of T. Nobody is on.')
  expect(tick(state, 'visit/prove/clear')).toBe('The lock of M. Osei is still on.')
  const gone = fold(
    ...entries,
    entry('lock', { name: 'M. Osei', goes: 'off', reason: '' }),
    entry('lock', { name: 'a. brandt', goes: 'off', reason: 'rule 7' }),
  )
  expect(locksOf(gone).map(({ name, offReason }) => [name, offReason])).toEqual([
    ['M. Osei', ''],
    ['A. Brandt', 'rule 7'],
  ])
  expect(tick(gone, 'visit/prove/clear')).toBeNull()
})

test('with every lock off nothing is opened any more, unless locking out was signed against', () => {
  const entries = doneUntil(seals, 'manifold/open/pins')
  const pins = (state: SheetState) => blockedBy(state, stepLike(state, 'manifold/open/pins'))
  expect(pins(fold(...entries))).toBeNull()
  const off = [...entries, entry('lock', { name: 'M. Osei', goes: 'off' as const, reason: '' })]
  expect(pins(fold(...off))).toMatch(/No lock is on any more: make safe again/)
  // What only proves goes on: the locks are off for it.
  const gates = fold(...off)
  expect(blockedBy(gates, stepLike(gates, 'visit/prove/toolsBack'))).not.toMatch(/No lock/)
  expect(pins(fold(...off, lockOn('T. Brandt')))).toBeNull()
  const { key } = fold(...entries).steps.find(({ step }) => step.step.locks === 'on')!.step
  const against = done(key, { reason: 'the site locks its own board' })
  expect(pins(fold(...off, against))).toBeNull()
})

test('energised again: nothing is opened before it is confirmed safe anew, even where that was taken back', () => {
  const entries = doneUntil(seals, 'visit/prove/clear')
  entries.push(entry('lock', { name: 'M. Osei', goes: 'off' as const, reason: '' }))
  const clear = done('visit/prove/clear')
  const screws = entries.findLast((each) => each.kind === 'done' && each.stepKey?.includes('manifold/close'))!
  const undo = (each: SheetEntry) => entry('takeBack', { of: each.id, reason: 'redo' })
  const blocked = (...more: SheetEntry[]) => {
    const state = fold(...entries, ...more)
    return blockedBy(
      state,
      state.steps.find(({ step }) => step.key === screws.stepKey)!,
    )
  }
  expect(blocked(undo(screws))).toMatch(/No lock is on any more/)
  expect(blocked(undo(screws), lockOn())).toBeNull()
  expect(blocked(clear, undo(screws), lockOn())).toMatch(/energised again: confirm anew/)
  expect(blocked(clear, undo(screws), undo(clear), lockOn())).toMatch(/energised again: confirm anew/)
  const anew = entry('madeSafe', { name: 'T. Brandt', round: 1 })
  expect(blocked(clear, undo(screws), undo(clear), lockOn(), anew)).toBeNull()
  // What is proved goes on meanwhile.
  const state = fold(...entries, clear)
  expect(blockedBy(state, stepLike(state, 'visit/prove/purge'))).toBeNull()
})

describe('one head at a time', () => {
  const opposed = readModel('tarnwick-k4')
  const content: SheetContent = contentFor(opposed, [
    { task: 'sealRings', positions: ['sealRing@1', 'sealRing@2'] },
  ])

  test('while one head stands open the others are locked, and their steps are refused by name', () => {
    const safe = madeSafe(content)
    const start = fold(...safe)
    const first = content.steps.find((step) => step.stretch)!
    const other = content.steps.find((step) => step.stretch && step.stretch !== first.stretch)!
    expect(openStretch(start, 'pump')).toBeNull()
    const outside = content.steps
      .slice(0, content.steps.indexOf(first))
      .filter(({ phase }) => phase !== 'makeSafe')
      .map((step) => done(step.key))
    const open = fold(...safe, ...outside, done(first.key))
    expect(openStretch(open, 'pump')).toBe(first.stretch)
    expect(refusal(open, { kind: 'done', stepKey: other.key, payload: nothing })).toMatch(
      /^One at a time: head 1 stands open/,
    )
    const place = (state: SheetState, position: string) =>
      positionPlace(
        state,
        state.positions.find((each) => each.position === position)!,
      )
    expect(place(open, 'sealRing@2')).toBe('locked')
    expect(place(start, 'sealRing@1')).toBe('shut')
    const closed = fold(
      ...safe,
      ...outside,
      ...content.steps
        .filter((step) => step.stretch === first.stretch && !step.step.when)
        .map((step) => done(step.key, { answer: step.step.asks?.answers[0] ?? '' })),
    )
    expect(openStretch(closed, 'pump')).toBeNull()
    expect(place(closed, 'sealRing@1')).toBe('renewed')
    expect(place(closed, 'sealRing@2')).toBe('shut')
  })
})

test('positions: shut, open, taken out, renewed, as the steps go', () => {
  const place = (state: SheetState, position: string) =>
    positionPlace(
      state,
      state.positions.find((each) => each.position === position)!,
    )
  expect(place(fold(...madeSafe(seals)), 'hpSeal@1')).toBe('shut')
  const open = fold(...doneUntil(seals, 'hpSeal@1/look'))
  expect([place(open, 'hpSeal@1'), place(open, 'lpSeal@1'), place(open, 'outletValve@1')]).toEqual([
    'out',
    'open',
    'shut',
  ])
  const back = fold(...doneUntil(seals, 'hpSeal@1/look'), finding('lpSeal@1', { disposition: 'reuse' }))
  expect(place(back, 'lpSeal@1')).toBe('reused')
  expect(place(fold(...doneUntil(seals, 'visit/prove')), 'hpSeal@1')).toBe('renewed')
})

test('measures: limits hold in any unit, flow comes from bucket and watch, only like is compared with like', () => {
  expect(offLimits({ unit: 'bar', min: 190, max: 210 }, 2900, 'psi')).toBeNull()
  expect(offLimits({ unit: 'bar', min: 190, max: 210 }, 2500, 'psi')).toBe(
    '2\u00a0500\u00a0psi (172\u00a0bar) is below 190\u00a0bar.',
  )
  expect(offLimits({ unit: 'mm', min: null, max: 0.12 }, 0.2)).toBe('0.2\u00a0mm is above 0.12\u00a0mm.')
  expect(offLimits({ unit: 'drips/min', min: null, max: 5 }, 5)).toBeNull()
  expect(converted(1, 'US gal', 'L')).toBeCloseTo(3.785411784)
  expect(converted(3, 'drips/min', 'bar')).toBe(3)
  // 20 L in 63 s: 20 / 63 × 60 = 19.05.
  expect(bucketFlow(20, 63)).toBe(19)
  expect(() => bucketFlow(20, 0)).toThrow(RangeError)
  expect(dripRate(7, 42)).toBe(10)
  expect(dripRate(0, 60)).toBe(0)
  expect(() => dripRate(-1, 60)).toThrow(RangeError)
  expect(() => dripRate(3, 0)).toThrow(RangeError)
  const before = { assemblyId: 'pump', what: 'flow', where: '', how: '', sheet: '0001' }
  const earlier = [
    { ...before, value: 15, unit: 'L/min', day: '2026-05-01', how: 'bucket and watch' },
    { ...before, value: 4, unit: 'gal/min', day: '2026-03-01', how: 'bucket and watch' },
    { ...before, value: 15, unit: 'L/min', day: '2026-04-01', how: 'meter' },
    { ...before, value: 9, unit: 'L/min', day: '2026-02-01', how: 'bucket and watch', where: 'cylinder 1' },
  ]
  expect(
    comparable(earlier, {
      assemblyId: 'pump',
      what: 'flow',
      where: '',
      unit: 'L/min',
      how: 'bucket and watch',
    }).map(({ day, value }) => [day, Math.round(value * 100) / 100]),
  ).toEqual([
    ['2026-03-01', 15.14],
    ['2026-05-01', 15],
  ])
})

test('time worked leaves out pauses, nights and long silences', () => {
  const first = entry('composed', seals)
  const marks: [SheetEntry, number][] = [
    [read(), 0],
    [lockOn(), 10],
    [entry('left', { toId: null, toName: 'A. Brandt', words: 'cylinder 3 is open' }), 30],
    [entry('joined', { words: '' }), 1400],
    [entry('remark', { text: 'on' }), 1410],
    [entry('remark', { text: 'after a long silence' }), 1600],
  ]
  const state = fold(first, ...marks.map(([each, minutes]) => ({ ...each, at: at(minutes) })))
  expect(state.workedMinutes).toBe(40)
  expect(state.left).toBeNull()
  const handed = fold(first, ...marks.slice(0, 3).map(([each]) => each))
  expect(handed.left?.payload.toName).toBe('A. Brandt')
})

test('an adjustment is noted before it is disturbed, and the sheet asks for it back', () => {
  const unloader = readModel('quillon-u20')
  const task = unloader.tasks.find(({ at: node }) =>
    unloader.access.some(({ key, open }) => key === node && open.some(({ setting }) => setting)),
  )!
  const content = contentFor(unloader, [{ task: task.key, positions: [task.positions[0]!] }])
  const note = content.steps.find(({ step }) => step.setting?.goes === 'noted')!
  const state = fold(...doneUntil(content, note.key))
  const enter = (on: SheetState, key: string, setting: string) =>
    refusal(on, { kind: 'done', stepKey: key, payload: { ...nothing, setting } })
  expect(enter(state, note.key, '')).toMatch(/^Enter what it stands at/)
  expect(enter(state, note.key, '3 turns')).toBeNull()
  const back = content.steps.find(({ step }) => step.setting?.goes === 'putBack')!
  const later = fold(
    ...doneUntil(content, back.key).map((each) =>
      each.stepKey === note.key
        ? ({ ...each, payload: { ...nothing, setting: '3 turns' } } as SheetEntry)
        : each,
    ),
  )
  expect(enter(later, back.key, '')).toMatch(/it stood at 3 turns/)
  expect(notCounted(later).join()).toContain('not put back to 3 turns')
})

test('a measure is held against its own past: far from what it was is said, and only from three values on', () => {
  const past = (...values: number[]) => values.map((value) => ({ value, unit: 'mm' }))
  expect(unlikeBefore(past(48, 48.2), 40)).toBeNull()
  expect(unlikeBefore(past(48, 48.2, 47.9), 47)).toBeNull()
  expect(unlikeBefore(past(48, 48.2, 47.9), 30)).toBe(
    'Unlike before: 47.9 to 48.2\u00a0mm in 3 earlier values. Measure again, or say why.',
  )
  // One odd value of the past does not widen what is usual; a wide past does.
  expect(unlikeBefore(past(2, 2.1, 1.9, 2, 9), 5)).toMatch(/1.9 to 9/)
  expect(unlikeBefore(past(2, 6, 9, 3, 12), 14)).toBeNull()
  expect(unlikeBefore(past(0, 0, 0), 4)).toMatch(/: 0\u00a0mm in 3/)
  expect(unlikeBefore(past(0, 0, 0), 0)).toBeNull()
})
