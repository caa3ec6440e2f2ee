import fc from 'fast-check'
import { composeSheet, offersFor, recomposeSheet, savingOfBundling, type ChosenTask } from '@/core/composing'
import { outerOf, splitInstance } from '@/core/models'
import { anyJob } from './arbitraries'
import { compose, diaphragm, needs, on, opposed, plates, triplex } from './models'

/** Node instances in the order in which their opening or closing steps come. */
const nodeEvents = (keys: string[]) =>
  keys
    .map((key) => key.split('/'))
    .filter((parts) => parts[2] === 'open' || parts[2] === 'close')
    .map((parts) => `${parts[1]} ${parts[2]}`)
    .filter((event, at, all) => event !== all[at - 1])

test('every opened node is opened after all it needs, and closed before any of that is', () => {
  fc.assert(
    fc.property(anyJob, ([model, tasks, practices]) => {
      const sheet = compose(model, tasks, practices)
      const events = nodeEvents(sheet.steps.map(({ key }) => key))
      expect(new Set(events).size).toBe(events.length)
      const skipped = new Set(
        model.access
          .filter(({ key }) => !sheet.opened.some((each) => each.split('@')[0] === key))
          .map(({ key }) => key),
      )
      for (const key of sheet.opened) {
        const { key: name, index } = splitInstance(key)
        const node = model.access.find((each) => each.key === name)!
        const at = (event: string, missing: number) => {
          const found = events.indexOf(event)
          return found < 0 ? missing : found
        }
        // Closed, and after it was opened.
        if (node.close.length > 0 && node.open.length > 0)
          expect(at(`${key} open`, -1)).toBeLessThan(at(`${key} close`, -1))
        for (const outer of outerOf(model, { node, index }, skipped)) {
          expect(sheet.opened).toContain(outer.key)
          expect(at(`${outer.key} open`, -1)).toBeLessThanOrEqual(at(`${key} open`, Infinity))
          expect(at(`${outer.key} close`, Infinity)).toBeGreaterThanOrEqual(at(`${key} close`, -1))
        }
      }
    }),
  )
})

test('a task is done while its node is open', () => {
  fc.assert(
    fc.property(anyJob, ([model, tasks, practices]) => {
      const { steps, opened } = compose(model, tasks, practices)
      for (const { task, positions } of tasks) {
        const { at: node } = model.tasks.find(({ key }) => key === task)!
        for (const position of positions) {
          const { index } = splitInstance(position)
          const own = opened.includes(`${node}@${index}`) ? `${node}@${index}` : node
          const mine = steps
            .map((step, at) => ({ step, at }))
            .filter(({ step }) => step.task === task && step.position === position)
          const work = mine.filter(({ step }) => step.laidIn === undefined)
          const side = (which: string) =>
            steps
              .map((step, at) => ({ step, at }))
              .filter(({ step }) => step.key.startsWith(`P-1/${own}/${which}/`))
          for (const { at } of work) {
            expect(Math.max(-1, ...side('open').map((each) => each.at))).toBeLessThan(at)
            expect(Math.min(Infinity, ...side('close').map((each) => each.at))).toBeGreaterThan(at)
          }
          // What is laid in stands after the opening of its place, and before the last that closes it.
          for (const { step, at } of mine) {
            if (step.laidIn === undefined) continue
            const place = step.laidIn.split('/')[1]!
            const of = (which: string) =>
              steps.flatMap(({ key }, each) => (key.startsWith(`P-1/${place}/${which}/`) ? [each] : []))
            expect(Math.max(-1, ...of('open'))).toBeLessThan(at)
            // Cleaning the bore and counting its pieces come before; the rest of the way out after.
            expect(steps.some(({ key }) => key === step.laidIn)).toBe(false)
          }
        }
      }
    }),
  )
})

test('what lies in a bore goes in from the innermost outwards, each piece by exactly one step', () => {
  fc.assert(
    fc.property(anyJob, ([model, tasks, practices]) => {
      const { steps } = compose(model, tasks, practices)
      const places = [...new Set(steps.flatMap(({ key }) => /^P-1\/([^/]+)\/close\//.exec(key)?.[1] ?? []))]
      for (const place of places) {
        const node = model.access.find(({ key }) => key === splitInstance(place).key)!
        const own = steps
          .map((step, at) => ({ ...step, at }))
          .filter(({ key, laidIn }) => (laidIn ?? key).startsWith(`P-1/${place}/close/`))
        const onBench = new Set(node.bench.flatMap(({ of }) => of))
        const goesIn = node.stack
          .filter(({ part }) => !onBench.has(part))
          .map(({ part }) => own.filter(({ step }) => step.part === part).map(({ at }) => at))
        for (const at of goesIn) expect(at.length).toBeGreaterThan(0)
        // Answers that exclude each other, and pieces of one part on two sides, may each have a step.
        const firsts = goesIn.map((at) => at[0]!)
        expect(firsts).toEqual([...firsts].sort((a, b) => a - b))
        for (const { part } of node.stack) {
          const sure = own.filter(
            ({ step, position, task }) =>
              step.part === part && step.when === null && (task === null || position !== null) && !step.fits,
          )
          const places = sure.map(({ laidIn, key }) => laidIn ?? key)
          expect(new Set(places).size).toBe(places.length)
        }
      }
    }),
  )
})

test('what is found bad is opened and renewed, what is good is left shut: every step hangs on its own answer', () => {
  const sheet = compose(triplex, [on(triplex, 'plungerCheck')])
  expect(sheet.opened).toEqual(['manifold'])
  const inside = sheet.steps.filter(({ key, laidIn }) => (laidIn ?? key).includes('plungerOut@'))
  expect(inside.length).toBeGreaterThan(0)
  for (const { step } of inside)
    expect(step.when).toEqual({
      question: 'plungerVerdict',
      is: 'scored, chipped or cracked: renew',
    })
  // Nothing is reserved: the plungers go along, with what their opening would destroy.
  expect(needs(sheet)).toEqual({})
  expect(sheet.spares.map(({ part, quantity }) => [part, quantity])).toEqual(
    expect.arrayContaining([
      ['plunger', 3],
      ['copperWasher', 3],
      ['plungerOring', 3],
      ['plungerBackup', 3],
    ]),
  )
  // Three plungers of 4 + 6 minutes each, should all three be bad.
  expect(sheet.perhapsMinutes).toBe(30)
  expect(sheet.minutes).toBe(15 + 12 + 18 + 3 * 3 + 15)
  // Renewed for certain besides, each goes in once and hangs on nothing.
  const both = compose(triplex, [on(triplex, 'plungerCheck'), on(triplex, 'plungers', 2)])
  const fitted = both.steps.filter(({ laidIn }) => laidIn?.includes('plungerOut@2'))
  expect(fitted.map(({ task, step }) => [task, step.when])).toEqual([['plungers', null]])
})

test('the same tasks in any order compose the same sheet, with every key once', () => {
  fc.assert(
    fc.property(anyJob, ([model, tasks, practices]) => {
      const sheet = compose(model, tasks, practices)
      const turned = [...tasks]
        .reverse()
        .map((each) => ({ ...each, positions: [...each.positions].reverse() }))
      expect(compose(model, turned, practices)).toEqual(sheet)
      const keys = sheet.steps.map(({ key }) => key)
      expect(new Set(keys).size).toBe(keys.length)
    }),
  )
})

test('minutes are those of every opened node once, and of every task on each of its positions', () => {
  fc.assert(
    fc.property(anyJob, ([model, tasks, practices]) => {
      const sheet = compose(model, tasks, practices)
      // Counted from the finished sheet, not from the walk: node by its name, task by its steps' positions.
      const ways = sheet.opened.reduce((sum, key) => {
        const node = model.access.find((each) => each.key === key.split('@')[0])!
        return sum + node.openMinutes + node.closeMinutes
      }, 0)
      const minutesOf = (task: string, path: string | null | undefined) => {
        const found = model.tasks.find(({ key }) => key === task)!
        const byPractice = practices.company.goodValves!.choice
        const way =
          found.paths.find(({ key }) => key === path) ??
          found.paths.find(({ practice }) => practice?.choice === byPractice) ??
          found.paths[0]
        return found.minutes + (way?.minutes ?? 0)
      }
      const implied = new Map(
        sheet.implied.flatMap(({ task, positions }) => positions.map((each) => [`${task} ${each}`, task])),
      )
      const work =
        tasks.reduce(
          (sum, { task, path, positions }) =>
            sum + positions.filter((each) => !implied.has(`${task} ${each}`)).length * minutesOf(task, path),
          0,
        ) +
        [...implied.values()].reduce((sum, task) => {
          const found = model.tasks.find(({ key }) => key === task)!
          const way = found.paths.find(({ renews }) => renews === 'always')
          return sum + found.minutes + (way?.minutes ?? 0)
        }, 0)
      expect(sheet.minutes).toBeCloseTo(model.makeSafeMinutes + ways + work + model.proveMinutes, 6)
      expect(sheet.minutes).toBeLessThanOrEqual(sheet.minutesOneByOne + 1e-9)
    }),
  )
})

test('what opening always destroys is needed once for each opened node, whatever is done there', () => {
  fc.assert(
    fc.property(anyJob, ([model, tasks, practices]) => {
      const sheet = compose(model, tasks, practices)
      for (const key of sheet.opened) {
        const { key: name, index } = splitInstance(key)
        for (const use of model.access.find((each) => each.key === name)!.consumes) {
          const spot = index === null ? use.spot : `${use.spot}@${index}`
          const sure = sheet.parts.filter(({ part, spots }) => part === use.part && spots.includes(spot))
          const perhaps = sheet.spares.filter(({ part, spots }) => part === use.part && spots.includes(spot))
          // A fact that nobody knows leaves it open whether it is used.
          const onCondition =
            use.rule === 'onCondition' ||
            use.fact !== null ||
            (use.practice !== null && practices.company[use.practice]?.choice === 'onCondition')
          expect([sure.length, perhaps.length]).toEqual(onCondition ? [0, 1] : [1, 0])
          for (const each of [...sure, ...perhaps])
            expect(each.spots.filter((one) => one === spot)).toHaveLength(1)
        }
      }
    }),
  )
})

test('every temporary tool that goes in comes out again, and is counted back before proving', () => {
  fc.assert(
    fc.property(anyJob, ([model, tasks, practices]) => {
      const { steps } = compose(model, tasks, practices)
      const inside = new Map<string, number>()
      for (const { step } of steps) {
        if (!step.temporary) continue
        const count = (inside.get(step.temporary.tool) ?? 0) + (step.temporary.goes === 'in' ? 1 : -1)
        expect(count).toBeGreaterThanOrEqual(0)
        inside.set(step.temporary.tool, count)
      }
      expect([...inside.values()].every((count) => count === 0)).toBe(true)
      const back = steps.findIndex(({ step }) => step.key === 'toolsBack')
      // The closing count stands on every sheet, and nothing temporary goes in after it.
      expect(back).toBeGreaterThan(0)
      expect(steps.slice(back + 1).some(({ step }) => step.temporary)).toBe(false)
    }),
  )
})

test('what is built on the bench is built before it is fitted', () => {
  fc.assert(
    fc.property(anyJob, ([model, tasks, practices]) => {
      const { steps } = compose(model, tasks, practices)
      steps.forEach(({ step, key }, at) => {
        if (!step.fits) return
        const place = key.slice(0, key.lastIndexOf('/'))
        expect(
          steps.slice(0, at).some((each) => each.step.builds === step.fits && each.key.startsWith(place)),
        ).toBe(true)
      })
    }),
  )
})

test('bundling saves what the shared openings, making safe and proving would cost again', () => {
  const input = {
    assemblies: [{ id: 'P-1', model: triplex, tasks: [on(triplex, 'hpSeals'), on(triplex, 'oilSeals')] }],
  }
  const saving = savingOfBundling(input)
  // The manifold, 12 + 18, is shared; making safe 15 and proving 15 too. Plungers stay where the stacks are.
  expect(saving.saved).toBe(30 + 30)
  expect(saving.oneByOne - saving.together).toBe(saving.saved)
  expect(saving.shared.map(({ node, tasks }) => [node, tasks])).toEqual([['manifold', 2]])
})

test('offers: what the strip-down makes cheap, with what it costs now and what it costs alone', () => {
  const input = { assemblies: [{ id: 'P-1', model: triplex, tasks: [on(triplex, 'hpSeals')] }] }
  const offers = offersFor(input)
  const oilSeals = offers.find(({ task }) => task === 'oilSeals')!
  // Plungers off 3 × (4 + 6) and three oil seals of 6; alone also manifold 30, safe and proof 30.
  expect([oilSeals.now, oilSeals.alone]).toEqual([48, 48 + 30 + 30])
  expect(oilSeals.openAlready).toEqual(['Manifold off'])
  expect(
    offers
      .map(({ task }) => task)
      .slice(0, 3)
      .sort(),
  ).toEqual(['lpSeals', 'plungerCheck', 'retainerCheck'])
  expect(offers.some(({ task }) => task === 'hpSeals')).toBe(false)
  // One cylinder is open: the others of that task are offered too.
  const one = offersFor({ assemblies: [{ id: 'P-1', model: triplex, tasks: [on(triplex, 'hpSeals', 2)] }] })
  expect(one.find(({ task }) => task === 'hpSeals')!.positions).toEqual(['hpSeal@1', 'hpSeal@3'])
  expect(offersFor({ assemblies: [{ id: 'P-1', model: triplex, tasks: [] }] })).toEqual([])
  // On the opposed pump, what comes with the plungers anyway is not offered on top.
  const plungers = offersFor({
    assemblies: [{ id: 'P-1', model: opposed, tasks: [on(opposed, 'plungers')] }],
  })
  expect(plungers.some(({ task }) => task === 'sealRings')).toBe(false)
})

describe('adding a task to a half-done sheet', () => {
  const input = (...tasks: ChosenTask[]) => ({ assemblies: [{ id: 'P-1', model: triplex, tasks }] })
  const seals = on(triplex, 'hpSeals', 1)
  const before = composeSheet(input(seals))
  const upTo = (key: string) => {
    const at = before.steps.findIndex((step) => step.key === key)
    const done = new Set(before.steps.slice(0, at + 1).map((step) => step.key))
    return (each: string) => done.has(each)
  }

  test('the pump is still open: only what is missing is opened, and what is done stays', () => {
    const isDone = upTo('P-1/sealStack/hpSeals/hpSeal@1/fit')
    const after = recomposeSheet(before.steps, isDone, input(seals, on(triplex, 'oilSeals', 1)))
    const done = before.steps.filter(({ key }) => isDone(key))
    expect(after.steps.slice(0, done.length)).toEqual(done)
    expect(after.reopened).toEqual([])
    expect(after.again).toEqual([])
    const left = after.steps.slice(done.length).map(({ key }) => key)
    expect(left[0]).toBe('P-1/plungerOut@1/open/bolt')
    expect(left.filter((key) => key.includes('manifold/open'))).toEqual([])
    expect(left.filter((key) => key.includes('/close/')).at(-1)).toBe('P-1/manifold/close/stage2')
  })

  test('the manifold is back on: it is opened once more, and what that destroys is needed again', () => {
    const isDone = upTo('P-1/manifold/close/stage2')
    const after = recomposeSheet(before.steps, isDone, input(seals, on(triplex, 'lpSeals', 1)))
    expect(after.reopened).toEqual(['P-1/manifold', 'P-1/sealStack@1'])
    expect(after.again.map(({ part, quantity }) => [part, quantity])).toEqual([['retainerOring', 1]])
    const keys = after.steps.map(({ key }) => key)
    expect(new Set(keys).size).toBe(keys.length)
    expect(keys).toContain('P-1/manifold/close/stage2')
    expect(keys.indexOf('P-1/manifold/close/stage2')).toBeLessThan(keys.indexOf('P-1/manifold~2/open/crank'))
    expect(keys).toContain('P-1/sealStack@1~2/close/retainer')
    // And a third time, when that was closed as well.
    const all = () => true
    const third = recomposeSheet(
      after.steps,
      all,
      input(seals, on(triplex, 'lpSeals', 1), on(triplex, 'hpSeals', 2)),
    )
    expect(third.steps.map(({ key }) => key)).toContain('P-1/manifold~3/open/crank')
    expect(third.steps.filter(({ key }) => !keys.includes(key)).map(({ key }) => key)).toContain(
      'P-1/sealStack@2/open/draw',
    )
  })

  test('proving had begun: it is done once more as a whole; where the locks were off, making safe too', () => {
    const more = input(seals, on(triplex, 'lpSeals', 1))
    const counted = recomposeSheet(before.steps, upTo('visit/prove/toolsBack'), more)
    const keysOf = (sheet: typeof counted) => sheet.steps.map(({ key }) => key)
    expect(counted.safeAgain).toBe(false)
    expect(keysOf(counted).filter((key) => key.startsWith('visit/makeSafe~2/'))).toEqual([])
    expect(keysOf(counted).at(-1)).toMatch(/^visit\/prove~2\//)
    const energised = recomposeSheet(before.steps, () => true, more)
    expect(energised.safeAgain).toBe(true)
    const keys = keysOf(energised)
    const safe = keys.findIndex((key) => key.startsWith('visit/makeSafe~2/'))
    expect(safe).toBe(before.steps.length)
    expect(keys.indexOf('P-1/manifold~2/open/crank')).toBeGreaterThan(safe)
    expect(keys.filter((key) => key.startsWith('visit/prove~2/'))).toHaveLength(
      before.steps.filter(({ key }) => key.startsWith('visit/prove/')).length,
    )
    expect(energised.minutes - counted.minutes).toBe(triplex.makeSafeMinutes)
    // Once more, and there is a third making safe.
    const third = recomposeSheet(energised.steps, () => true, input(seals, on(triplex, 'lpSeals', 1, 2)))
    expect(keysOf(third).some((key) => key.startsWith('visit/makeSafe~3/'))).toBe(true)
    expect(new Set(keysOf(third)).size).toBe(third.steps.length)
  })

  test('at any point, for any pump: nothing done is lost, no key comes twice, and all that was asked for is there', () => {
    fc.assert(
      fc.property(anyJob, fc.nat(), ([model, tasks, practices], cut) => {
        const [first, ...rest] = tasks
        const start = compose(model, [first!], practices)
        const reached = cut % (start.steps.length + 1)
        const done = new Set(start.steps.slice(0, reached).map(({ key }) => key))
        const after = recomposeSheet(
          start.steps,
          (key) => done.has(key),
          { assemblies: [{ id: 'P-1', model, tasks: [first!, ...rest] }] },
          practices,
        )
        expect(after.steps.slice(0, reached)).toEqual(start.steps.slice(0, reached))
        const keys = after.steps.map(({ key }) => key)
        expect(new Set(keys).size).toBe(keys.length)
        const whole = compose(model, tasks, practices)
        for (const { key, task } of whole.steps) if (task !== null) expect(keys).toContain(key)
        // Whatever is still open at that point is closed by what is left.
        for (const { key } of after.steps.slice(reached)) {
          const [, node, side, ...step] = key.split('/')
          if (side !== 'open') continue
          const closing = model.access.find((each) => each.key === node!.split(/[@~]/)[0])!.close.length > 0
          if (closing) expect(keys.some((each) => each.startsWith(`P-1/${node}/close/`))).toBe(true)
          expect(step.length).toBeGreaterThan(0)
        }
      }),
    )
  })
})

test('two pumps of different kinds on one visit: safe and proof once, each own parts apart', () => {
  const sheet = composeSheet({
    assemblies: [
      { id: 'P-1', model: plates, tasks: [on(plates, 'oilChange')] },
      { id: 'P-2', model: diaphragm, tasks: [on(diaphragm, 'oilChange')] },
    ],
  })
  // The oil of the second is let out and filled at a place of its own: 8 + 16, and 6 for the change.
  expect(sheet.minutes).toBe(18 + 22 + (8 + 16 + 6) + 22)
  expect(sheet.parts.map(({ assemblyId, part, quantity }) => [assemblyId, part, quantity])).toEqual([
    ['P-1', 'oil', 2.6],
    ['P-1', 'drainSeal', 1],
    ['P-2', 'drainSeal', 1],
    ['P-2', 'oil', 1.6],
  ])
  // Each has its own proving pressure.
  expect(
    sheet.steps.filter(({ step }) => step.key === 'pressure').map(({ step }) => step.measure!.max),
  ).toEqual([210, 40])
  expect(needs(sheet)).toEqual({ oil: 1.6, drainSeal: 1 })
})
