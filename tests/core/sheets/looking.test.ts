import {
  blockedBy,
  isLook,
  mayBeSkipped,
  notCounted,
  notReady,
  phasesOf,
  positionLines,
  positionPlace,
  seenBy,
  seenOn,
  sheetState,
  sortAt,
  soundFinding,
  stopped,
  unseen,
  usesFor,
  valvesBack,
  wayBegun,
  wentBack,
  type Finding,
  type SheetContent,
  type SheetEntry,
  type SheetState,
} from '@/core/sheets'
import type { BenchPart } from '@/core/sheets'
import {
  contentFor,
  done,
  doneUntil,
  entry,
  finding,
  fold,
  madeSafe,
  nothing,
  refusal,
  restart,
  stepLike,
  triplex,
} from './fixture'

beforeEach(() => restart())

const ways = [
  { key: 'swap', name: 'Swap the whole valve' },
  { key: 'strip', name: 'Strip, inspect and rebuild' },
]
const valves = ((): SheetContent => {
  const content = contentFor(triplex, [
    { task: 'outletValves', positions: ['outletValve@1', 'outletValve@2'], path: 'strip' },
  ])
  content.assemblies[0]!.tasks[0] = { ...content.assemblies[0]!.tasks[0]!, ways, way: 'strip' }
  return content
})()
const task = { assemblyId: 'pump', task: 'outletValves' }
const stepAt = (bore: number, key: string) => `pump/outletCap/outletValves/outletValve@${bore}/strip/${key}`

/** The valve service up to its closing count, bore 1 found good, bore 2 as said. */
function counted(second: 'good, goes back' | 'worn, cracked or pitted: renew'): SheetState {
  const verdicts = doneUntil(valves, 'visit/prove/toolsBack').map((each) =>
    each.stepKey === stepAt(2, 'verdict') ? { ...each, payload: { ...nothing, answer: second } } : each,
  ) as Parameters<typeof fold>
  return fold(
    ...verdicts,
    done(stepAt(1, 'fitBack')),
    done(stepAt(2, second === 'good, goes back' ? 'fitBack' : 'fitNew')),
  )
}
const toolsBack = (state: SheetState, more: object = {}) =>
  refusal(state, {
    kind: 'done',
    stepKey: stepLike(state, 'visit/prove/toolsBack').step.key,
    payload: { ...nothing, ...more },
  })

describe('valves that go back', () => {
  test('each is confirmed in its own bore, by name; one that was renewed is not asked for', () => {
    const both = counted('good, goes back')
    expect(valvesBack(both)).toEqual([
      { key: 'pump/outletValve@1', name: 'Outlet valve, cylinder 1' },
      { key: 'pump/outletValve@2', name: 'Outlet valve, cylinder 2' },
    ])
    expect(toolsBack(both)).toBe('Outlet valve, cylinder 1: say that it is back in its own bore.')
    expect(toolsBack(both, { ownBores: ['pump/outletValve@1'] })).toMatch(/^Outlet valve, cylinder 2: say/)
    expect(toolsBack(both, { ownBores: ['pump/outletValve@1', 'pump/outletValve@2'] })).toBeNull()
    // Where one went astray, the reason stands in the record instead.
    expect(toolsBack(both, { reason: 'cylinder 2 mixed up with 3, both lapped anew' })).toBeNull()

    const one = counted('worn, cracked or pitted: renew')
    expect(valvesBack(one).map(({ key }) => key)).toEqual(['pump/outletValve@1'])
    expect(toolsBack(one, { ownBores: ['pump/outletValve@1'] })).toBeNull()
  })

  test('nobody is asked before a valve has been looked at, nor where any bore will do', () => {
    expect(valvesBack(fold(...doneUntil(valves, 'outletValve@1/look')))).toEqual([])
    const anyBore = {
      ...valves,
      practices: [{ key: 'reusedValves', assemblyId: 'pump', choice: 'anyBore', name: '', version: 1 }],
    } as never as SheetContent
    const state = fold(
      ...doneUntil(anyBore, 'visit/prove/toolsBack'),
      done(stepAt(1, 'fitBack')),
      done(stepAt(2, 'fitBack')),
    )
    expect(valvesBack(state)).toEqual([])
    expect(toolsBack(state)).toBeNull()
  })
})

describe('phases of a sheet with branches', () => {
  const phases = (state: SheetState) =>
    phasesOf(state).map(
      ({ phase, steps }) => `${phase} ${steps.length}${steps[0]!.state === 'waiting' ? ' as found' : ''}`,
    )

  test('what hangs on an answer stands together until it is given; what is not needed is not listed', () => {
    expect(phases(fold(...madeSafe(valves)))).toEqual([
      'makeSafe 6',
      // Two caps, and of each valve: drawn, its seat drawn should it stay behind, its pocket cleaned.
      'stripDown 8',
      'inspect 8',
      // Of each valve: three pieces put together, dressed, new or back; then the caps, two steps each.
      'rebuild 16 as found',
      'prove 11',
    ])
    expect(phases(counted('good, goes back')).slice(2)).toEqual(['inspect 8', 'rebuild 14', 'prove 11'])
    expect(phases(counted('worn, cracked or pitted: renew')).slice(2)).toEqual([
      'inspect 7',
      'rebuild 6',
      'renew 1',
      'rebuild 4',
      'prove 11',
    ])
  })

  test('a valve found good shows as going back; one that was left for a reason as kept', () => {
    const places = (state: SheetState) =>
      state.positions.filter(({ planned }) => planned).map((each) => positionPlace(state, each))
    expect(places(counted('good, goes back'))).toEqual(['reused', 'reused'])
    expect(places(counted('worn, cracked or pitted: renew'))).toEqual(['reused', 'renewed'])
    const left = fold(
      ...doneUntil(valves, 'visit/prove/toolsBack'),
      { ...entry('skipped', { reason: 'seized' }), stepKey: stepAt(1, 'fitBack') },
      entry('kept', { assemblyId: 'pump', position: 'outletValve@2', reason: 'no puller' }),
    )
    expect(places(left)).toEqual(['kept', 'kept'])
  })
})

describe('what was found bad and went back', () => {
  const bad = (more: Partial<Finding> = {}) =>
    finding('outletValve@1', { sort: 'valve', damages: ['pitting'], ...more })
  const back = () => entry('kept', { assemblyId: 'pump', position: 'outletValve@1', reason: '' } as never)

  test('is asked about before signing, unless a reason stands with it', () => {
    const entries = doneUntil(valves, 'visit/prove/toolsBack')
    const astray = fold(...entries, done(stepAt(1, 'fitBack')), bad())
    expect(wentBack(astray).map(({ payload }) => payload.position)).toEqual(['outletValve@1'])
    expect(notReady(astray).join()).toContain('Outlet valve, cylinder 1')
    expect(wentBack(fold(...entries, done(stepAt(1, 'fitBack')), bad({ disposition: 'reuse' })))).toEqual([])
    const explained = entry('kept', {
      assemblyId: 'pump',
      position: 'outletValve@1',
      reason: 'none on the shelf, two weeks to go',
    })
    expect(wentBack(fold(...entries, bad(), explained))).toEqual([])
    // Without a damage nothing was found: the disposition is only what is usual for the part.
    expect(wentBack(fold(...entries, done(stepAt(1, 'fitBack')), bad({ damages: [] })))).toEqual([])
    expect(wentBack(fold(...entries, bad(), back())).length).toBe(1)
  })

  test('a stopped finding is open until it is decided', () => {
    const entries = doneUntil(valves, 'visit/prove/toolsBack')
    const asked = fold(...entries, bad({ disposition: 'stop' }))
    expect(stopped(asked)).toHaveLength(1)
    expect(stopped(fold(...entries, bad({ disposition: 'stop' }), bad({ disposition: 'clean' })))).toEqual([])
  })
})

describe('looking at one part', () => {
  test('a look is a step of one position without a measure, a question or a timer', () => {
    const looks = fold(entry('composed', valves))
      .steps.filter(isLook)
      .map(({ step }) => step.key)
    expect(looks).toEqual(
      [1, 2].flatMap((bore) => ['look', 'apart', 'ownBore'].map((key) => looksAt(bore, key))),
    )
  })
  const looksAt = (bore: number, key: string) =>
    key === 'look' ? `pump/outletCap/outletValves/outletValve@${bore}/look` : stepAt(bore, key)

  test('a part on which nothing is seen gets the disposition that is usual for its sort', () => {
    const seals = fold(entry('composed', contentFor(triplex, [{ task: 'hpSeals', positions: ['hpSeal@1'] }])))
    expect(sortAt(seals, 'pump', 'hpSeal@1')).toBe('seal')
    expect(sortAt(seals, 'pump', 'nothing@1')).toBe('other')
    expect(soundFinding(seals, 'pump', 'hpSeal@1')).toMatchObject({ damages: [], disposition: 'renew' })
    expect(soundFinding(seals, 'pump', 'plunger@1')).toMatchObject({
      sort: 'plunger',
      damages: [],
      disposition: 'reuse',
    })
  })

  test('the record tells each by position, and what is no position besides', () => {
    const state = fold(
      ...doneUntil(valves, 'visit/prove/toolsBack'),
      done(stepAt(1, 'fitBack')),
      entry('kept', { assemblyId: 'pump', position: 'outletValve@2', reason: 'no puller' }),
      finding('', {
        position: null,
        what: 'Manifold',
        sort: 'manifold',
        damages: ['crack'],
        words: 'a new head is ordered',
      }),
    )
    expect(positionLines(state).map(({ name, done: did, words }) => [name, did, words])).toEqual([
      ['Outlet valve, cylinder 1', 'put back', ''],
      ['Outlet valve, cylinder 2', 'kept', 'no puller'],
      ['Manifold', 'looked at', 'a new head is ordered'],
    ])
  })

  test('causes are reckoned from positions, and from what is no position, each by its name', () => {
    const state = fold(
      ...doneUntil(valves, 'visit/prove/toolsBack'),
      finding('outletValve@2', { sort: 'valve', damages: ['pitting'], extent: 'clear' }),
      finding('', { position: null, what: 'Manifold', sort: 'manifold', damages: ['crack'] }),
    )
    expect(seenOn(state, 'pump')).toEqual([
      { sort: 'valve', name: 'Outlet valve, cylinder 2', index: 2, damages: ['pitting'], extent: 'clear' },
      { sort: 'manifold', name: 'Manifold', index: null, damages: ['crack'], extent: '' },
    ])
    expect(seenOn(state, 'another')).toEqual([])
    expect(unseen(state)).toEqual([])
  })
})

test('a way can be changed while nothing of any other way has been done on the position', () => {
  const before = fold(...doneUntil(valves, stepAt(1, 'apart')))
  // Drawing the valve is common to both ways.
  expect(wayBegun(before, { ...task, positions: ['outletValve@1'] })).toBe(false)
  const begun = fold(...doneUntil(valves, stepAt(1, 'verdict')))
  expect(wayBegun(begun, { ...task, positions: ['outletValve@1'] })).toBe(true)
  expect(wayBegun(begun, { ...task, positions: ['outletValve@2'] })).toBe(false)
  expect(wayBegun(begun, { ...task, positions: ['outletValve@1', 'outletValve@2'] })).toBe(true)
  // What was done of the wanted way itself is no hindrance, nor is another task's.
  expect(wayBegun(begun, { ...task, positions: ['outletValve@1'] }, 'strip')).toBe(false)
  expect(wayBegun(begun, { ...task, task: 'inletValves', positions: ['outletValve@1'] })).toBe(false)
})

test('a device has seen its own entries, and others up to the number it was told', () => {
  const entries = [
    entry('composed', valves),
    entry('reading', { meterId: 'meter', typed: '1846.2', unreadable: '', vouched: false }),
    entry('remark', { text: 'from the other tablet' }, { deviceId: 'second' }),
    entry('remark', { text: 'own' }),
  ]
  const sent = { deviceId: 'bench', deviceSeq: entries.at(-1)!.deviceSeq + 1, seenUpTo: 2 }
  const seen = seenBy(entries, sent)
  expect(seen.map(({ sequence }) => sequence)).toEqual([1, 2, 4])
  expect(sheetState(seen)!.remarks.map(({ payload }) => payload.text)).toEqual(['own'])
  // What it wrote after the entry in question is not what it knew by then; how the sheet was composed always is.
  expect(seenBy(entries, { ...sent, deviceSeq: 2, seenUpTo: 0 }).map(({ sequence }) => sequence)).toEqual([1])
})

test('a count that nobody began has nothing open', () => {
  expect(notCounted(fold(entry('composed', valves)))).toEqual([])
})

describe('one tap for an expected part', () => {
  const seal: BenchPart = {
    id: 'stock',
    number: '4711',
    name: 'HP seal',
    unit: 'piece',
    bin: 'A3',
    onHand: 5,
    fits: [{ modelId: 'model', part: 'hpSeal' }],
    kits: [],
    lots: [
      { id: 'old', label: 'L1', onHand: 2, expired: false },
      { id: 'new', label: 'L2', onHand: 3, expired: false },
    ],
  }
  const expected = {
    assemblyId: 'pump',
    modelId: 'model',
    part: 'hpSeal',
    unit: 'piece',
    quantity: 3,
  } as const
  const shares = (stock: BenchPart[], more: object = {}) =>
    usesFor(stock, { ...expected, ...more })?.map(({ lotId, quantity }) => [lotId, quantity]) ?? null

  test('comes from the lot to use first, then the next', () => {
    expect(shares([seal])).toEqual([
      ['old', 2],
      ['new', 1],
    ])
    expect(usesFor([seal], expected)![0]).toEqual({
      partId: 'stock',
      lotId: 'old',
      name: 'HP seal',
      unit: 'piece',
      quantity: 2,
      assemblyId: 'pump',
      part: 'hpSeal',
    })
  })

  test('an expired lot is left lying; with nothing else somebody has to say', () => {
    const expired = (ids: string[]) => ({
      ...seal,
      lots: seal.lots.map((lot) => ({ ...lot, expired: ids.includes(lot.id) })),
    })
    expect(shares([expired(['old'])])).toEqual([['new', 3]])
    expect(shares([expired(['old', 'new'])])).toBeNull()
  })

  test('somebody has to say where the stores do not know it or count it otherwise', () => {
    expect(shares([])).toBeNull()
    expect(shares([seal], { modelId: 'another' })).toBeNull()
    expect(shares([seal], { part: 'lpSeal' })).toBeNull()
    expect(shares([{ ...seal, unit: 'set' as never }])).toBeNull()
    // Nothing on the shelf is no reason to stop at the bench: the bin gets counted afterwards.
    expect(shares([{ ...seal, lots: [] }])).toEqual([[null, 3]])
  })
})

test('a leak found at proving keeps the sheet from being signed until it is mended, or somebody says why it goes back so', () => {
  const proved = (leaks: string) => {
    const entries = doneUntil(valves, 'visit/prove/leaks')
    return [...entries, done('visit/prove/leaks', { answer: leaks })]
  }
  const stop = (reason: string) => done('visit/prove/leakStop', { reason })
  const words = (...entries: SheetEntry[]) =>
    notReady(fold(...entries)).filter((each) => each.startsWith('Proving found'))
  expect(words(...proved('dry everywhere'))).toEqual([])
  // It stops what comes after until it is confirmed, and is never skipped.
  const leaking = fold(...proved('a leak'))
  const flow = leaking.steps.find(({ step }) => step.key === 'visit/prove/flow')!
  expect(blockedBy(leaking, flow)).toMatch(/^First: Shut down, lock out/)
  const found = leaking.steps.find(({ step }) => step.key === 'visit/prove/leakStop')!
  expect(mayBeSkipped(found)).toBe(false)
  const stoppedThere = [...proved('a leak'), stop('')]
  expect(words(...stoppedThere)).toEqual([
    'Proving found: a leak. Add the work that mends it, or say why it goes back so.',
  ])
  expect(words(...stoppedThere, stop('weeps by design, manual page 40'))).toEqual([])
  // Proved once more after added work: only the newest proving counts.
  const again = valves.steps
    .filter(({ phase }) => phase === 'prove')
    .map((step) => ({ ...step, key: step.key.replace('visit/prove', 'visit/prove~2') }))
  const more = entry('composed', { ...valves, steps: [...valves.steps, ...again] })
  expect(words(...stoppedThere, more)).toEqual([])
})
