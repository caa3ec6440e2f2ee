import { invalid, problemOf, check, checkOptions } from '../problem'
import { practiceOf } from '../practices'
import { instancesOf } from './instances'
import { pumpModelDataSchema } from './schema'
import { modelForSize, sizeFaults } from './sizes'
import { eachStep, stepLists } from './steps'
import { fittedIn, mayRenew } from './taskKinds'
import type { OnlyForFact, PumpModel, Treatment } from './types'

type Faults = Record<string, string>

/** More than any pump's manual: a model beyond this is a mistake, and would make every sheet unreadable. */
export const mostSteps = 2000
const mostInstances = 2000
const mostPieces = 12_000
/** Every size is checked as a model of its own: so many pieces in all sizes together take a second. */
const mostPiecesInSizes = 40_000

/**
 * Reads a pump model from JSON data and checks what its pieces say of each other, in every size.
 *
 * @param data parsed JSON, whatever it is
 * @returns the model with its defaults filled in
 * @throws a problem of kind `invalid` with one sentence per path, such as
 *   `tasks.2.positions.0` or `access.4.parent`; all faults at once
 */
export function parsePumpModel(data: unknown): PumpModel {
  refuseTooLarge(data)
  const model = check(pumpModelDataSchema, data)
  const faults = faultsOf(model)
  if (Object.keys(faults).length === 0) {
    Object.assign(faults, sizeFaults(model))
    model.sizes.forEach((size, index) => {
      if (Object.keys(faults).some((path) => path.startsWith(`sizes.${index}.`))) return
      const inSize = pumpModelFaults(modelForSize(model, size.key))
      for (const [path, fault] of Object.entries(inSize)) {
        faults[`sizes.${index}.differs`] = `In this size, ${path}: ${fault}`
      }
    })
  }
  if (Object.keys(faults).length > 0) throw invalid(faults)
  return model
}

/** The faults of some data, for an editor that shows them while typing. Empty where there are none. */
export function pumpModelFaults(data: unknown): Faults {
  try {
    parsePumpModel(data)
    return {}
  } catch (error) {
    const problem = problemOf(error)
    if (problem?.kind === 'invalid') return problem.fields
    throw error
  }
}

/** A model as it was published, with whatever the language has learnt since filled in by its defaults. */
export function completeModel(published: unknown): PumpModel {
  const { value } = pumpModelDataSchema.validate(published, { ...checkOptions, allowUnknown: true })
  return value as PumpModel
}

function faultsOf(model: PumpModel): Faults {
  const faults: Faults = {}
  checkSize(model, faults)
  checkKeys(model, faults)
  checkReferences(model, faults)
  checkRepeats(model, faults)
  checkTree(model, faults)
  checkTasks(model, faults)
  checkFasteners(model, faults)
  checkPractices(model, faults)
  return faults
}

/** Before anything is looked at closely: checking ten thousand steps one by one would hold up everybody. */
function refuseTooLarge(data: unknown): void {
  let steps = 0
  let pieces = 0
  const count = (value: unknown, depth: number): void => {
    if (depth > 40) throw invalid({ '': 'The data is nested far deeper than a model is.' })
    if (Array.isArray(value)) value.forEach((each) => count(each, depth + 1))
    else if (typeof value === 'object' && value !== null) {
      pieces += 1
      if ('phase' in value) steps += 1
      Object.values(value).forEach((each) => count(each, depth + 1))
    }
  }
  count(data, 0)
  if (steps > mostSteps)
    throw invalid({
      steps: `The model has ${steps} steps; at most ${mostSteps} can be worked with. Split it.`,
    })
  if (pieces > mostPieces)
    throw invalid({ '': `The data has ${pieces} pieces; at most ${mostPieces} can be worked with.` })
  const sizes = (data as { sizes?: unknown } | null)?.sizes
  const inSizes = Array.isArray(sizes) ? sizes.length * (pieces - sizes.length) : 0
  if (inSizes > mostPiecesInSizes)
    throw invalid({
      sizes: `${(sizes as unknown[]).length} sizes of so large a model are more than can be checked. Split the family.`,
    })
}

function checkSize(model: PumpModel, faults: Faults): void {
  const instances = model.positions.reduce((sum, each) => sum + instancesOf(model, each).length, 0)
  if (instances > mostInstances) faults['positions'] = `${instances} positions are more than one pump has.`
}

const lists = [
  'sizes',
  'facts',
  'repeats',
  'zones',
  'positions',
  'parts',
  'fluids',
  'kits',
  'tools',
  'fasteners',
  'access',
  'tasks',
] as const
type List = (typeof lists)[number]

function checkKeys(model: PumpModel, faults: Faults): void {
  const twice = (path: string, items: { key: string }[]) => {
    const seen = new Set<string>()
    items.forEach((item, index) => {
      if (seen.has(item.key)) faults[`${path}.${index}.key`] = `“${item.key}” stands here twice.`
      seen.add(item.key)
    })
  }
  for (const list of lists) twice(list, model[list])
  for (const [path, steps] of stepLists(model)) twice(path, steps)
  model.access.forEach((node, index) => twice(`access.${index}.bench`, node.bench))
  model.tasks.forEach((task, index) => twice(`tasks.${index}.paths`, task.paths))
  const names = new Map<string, number>()
  model.positions.forEach((position, index) => {
    const name = position.name.toLowerCase()
    if (names.has(name))
      faults[`positions.${index}.name`] = `Two positions are called “${position.name}”: name them apart.`
    names.set(name, index)
  })
}

function checkReferences(model: PumpModel, faults: Faults): void {
  const known = Object.fromEntries(
    lists.map((list) => [list, new Set(model[list].map((item) => item.key))]),
  ) as Record<List, Set<string>>
  const refer = (path: string, list: List, key: string | null) => {
    if (key !== null && !known[list].has(key))
      faults[path] = `There is no “${key}” among the ${listNames[list]}.`
  }
  model.repeats.forEach((repeat, index) => {
    if (repeat.inside) refer(`repeats.${index}.inside.repeat`, 'repeats', repeat.inside.repeat)
  })
  model.positions.forEach((position, index) => {
    refer(`positions.${index}.zone`, 'zones', position.zone)
    refer(`positions.${index}.repeat`, 'repeats', position.repeat)
    refer(`positions.${index}.part`, 'parts', position.part)
  })
  model.fluids.forEach((fluid, index) => refer(`fluids.${index}.position`, 'positions', fluid.position))
  model.kits.forEach((kit, index) =>
    kit.holds.forEach((piece, each) => refer(`kits.${index}.holds.${each}.part`, 'parts', piece.part)),
  )
  model.access.forEach((node, index) => {
    const at = `access.${index}`
    refer(`${at}.parent`, 'access', node.parent)
    node.needs.forEach((key, each) => refer(`${at}.needs.${each}`, 'access', key))
    refer(`${at}.repeat`, 'repeats', node.repeat)
    node.consumes.forEach((use, each) => refer(`${at}.consumes.${each}.part`, 'parts', use.part))
    node.stack.forEach((item, each) => refer(`${at}.stack.${each}.part`, 'parts', item.part))
    node.bench.forEach((built, each) =>
      built.of.forEach((part, one) => {
        // A piece of it may be a sub-assembly that was built before it.
        const inner = node.bench.findIndex(({ key }) => key === part)
        if (inner < 0) refer(`${at}.bench.${each}.of.${one}`, 'parts', part)
        else if (inner >= each)
          faults[`${at}.bench.${each}.of.${one}`] = `“${part}” must be listed before what it is built into.`
      }),
    )
    node.disturbs.forEach((each, one) => refer(`${at}.disturbs.${one}.position`, 'positions', each.position))
    for (const side of ['open', 'close'] as const) {
      node[side].forEach((step, each) => {
        for (const what of ['builds', 'fits'] as const) {
          if (step[what] !== null && !node.bench.some((built) => built.key === step[what]))
            faults[`${at}.${side}.${each}.${what}`] =
              `“${node.name}” has no bench sub-assembly “${step[what]}”.`
        }
      })
    }
  })
  model.tasks.forEach((task, index) => {
    const at = `tasks.${index}`
    refer(`${at}.at`, 'access', task.at)
    refer(`${at}.renewsAt`, 'access', task.renewsAt)
    if (task.renewsAt !== null) checkRenewsAt(model, index, faults)
    task.positions.forEach((key, each) => refer(`${at}.positions.${each}`, 'positions', key))
    if (task.kind === 'condition' && !task.steps.some(({ asks }) => asks !== null))
      faults[`${at}.steps`] = 'What is renewed on condition is judged first: a step asks what was found.'
    const always = task.steps.findIndex((step) => step.phase === 'renew' && step.when === null)
    if (task.kind === 'condition' && always >= 0)
      faults[`${at}.steps.${always}`] = 'Renewed on condition: this step must hang on an answer.'
    task.uses.forEach((use, each) => refer(`${at}.uses.${each}.part`, 'parts', use.part))
    task.paths.forEach((path, one) =>
      path.uses.forEach((use, each) => refer(`${at}.paths.${one}.uses.${each}.part`, 'parts', use.part)),
    )
  })
  for (const { path, step } of eachStep(model)) {
    if (step.count && step.count.max < step.count.min)
      faults[`${path}.count.max`] = `At most ${step.count.max} is less than at least ${step.count.min}.`
    refer(`${path}.repeat`, 'repeats', step.repeat)
    refer(`${path}.part`, 'parts', step.part)
    refer(`${path}.fastener`, 'fasteners', step.fastener)
    step.tools.forEach((tool, each) => refer(`${path}.tools.${each}`, 'tools', tool))
    if (step.temporary) refer(`${path}.temporary.tool`, 'tools', step.temporary.tool)
    refer(`${path}.lays`, 'positions', step.lays)
    refer(`${path}.slidesOver`, 'positions', step.slidesOver)
    if (step.fluid) refer(`${path}.fluid.position`, 'positions', step.fluid.position)
    if (step.fact && step.when)
      faults[`${path}.fact`] = 'A step hangs on a fact or on an answer, not on both.'
    if ((step.snug || step.places !== 'all') && step.fastener === null)
      faults[`${path}.fastener`] = 'Say which bolts this is about.'
    const pinned = model.fasteners.find(({ key }) => key === step.fastener)?.pinned ?? []
    if (step.places === 'pinned' && step.fastener !== null && pinned.length === 0)
      faults[`${path}.places`] = 'No guide pins take the places of these.'
    taken(`${path}.treatment`, step.treatment)
  }
  model.fasteners.forEach((fastener, index) => taken(`fasteners.${index}.treatment`, fastener.treatment))
  checkFacts(model, faults)
  checkLaying(model, faults)

  function taken(path: string, treatment: Treatment | null): void {
    const part = model.parts.find(({ key }) => key === treatment?.takes?.part)
    refer(`${path}.takes.part`, 'parts', treatment?.takes?.part ?? null)
    if (part && part.unit !== treatment!.takes!.unit)
      faults[`${path}.takes.unit`] = `“${part.name}” is counted in ${part.unit}.`
  }
}

/** What hangs on a fact names one that the model asks, or the drive, which the machine knows. */
function checkFacts(model: PumpModel, faults: Faults): void {
  const known = (path: string, only: OnlyForFact) => {
    if (!only) return
    const fact = model.facts.find(({ key }) => key === only.key)
    if (!fact) faults[`${path}.key`] = `There is no “${only.key}” among the facts.`
    else
      only.is.forEach((answer, each) => {
        if (!fact.answers.includes(answer)) faults[`${path}.is.${each}`] = `“${fact.name}” is never this.`
      })
  }
  model.access.forEach((node, index) => {
    node.consumes.forEach((use, each) => known(`access.${index}.consumes.${each}.fact`, use.fact))
  })
  model.tasks.forEach((task, index) => {
    task.uses.forEach((use, each) => known(`tasks.${index}.uses.${each}.fact`, use.fact))
    task.paths.forEach((way, one) =>
      way.uses.forEach((use, each) => known(`tasks.${index}.paths.${one}.uses.${each}.fact`, use.fact)),
    )
  })
  for (const { path, step } of eachStep(model)) known(`${path}.fact`, step.fact)
}

/** Opened only for what is found bad: further in than where it is looked at, with a place for each piece. */
function checkRenewsAt(model: PumpModel, index: number, faults: Faults): void {
  const task = model.tasks[index]!
  const path = `tasks.${index}.renewsAt`
  const node = model.access.find(({ key }) => key === task.renewsAt)
  const at = model.access.find(({ key }) => key === task.at)
  if (!node || (task.at !== null && !at)) return
  const outer = new Set<string>()
  const way = (key: string | null): void => {
    const found = model.access.find((each) => each.key === key)
    if (!found || outer.has(found.key)) return
    outer.add(found.key)
    for (const each of [found.parent, ...found.needs]) way(each)
  }
  way(node.key)
  if (task.kind !== 'condition') faults[path] = 'Only work on condition renews elsewhere than where it looks.'
  else if (node.key === task.at || (at && !outer.has(at.key)))
    faults[path] = `“${node.name}” does not lie further in than where it is looked at.`
  else if (task.positions.some((key) => !node.close.some(({ lays }) => lays === key)))
    faults[path] = `A closing step of “${node.name}” says where each piece is laid in.`
  else if (node.disturbs.some(({ rule }) => rule === 'renew'))
    faults[path] = `“${node.name}” destroys other parts when it is opened: it is never opened on condition.`
}

/** A piece goes in once: one closing step of the node in which its position is renewed. */
function checkLaying(model: PumpModel, faults: Faults): void {
  for (const { path, step } of eachStep(model)) {
    if (step.lays === null) continue
    const [list, index, side] = path.split('.')
    const node = list === 'access' && side === 'close' ? model.access[Number(index)] : undefined
    if (!node) {
      faults[`${path}.lays`] = 'Only a closing step lays something in.'
      continue
    }
    if (node.close.filter(({ lays }) => lays === step.lays).length > 1)
      faults[`${path}.lays`] = 'Two steps of this node lay it in: say which one it is.'
    const elsewhere = model.tasks.find(
      (task) => mayRenew(task) && task.positions.includes(step.lays!) && fittedIn(task) !== node.key,
    )
    if (elsewhere) faults[`${path}.lays`] = `“${elsewhere.name}” fits it elsewhere: it would go in twice.`
    const position = model.positions.find(({ key }) => key === step.lays)
    if (position?.repeat && position.repeat !== node.repeat && position.repeat !== step.repeat)
      faults[`${path}.lays`] = `“${position.name}” repeats, but neither this node nor this step does so.`
  }
}

const listNames: Record<List, string> = {
  sizes: 'sizes',
  facts: 'facts',
  repeats: 'repeats',
  zones: 'zones',
  positions: 'positions',
  parts: 'parts',
  fluids: 'fluids',
  kits: 'kits',
  tools: 'tools',
  fasteners: 'fasteners',
  access: 'access nodes',
  tasks: 'tasks',
}

function checkRepeats(model: PumpModel, faults: Faults): void {
  model.repeats.forEach((repeat, index) => {
    if (repeat.labels && repeat.labels.length !== repeat.count)
      faults[`repeats.${index}.labels`] =
        `There are ${repeat.count} of them, but ${repeat.labels.length} labels.`
    if (!repeat.inside) return
    const outer = model.repeats.find((each) => each.key === repeat.inside!.repeat)
    if (!outer) return
    if (outer.key === repeat.key || outer.inside)
      faults[`repeats.${index}.inside.repeat`] = 'This may only lie in one that lies in nothing itself.'
    if (repeat.inside.at.length !== repeat.count)
      faults[`repeats.${index}.inside.at`] =
        `There are ${repeat.count} of them, but ${repeat.inside.at.length} places.`
    else if (repeat.inside.at.some((at) => at > outer.count))
      faults[`repeats.${index}.inside.at`] = `There are only ${outer.count} of “${outer.name}”.`
  })
}

/** Every node must lead back to the pump made safe on its machine. */
function checkTree(model: PumpModel, faults: Faults): void {
  const nodes = new Map(model.access.map((node) => [node.key, node]))
  const circle = (key: string, way: string[]): string[] | null => {
    const node = nodes.get(key)
    if (!node) return null
    if (way.includes(key)) return [...way.slice(way.indexOf(key)), key]
    for (const outer of [node.parent, ...node.needs]) {
      const found = outer === null ? null : circle(outer, [...way, key])
      if (found) return found
    }
    return null
  }
  const told = new Set<string>()
  model.access.forEach((node, index) => {
    const found = circle(node.key, [])
    if (!found || !found.includes(node.key) || found.some((key) => told.has(key))) return
    found.forEach((key) => told.add(key))
    faults[`access.${index}.parent`] = `The way in goes round in a circle: ${found.join(', ')}.`
  })
}

function checkTasks(model: PumpModel, faults: Faults): void {
  const positions = new Map(model.positions.map((position) => [position.key, position]))
  const nodes = new Map(model.access.map((node) => [node.key, node]))
  model.tasks.forEach((task, index) => {
    const { hours, days, firstHours, firstDays } = task.limit
    if (hours === null && days === null)
      faults[`tasks.${index}.limit`] = 'Give a limit in hours, in days, or both.'
    if (firstHours !== null && hours === null)
      faults[`tasks.${index}.limit.firstHours`] = 'A first interval needs one that follows it.'
    if (firstDays !== null && days === null)
      faults[`tasks.${index}.limit.firstDays`] = 'A first interval needs one that follows it.'
    if (task.positions.length === 0) faults[`tasks.${index}.positions`] = 'Name at least one position.'
    const node = task.at === null ? undefined : nodes.get(task.at)
    task.positions.forEach((key, each) => {
      const position = positions.get(key)
      if (!position || !node || node.repeat === null || position.repeat === node.repeat) return
      const own = model.repeats.find((repeat) => repeat.key === position.repeat)
      if (own?.inside?.repeat === node.repeat) return
      faults[`tasks.${index}.positions.${each}`] =
        `“${node.name}” opens for one ${node.repeat} at a time, but this position does not repeat by it.`
    })
    task.paths.forEach((path, one) => {
      const open = path.steps.some((step) => step.phase === 'renew' && step.when === null)
      if (path.renews === 'onCondition' && open)
        faults[`tasks.${index}.paths.${one}.renews`] =
          'Its renewing steps must hang on an answer: where everything is renewed, say “always”.'
    })
  })
}

function checkFasteners(model: PumpModel, faults: Faults): void {
  const fasteners = new Map(model.fasteners.map((fastener) => [fastener.key, fastener]))
  model.fasteners.forEach((fastener, index) => {
    if (fastener.layout.length > 0 && fastener.layout.length !== fastener.count) {
      faults[`fasteners.${index}.layout`] =
        `There are ${fastener.count} of them, but ${fastener.layout.length} places.`
    }
    if (fastener.pinned.some((number) => number > fastener.count))
      faults[`fasteners.${index}.pinned`] = `There are only ${fastener.count} of them.`
    if (fastener.torque.state !== 'stated') return
    const { stages, value } = fastener.torque
    const rising = stages.every((stage, each) => each === 0 || stage > stages[each - 1]!)
    if (stages.length > 0 && (!rising || stages.at(-1) !== value)) {
      faults[`fasteners.${index}.torque.stages`] = 'The stages rise and end at the stated value.'
    }
  })
  for (const { path, step } of eachStep(model)) {
    if (step.stage === null) continue
    const torque = step.fastener === null ? undefined : fasteners.get(step.fastener)?.torque
    const stages = torque?.state === 'stated' ? Math.max(torque.stages.length, 1) : 0
    if (step.stage > stages) faults[`${path}.stage`] = 'Its fastener has no such stage.'
  }
}

function checkPractices(model: PumpModel, faults: Faults): void {
  const known = (path: string, key: string, choice: string) => {
    if (!practiceOf(key).choices.some((each) => each.key === choice))
      faults[path] = `“${practiceOf(key).name}” has no choice “${choice}”.`
  }
  model.manual.forEach((word, index) => known(`manual.${index}.choice`, word.practice, word.choice))
  model.access.forEach((node, index) =>
    node.practice?.is.forEach((choice, each) =>
      known(`access.${index}.practice.is.${each}`, node.practice!.key, choice),
    ),
  )
  model.tasks.forEach((task, index) =>
    task.paths.forEach((path, each) => {
      if (path.practice)
        known(`tasks.${index}.paths.${each}.practice.choice`, path.practice.key, path.practice.choice)
    }),
  )
  for (const { path, step } of eachStep(model))
    step.practice?.is.forEach((choice, each) =>
      known(`${path}.practice.is.${each}`, step.practice!.key, choice),
    )
}
