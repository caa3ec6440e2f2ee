import { invalid, problemOf } from '../problem'
import { check } from '../problem/check'
import { pumpModelDataSchema } from './schema'
import type { PumpModel, Step } from './types'

type Faults = Record<string, string>

/**
 * Reads a pump model from JSON data and checks what its pieces say of each other.
 *
 * @param data parsed JSON, whatever it is
 * @returns the model with its defaults filled in
 * @throws a problem of kind `invalid` with one sentence per path, such as
 *   `tasks.2.positions.0` or `access.4.parent`; all faults at once
 */
export function parsePumpModel(data: unknown): PumpModel {
  const model = check(pumpModelDataSchema, data)
  const faults: Faults = {}
  checkKeys(model, faults)
  checkReferences(model, faults)
  checkTree(model, faults)
  checkTasks(model, faults)
  checkFasteners(model, faults)
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

const lists = ['repeats', 'zones', 'positions', 'parts', 'tools', 'fasteners', 'access', 'tasks'] as const

function checkKeys(model: PumpModel, faults: Faults): void {
  for (const list of lists) {
    const seen = new Set<string>()
    model[list].forEach((item, index) => {
      if (seen.has(item.key)) faults[`${list}.${index}.key`] = `“${item.key}” stands here twice.`
      seen.add(item.key)
    })
  }
  for (const [path, steps] of stepLists(model)) {
    const seen = new Set<string>()
    steps.forEach((step, index) => {
      if (seen.has(step.key)) faults[`${path}.${index}.key`] = `“${step.key}” stands here twice.`
      seen.add(step.key)
    })
  }
}

/** Every list of steps with its path. */
export function stepLists(model: PumpModel): [path: string, steps: Step[]][] {
  return [
    ['makeSafe', model.makeSafe],
    ...model.access.flatMap((node, index): [string, Step[]][] => [
      [`access.${index}.open`, node.open],
      [`access.${index}.close`, node.close],
    ]),
    ...model.tasks.map((task, index): [string, Step[]] => [`tasks.${index}.steps`, task.steps]),
    ['prove', model.prove],
  ]
}

function checkReferences(model: PumpModel, faults: Faults): void {
  const known = Object.fromEntries(
    lists.map((list) => [list, new Set(model[list].map((item) => item.key))]),
  ) as Record<(typeof lists)[number], Set<string>>
  const refer = (path: string, list: (typeof lists)[number], key: string | null) => {
    if (key !== null && !known[list].has(key))
      faults[path] = `There is no “${key}” among the ${listNames[list]}.`
  }
  model.positions.forEach((position, index) => {
    refer(`positions.${index}.zone`, 'zones', position.zone)
    refer(`positions.${index}.repeat`, 'repeats', position.repeat)
    refer(`positions.${index}.part`, 'parts', position.part)
  })
  model.access.forEach((node, index) => {
    refer(`access.${index}.parent`, 'access', node.parent)
    refer(`access.${index}.repeat`, 'repeats', node.repeat)
    node.consumes.forEach((use, each) => refer(`access.${index}.consumes.${each}.part`, 'parts', use.part))
  })
  model.tasks.forEach((task, index) => {
    refer(`tasks.${index}.at`, 'access', task.at)
    task.positions.forEach((key, each) => refer(`tasks.${index}.positions.${each}`, 'positions', key))
    task.uses.forEach((use, each) => refer(`tasks.${index}.uses.${each}.part`, 'parts', use.part))
  })
  for (const [path, steps] of stepLists(model)) {
    steps.forEach((step, index) => {
      const at = `${path}.${index}`
      refer(`${at}.repeat`, 'repeats', step.repeat)
      refer(`${at}.part`, 'parts', step.part)
      refer(`${at}.fastener`, 'fasteners', step.fastener)
      step.tools.forEach((tool, each) => refer(`${at}.tools.${each}`, 'tools', tool))
      if (step.temporary) refer(`${at}.temporary.tool`, 'tools', step.temporary.tool)
    })
  }
}

const listNames: Record<(typeof lists)[number], string> = {
  repeats: 'repeats',
  zones: 'zones',
  positions: 'positions',
  parts: 'parts',
  tools: 'tools',
  fasteners: 'fasteners',
  access: 'access nodes',
  tasks: 'tasks',
}

/** Every node must lead back to the pump made safe on its machine. */
function checkTree(model: PumpModel, faults: Faults): void {
  const parents = new Map(model.access.map((node) => [node.key, node.parent]))
  model.access.forEach((node, index) => {
    const path = [node.key]
    for (let parent = node.parent; parent; parent = parents.get(parent) ?? null) {
      if (path.includes(parent)) {
        faults[`access.${index}.parent`] =
          `The way in goes round in a circle: ${[...path, parent].join(', ')}.`
        return
      }
      path.push(parent)
    }
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
      if (!position || !node || node.repeat === null) return
      if (position.repeat !== node.repeat) {
        faults[`tasks.${index}.positions.${each}`] =
          `“${node.name}” opens for one ${node.repeat} at a time, but this position does not repeat by it.`
      }
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
    if (fastener.torque.state !== 'stated') return
    const { stages, value } = fastener.torque
    const rising = stages.every((stage, each) => each === 0 || stage > stages[each - 1]!)
    if (stages.length > 0 && (!rising || stages.at(-1) !== value)) {
      faults[`fasteners.${index}.torque.stages`] = 'The stages rise and end at the stated value.'
    }
  })
  for (const [path, steps] of stepLists(model)) {
    steps.forEach((step, index) => {
      if (step.stage === null) return
      const torque = step.fastener === null ? undefined : fasteners.get(step.fastener)?.torque
      const stages = torque?.state === 'stated' ? Math.max(torque.stages.length, 1) : 0
      if (step.stage > stages) faults[`${path}.${index}.stage`] = 'Its fastener has no such stage.'
    })
  }
}
