import {
  blockedBy,
  correctableIn,
  recordLines,
  safeAnew,
  whereWorkStands,
  type SheetEntry,
} from '@/core/sheets'
import {
  contentFor,
  done,
  doneUntil,
  entry,
  fold,
  lockOn,
  madeSafe,
  read,
  restart,
  safe,
  triplex,
} from './fixture'

const content = contentFor(triplex, [{ task: 'hpSeals', positions: ['hpSeal@1'] }])
beforeEach(() => restart())

test('the work stands at the meters, then making safe, its confirmation, each step, and the end', () => {
  const opened = [entry('composed', content)]
  expect(whereWorkStands(fold(...opened))).toEqual({ at: 'meters' })
  const before = [...opened, read(), lockOn()]
  const first = content.steps.filter((step) => step.phase === 'makeSafe')
  expect(whereWorkStands(fold(...before))).toEqual({ at: 'step', key: first[0]!.key })
  const locked = [...before, ...first.map((step) => done(step.key))]
  expect(whereWorkStands(fold(...locked))).toEqual({ at: 'madeSafe' })
  const strip = content.steps.find((step) => step.phase === 'stripDown')!
  expect(whereWorkStands(fold(...locked, safe()))).toEqual({ at: 'step', key: strip.key })
})

test('wherever it stands, nothing stands in the way of that step', () => {
  const entries: SheetEntry[] = madeSafe(content)
  let state = fold(...entries)
  for (let place = whereWorkStands(state); place.at === 'step'; place = whereWorkStands(state)) {
    const { key } = place
    const step = state.steps.find((each) => each.step.key === key)!
    expect([key, blockedBy(state, step)]).toEqual([key, null])
    entries.push(done(key, { answer: step.step.step.asks?.answers.at(-1) ?? '' }))
    state = fold(...entries)
    expect(entries.length).toBeLessThan(300)
  }
  expect(whereWorkStands(state)).toEqual({ at: 'end' })
  expect(state.energised).toBe(true)
  expect(safeAnew(state)).toBe(false)
})

test('energised with something still to open, it is made safe anew by name first', () => {
  const entries = doneUntil(content, 'prove/')
  const state = fold(...entries)
  const energise = content.steps.find((step) => step.step.locks === 'off')!
  const opened = state.steps.find((each) => each.step.phase === 'rebuild' && each.by !== null)!
  const takenBack = [
    ...entries,
    done(energise.key),
    entry('takeBack', { of: opened.by!.id, reason: 'not seated' }),
  ]
  const after = fold(...takenBack)
  expect(after.energised).toBe(true)
  expect(safeAnew(after)).toBe(true)
  expect(whereWorkStands(after)).toEqual({ at: 'madeSafe' })
})

test('of a signed sheet each part used, life ended and position renewed can be corrected, and what was written', () => {
  const ended = {
    assemblyId: 'pump',
    position: 'hpSeal@1',
    endReason: 'preventive' as const,
    failingSince: null,
  }
  const use = {
    partId: null,
    lotId: null,
    name: 'Seal',
    unit: 'piece' as const,
    quantity: 2,
    assemblyId: 'pump',
    part: null,
  }
  const state = fold(
    ...doneUntil(content, 'prove/'),
    entry('part', use),
    entry('remark', { text: 'left the guard off' }),
    entry('signed', { ended: [ended], note: '' } as never),
  )
  const things = correctableIn(state, recordLines(state))
  expect(things.filter((each) => each.about === 'part')).toMatchObject([
    { label: 'Part used: Seal', quantity: 2 },
  ])
  expect(things.filter((each) => each.about === 'endReason')).toMatchObject([
    { position: 'hpSeal@1', endReason: 'preventive' },
  ])
  expect(things.filter((each) => each.about === 'notRenewed')).toMatchObject([{ position: 'hpSeal@1' }])
  expect(things.some((each) => each.label.includes('left the guard off'))).toBe(true)
  expect(things.at(-1)).toMatchObject({ about: 'words', label: 'The signature or its note' })
})
