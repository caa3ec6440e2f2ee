import { imbalance, tighteningOrder } from '../torque'
import { accessPath } from './path'
import { checkSequence, type Warn } from './sequenceChecks'
import { mayRenew } from './taskKinds'
import { eachStep } from './steps'
import type { Fastener, PumpModel, Step } from './types'

/** Something about a model that a person should look at; it can be published all the same. */
export type ModelCheck = {
  /** The place in the JSON, such as `fasteners.2`. */
  path: string
  /** `warning`: probably forgotten or wrong. `doubt`: the manual itself is in doubt; settle it. */
  kind: 'warning' | 'doubt'
  words: string
}

/** Above this share of the plate's size the load is no longer balanced. Ours. */
const balancedUpTo = 0.4

/**
 * What is probably forgotten or wrong in a model that reads well: each with its place and one sentence.
 * All are warnings, which the maker's own order may overrule.
 *
 * @param model one that `parsePumpModel` accepts
 */
export function checkModel(model: PumpModel): ModelCheck[] {
  const found: ModelCheck[] = []
  const warn = (path: string, words: string) => found.push({ path, kind: 'warning', words })
  checkTaskNodes(model, warn)
  checkRenewal(model, warn)
  checkKits(model, warn)
  checkFasteners(model, warn)
  checkReach(model, warn)
  checkOrientation(model, warn)
  checkPairs(model, warn)
  checkTools(model, warn)
  checkSequence(model, warn)
  return [...found, ...doubtsOf(model)]
}

const insideSorts = ['valve', 'seal', 'plunger', 'oilSeal']

function checkTaskNodes(model: PumpModel, warn: Warn): void {
  model.tasks.forEach((task, index) => {
    const inside = model.positions.some(
      (position) => task.positions.includes(position.key) && insideSorts.includes(position.sort),
    )
    if (task.at === null && inside)
      warn(`tasks.${index}.at`, `“${task.name}” hangs on no node: nothing is opened for it.`)
  })
}

function checkRenewal(model: PumpModel, warn: Warn): void {
  model.positions.forEach((position, index) => {
    const renewed = model.tasks.some((task) => mayRenew(task) && task.positions.includes(position.key))
    if (!renewed && position.part !== null) warn(`positions.${index}`, `No task renews “${position.name}”.`)
  })
  model.access.forEach((node, index) =>
    node.disturbs.forEach(({ position, rule }, each) => {
      const renewed = model.tasks.some((task) => task.kind === 'renew' && task.positions.includes(position))
      if (rule === 'renew' && !renewed)
        warn(`access.${index}.disturbs.${each}`, `“${node.name}” disturbs what no task renews.`)
    }),
  )
}

function checkKits(model: PumpModel, warn: Warn): void {
  const inKits = new Set(model.kits.flatMap((kit) => kit.holds.map(({ part }) => part)))
  const told = new Set<string>()
  model.access.forEach((node, index) =>
    node.consumes.forEach((use, each) => {
      const part = model.parts.find(({ key }) => key === use.part)
      if (use.rule !== 'always' || !part || part.consumable || inKits.has(part.key) || told.has(part.key))
        return
      told.add(part.key)
      warn(`access.${index}.consumes.${each}`, `“${part.name}” is always renewed, but no kit holds it.`)
    }),
  )
}

function checkFasteners(model: PumpModel, warn: Warn): void {
  const steps = eachStep(model)
  model.fasteners.forEach((fastener, index) => {
    const path = `fasteners.${index}`
    const { torque } = fastener
    if (torque.source === '') warn(`${path}.torque.source`, `The torque of “${fastener.name}” has no source.`)
    const own = steps.filter(({ step }) => step.fastener === fastener.key && !step.snug)
    if (own.length === 0) warn(path, `No step tightens “${fastener.name}”.`)
    else if (torque.state === 'stated') {
      const stages = Math.max(torque.stages.length, 1)
      for (let stage = 1; stage <= stages; stage += 1)
        if (!own.some(({ step }) => (step.stage ?? stages) === stage))
          warn(path, `No step pulls stage ${stage} of “${fastener.name}”.`)
    }
    if (fastener.retapFirst && fastener.treatment.kind === 'threadlocker')
      warn(
        `${path}.retapFirst`,
        `“${fastener.name}” have threadlocker: a bolt is never tightened again once it has set.`,
      )
    const share = orderImbalance(fastener)
    if (share > balancedUpTo)
      warn(
        `${path}.pattern`,
        `This order leaves the plate of “${fastener.name}” unbalanced: after some pair the load is ${Math.round(share * 100)}\u00a0% off the middle.`,
      )
  })
  for (const [list, steps] of closingLists(model)) {
    steps.forEach((step, index) => {
      const fastener = model.fasteners.find((each) => each.key === step.fastener)
      if (fastener?.treatment.kind !== 'threadlocker' || step.phase === 'stripDown') return
      if (!steps.slice(0, index + 1).some((each) => each.cleans === 'threads'))
        warn(`${list}.${index}`, `Old locker is not cleaned off before “${fastener.name}” get new one.`)
    })
  }
}

/** How far a fastener's order lets the load wander; 0 where no order is drawn. */
function orderImbalance(fastener: Fastener): number {
  if (fastener.layout.length < 4 || fastener.pattern === 'single') return 0
  const bolts = fastener.layout.map(({ x, y }, index) => ({ id: String(index + 1), x, y, number: index + 1 }))
  const pattern = fastener.pattern === 'notStated' ? 'crissCross' : fastener.pattern
  return imbalance(bolts, tighteningOrder(bolts, pattern))
}

function closingLists(model: PumpModel): [path: string, steps: Step[]][] {
  return [
    ...model.access.map((node, index): [string, Step[]] => [`access.${index}.close`, node.close]),
    ...model.tasks.map((task, index): [string, Step[]] => [`tasks.${index}.steps`, task.steps]),
  ]
}

function checkReach(model: PumpModel, warn: Warn): void {
  const reached = new Set(model.tasks.flatMap((task) => accessPath(model, task.at)))
  model.access.forEach((node, index) => {
    if (!reached.has(node.key)) warn(`access.${index}`, `No task leads to “${node.name}”.`)
  })
}

function checkOrientation(model: PumpModel, warn: Warn): void {
  const oriented = new Set(model.parts.filter((part) => part.oriented).map(({ key }) => key))
  const nameOf = (key: string) => model.parts.find((part) => part.key === key)?.name ?? key
  for (const { path, step } of eachStep(model)) {
    const fits = step.phase === 'renew' || step.phase === 'rebuild'
    if (step.part && fits && oriented.has(step.part) && !step.orientation)
      warn(path, `This fits “${nameOf(step.part)}” without saying which way it faces.`)
  }
  model.access.forEach((node, index) => {
    node.stack.forEach((item, each) => {
      if (oriented.has(item.part) && !item.orientation)
        warn(`access.${index}.stack.${each}`, `“${nameOf(item.part)}” lies here without a way round.`)
    })
    const asItWas = [
      ...node.stack.map((item) => item.orientation),
      ...node.close.map((step) => step.orientation),
    ].some((orientation) => orientation?.towards === 'asItCameOut')
    if (asItWas && !node.open.some((step) => step.photo))
      warn(`access.${index}.open`, `Something goes back as it came out, but no photo is taken before.`)
  })
}

/** What goes in comes out, what is noted is put back, what is fitted as one is built before. */
function checkPairs(model: PumpModel, warn: Warn): void {
  const groups: [string, Step[]][] = [
    ['makeSafe', [...model.makeSafe, ...model.prove]],
    ...model.access.map((node, index): [string, Step[]] => [
      `access.${index}`,
      [...node.open, ...node.close],
    ]),
    ...model.tasks.flatMap((task, index): [string, Step[]][] =>
      task.paths.length === 0
        ? [[`tasks.${index}.steps`, task.steps]]
        : task.paths.map((path, each) => [
            `tasks.${index}.paths.${each}.steps`,
            [...task.steps, ...path.steps],
          ]),
    ),
  ]
  for (const [path, steps] of groups) {
    const open = new Map<string, number>()
    for (const { temporary } of steps) {
      if (!temporary) continue
      open.set(temporary.tool, (open.get(temporary.tool) ?? 0) + (temporary.goes === 'in' ? 1 : -1))
    }
    for (const [tool, count] of open) {
      const name = model.tools.find((each) => each.key === tool)?.name ?? tool
      if (count > 0) warn(path, `“${name}” go in and never come out.`)
      if (count < 0) warn(path, `“${name}” come out without having gone in.`)
    }
    for (const { setting } of steps) {
      const back = steps.some(
        (other) => other.setting?.what === setting?.what && other.setting?.goes === 'putBack',
      )
      if (setting?.goes === 'noted' && !back) warn(path, `“${setting.what}” is noted, but not put back.`)
    }
    steps.forEach((step, index) => {
      if (step.fits && !steps.slice(0, index).some((earlier) => earlier.builds === step.fits))
        warn(path, `“${step.fits}” is fitted before it was built on the bench.`)
    })
  }
}

function checkTools(model: PumpModel, warn: Warn): void {
  const removalOnly = new Set(model.tools.filter((tool) => tool.removalOnly).map(({ key }) => key))
  for (const { path, step } of eachStep(model)) {
    const tool = step.tools.find((key) => removalOnly.has(key))
    if (tool && (step.phase === 'rebuild' || step.fastener !== null) && step.phase !== 'stripDown')
      warn(path, `“${model.tools.find(({ key }) => key === tool)!.name}” is for removal only.`)
  }
}

function doubtsOf(model: PumpModel): ModelCheck[] {
  const doubts = (list: 'parts' | 'fasteners' | 'fluids') =>
    model[list].map(({ doubt, name }, index) => ({ path: `${list}.${index}`, words: doubt, name }))
  return [
    ...doubts('parts'),
    ...doubts('fasteners'),
    ...doubts('fluids'),
    ...eachStep(model).map(({ path, step }) => ({ path, words: step.doubt, name: step.text })),
  ]
    .filter(({ words }) => words !== '')
    .map(({ path, words, name }) => ({ path, kind: 'doubt', words: `${name}: ${words}` }))
}
