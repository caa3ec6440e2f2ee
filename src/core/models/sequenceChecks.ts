import { practiceOf } from '../practices'
import { eachStep, stepLists } from './steps'
import { fittedIn, mayRenew } from './taskKinds'
import type { AccessNode, PumpModel, Step, Treatment } from './types'

export type Warn = (path: string, words: string) => void

/**
 * What is probably forgotten in the order of a model's steps: a piece that nothing lays in again, oil that
 * is never filled, a setting put back too early, pins that come out too soon, threads without times,
 * plungers that are dry, a choice without a step, a head that goes on with the crank anywhere.
 */
export function checkSequence(model: PumpModel, warn: Warn): void {
  checkStacks(model, warn)
  checkFluids(model, warn)
  checkUnmarkedOil(model, warn)
  checkSettings(model, warn)
  checkLists(model, warn)
  checkPins(model, warn)
  checkTimes(model, warn)
  checkSliding(model, warn)
  checkChoices(model, warn)
}

const partName = (model: PumpModel, key: string) => model.parts.find((part) => part.key === key)?.name ?? key
const positionNameOf = (model: PumpModel, key: string) =>
  model.positions.find((position) => position.key === key)?.name ?? key

/** Everything that lies in a bore is laid in again by a closing step, innermost first. */
function checkStacks(model: PumpModel, warn: Warn): void {
  model.access.forEach((node, index) => {
    const goesIn = node.stack.map(({ part }) => fittedAt(node, part))
    node.stack.forEach(({ part }, each) => {
      const path = `access.${index}.stack.${each}`
      if (goesIn[each]! < 0)
        warn(path, `No closing step lays “${partName(model, part)}” into “${node.name}” again.`)
      const under = node.stack.findIndex((_, other) => other < each && goesIn[other]! > goesIn[each]!)
      if (goesIn[each]! >= 0 && under >= 0)
        warn(
          path,
          `“${partName(model, part)}” goes in before “${partName(model, node.stack[under]!.part)}”, on which it lies.`,
        )
    })
    for (const task of model.tasks)
      for (const key of task.positions) {
        const position = model.positions.find((each) => each.key === key)
        const lies = node.stack.some(({ part }) => part === position?.part)
        if (fittedIn(task) !== node.key || !mayRenew(task) || !lies) continue
        if (!node.close.some(({ lays }) => lays === key))
          warn(
            `access.${index}.close`,
            `“${task.name}” renews what lies here, but no closing step says when it goes in.`,
          )
      }
  })
}

/** The place in the closing steps at which a piece is in: where it is fitted, by itself or in what was built of it. */
function fittedAt(node: AccessNode, part: string): number {
  const own = node.close.findIndex((step) => step.part === part)
  const holder = (piece: string): string | undefined => node.bench.find(({ of }) => of.includes(piece))?.key
  let set = holder(part)
  for (let outer = set; outer !== undefined; outer = holder(outer)) set = outer
  if (own < 0 || set === undefined) return own
  const fitted = node.close.findIndex((step) => step.fits === set)
  return fitted < 0 ? own : fitted
}

function checkFluids(model: PumpModel, warn: Warn): void {
  const groups: [string, Step[]][] = [
    ...model.access.map((node, index): [string, Step[]] => [
      `access.${index}`,
      [...node.open, ...node.close],
    ]),
    ...model.tasks.map((task, index): [string, Step[]] => {
      const node = model.access.find(({ key }) => key === task.at)
      return [`tasks.${index}`, [...task.steps, ...(node?.close ?? [])]]
    }),
  ]
  for (const [path, steps] of groups)
    steps.forEach(({ fluid }, index) => {
      if (fluid?.goes !== 'out') return
      const filled = steps
        .slice(index + 1)
        .some((later) => later.fluid?.goes === 'in' && later.fluid.position === fluid.position && !later.when)
      if (!filled)
        warn(
          path,
          `“${positionNameOf(model, fluid.position)}” runs out here and is never filled again before proving.`,
        )
    })
}

/** Words are no mark: oil that is let out without one would never be missed. */
const letsOilOut = /\b(drain|let out|run out)\b[^.]*\boil\b/i

function checkUnmarkedOil(model: PumpModel, warn: Warn): void {
  for (const { path, step } of eachStep(model))
    if (step.fluid === null && letsOilOut.test(step.text) && step.phase !== 'prove' && step.fastener === null)
      warn(
        path,
        'This seems to let oil out, but it is not marked as running out here: nothing looks after its filling.',
      )
}

/** An adjustment is put back after it was noted, and after whatever sets and measures it. */
function checkSettings(model: PumpModel, warn: Warn): void {
  const groups = model.access.map((node, index): [string, Step[]] => [
    `access.${index}`,
    [
      ...node.open,
      ...model.tasks.filter(({ at }) => at === node.key).flatMap(({ steps }) => steps),
      ...node.close,
    ],
  ])
  const outside = model.tasks.map((task, index): [string, Step[]] => [
    `tasks.${index}.steps`,
    task.at === null ? task.steps : [],
  ])
  for (const [path, steps] of [...groups, ...outside]) {
    steps.forEach(({ setting }, index) => {
      if (setting?.goes !== 'putBack') return
      const { what } = setting
      const noted = steps.findIndex((step) => step.setting?.goes === 'noted' && step.setting.what === what)
      if (noted < 0 || noted > index) warn(path, `“${what}” is put back before it was noted.`)
      if (steps.slice(index + 1).some(({ measure }) => measure?.what === what))
        warn(path, `“${what}” is put back before it is set and measured.`)
    })
  }
}

/** What a step fits is on a list of parts: it is renewed, used up, or lies in a bore and goes back. */
function checkLists(model: PumpModel, warn: Warn): void {
  const listed = new Set([
    ...model.positions.map(({ part }) => part),
    ...model.access.flatMap(({ consumes, stack }) => [...consumes, ...stack].map(({ part }) => part)),
    ...model.tasks.flatMap(({ uses, paths }) =>
      [...uses, ...paths.flatMap((way) => way.uses)].map(({ part }) => part),
    ),
  ])
  const told = new Set<string>()
  for (const { path, step } of eachStep(model)) {
    if (!step.part || listed.has(step.part) || told.has(step.part)) continue
    if (step.phase !== 'renew' && step.phase !== 'rebuild') continue
    told.add(step.part)
    warn(path, `This fits “${partName(model, step.part)}”, which stands on no list of parts.`)
  }
}

/** Guide pins stay until the other bolts hold what they guide; then their own bolts go in. */
function checkPins(model: PumpModel, warn: Warn): void {
  model.access.forEach(({ close }, index) => {
    for (const fastener of model.fasteners) {
      if (fastener.pinned.length === 0) continue
      const own = (step: Step) => step.fastener === fastener.key
      if (!close.some(own)) continue
      const path = `access.${index}.close`
      if (!close.some((step) => own(step) && step.places === 'pinned'))
        warn(path, `Guide pins take places of “${fastener.name}”, but no step puts their bolts in.`)
      const out = close.findIndex(({ temporary }) => temporary?.goes === 'out')
      const held = close.findIndex((step) => own(step) && step.places === 'free')
      const pinned = close.findIndex((step) => own(step) && step.places === 'pinned')
      if (out >= 0 && (held < 0 || held > out))
        warn(`${path}.${out}`, `The pins come out before any of “${fastener.name}” holds.`)
      if (pinned >= 0 && pinned < out)
        warn(`${path}.${pinned}`, `“${fastener.name}” go into the pins’ places while the pins are in them.`)
    }
  })
}

function checkTimes(model: PumpModel, warn: Warn): void {
  const look = (path: string, name: string, treatment: Treatment | null) => {
    if (treatment?.kind !== 'threadlocker' && treatment?.kind !== 'sealant') return
    const lacks = [
      treatment.amount === '' && 'an amount',
      treatment.setsMinutes === null && 'a setting time',
      treatment.curesMinutes === null && 'a cure',
    ].filter(Boolean)
    const kind = treatment.kind === 'sealant' ? 'sealant' : 'threadlocker'
    if (lacks.length > 0) warn(path, `“${name}” get ${kind} without ${lacks.join(', ')}.`)
  }
  model.fasteners.forEach(({ name, treatment }, index) =>
    look(`fasteners.${index}.treatment`, name, treatment),
  )
  for (const { path, step } of eachStep(model)) look(`${path}.treatment`, step.text, step.treatment)
}

const slippery = ['assemblyLubricant', 'siliconeGrease', 'grease', 'oil']

function checkSliding(model: PumpModel, warn: Warn): void {
  model.access.forEach((node, index) =>
    node.close.forEach((step, each) => {
      if (step.slidesOver === null) return
      const over = model.positions.find(({ key }) => key === step.slidesOver)!
      const before = node.close.slice(0, each)
      const path = `access.${index}.close.${each}`
      if (
        !before.some(({ part, treatment }) => part === over.part && slippery.includes(treatment?.kind ?? ''))
      )
        warn(path, `This slides over “${over.name}”, which nothing has lubricated.`)
      if (
        over.sort === 'plunger' &&
        node.repeat === null &&
        !before.some(({ gate, crank }) => gate && crank !== '')
      )
        warn(path, `“${node.name}” is closed over the plungers with no gate for where the crank stands.`)
    }),
  )
}

/** A choice that a company can make does something: it has its step, and a step is not there for all of them. */
function checkChoices(model: PumpModel, warn: Warn): void {
  for (const [path, steps] of stepLists(model)) {
    const keys = [...new Set(steps.flatMap(({ practice }) => practice?.key ?? []))]
    for (const key of keys) {
      const { name, choices, everyChoice } = practiceOf(key)
      const says = model.manual.find(({ practice }) => practice === key)
      steps.forEach(({ practice }, index) => {
        if (practice?.key === key && choices.every((choice) => practice.is.includes(choice.key)))
          warn(
            `${path}.${index}.practice`,
            `This stands whatever is chosen for “${name}”: the practice makes no difference.`,
          )
      })
      if (!everyChoice) continue
      for (const choice of choices) {
        if (says && says.choice !== choice.key) continue
        if (!steps.some(({ practice }) => practice?.key === key && practice.is.includes(choice.key)))
          warn(path, `“${name}”: there is no step for “${choice.name}”.`)
      }
    }
  }
}
