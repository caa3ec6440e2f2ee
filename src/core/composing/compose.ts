import type { Step } from '../models'
import { noPractices, type CompanyPractices } from '../practices'
import { chosenTasks, minutesEach, type Chosen } from './chosen'
import {
  cautionsOf,
  consumablesOf,
  fastenersOf,
  partsOf,
  practicesOf,
  qualificationsOf,
  toolsOf,
} from './needs'
import { practised, type PractisedModel } from './practised'
import { assemblySteps, closingGates, factSteps, recheckSteps, visitSteps, type Part } from './steps'
import type { ComposedSheet, ComposeInput } from './types'
import { nodesFor, walkOf, withImplied } from './walk'

/**
 * Composes the ordered work for some tasks on some assemblies.
 *
 * The nodes to open are the union of the ways to each task: opened from the outside in, closed in
 * reverse, each once, which is what doing tasks together saves. A per-cylinder node opens for the
 * cylinders that need it; a once-node under per-cylinder nodes needs all of them. Work in the opened
 * pump goes from the inside out, so that closing never covers what is still to be done. What opening
 * destroys or unseats is renewed with it. The visit is made safe once and proved once. Steps, minutes,
 * parts, tools, torques and cautions all come from that one walk.
 *
 * @param input assemblies with their tasks; the order of tasks and positions does not matter
 * @param chosen the company's practices; a model's manual wins over them
 * @throws `invalid` for a task, a way of doing it or a position that the model does not have, by its path
 * @example composeSheet({ assemblies: [{ id: 'P-04', model, tasks: [{ task: 'hpSeals', positions: ['hpSeal@2'] }] }] })
 */
export function composeSheet(input: ComposeInput, chosen: CompanyPractices = noPractices): ComposedSheet {
  const parts = partsToCompose(input, chosen)
  const made = parts.map((part) => ({ part, steps: assemblySteps(part) }))
  const between = made.flatMap(({ steps }) => steps)
  const visit = [
    ...visitSteps(parts, 'makeSafe'),
    ...between,
    ...closingGates(parts, between),
    ...visitSteps(parts, 'prove'),
    ...recheckSteps(parts, between),
  ]
  const steps = [...factSteps(parts, visit), ...visit]
  const needs = parts.map((part) => partsOf(part, between))
  return {
    steps,
    parts: needs.flatMap((each) => each.parts),
    spares: needs.flatMap((each) => each.spares),
    consumables: consumablesOf(parts, steps),
    tools: toolsOf(parts, steps),
    fasteners: fastenersOf(parts, steps),
    cautions: cautionsOf(parts, steps),
    practices: parts.flatMap((part) => practicesOf(part, steps)),
    implied: parts.flatMap(({ id, walk }) =>
      walk.tasks
        .filter(({ why }) => why !== '')
        .map(({ task, positions, why }) => ({ assemblyId: id, task: task.key, positions, why })),
    ),
    opened: parts.flatMap(({ walk }) => walk.opened.map(({ key }) => key)),
    minutes: together(parts),
    perhapsMinutes: parts.reduce(
      (sum, { walk }) =>
        [...walk.whole.nodes, ...walk.apart.flatMap(({ stretch }) => stretch.nodes)]
          .filter(({ key }) => walk.perhaps.has(key))
          .reduce((inner, { node }) => inner + node.openMinutes + node.closeMinutes, sum),
      0,
    ),
    helperMinutes: steps.reduce((sum, { step }) => sum + (step.helperMinutes ?? 0), 0),
    qualifications: qualificationsOf(parts, steps),
    minutesOneByOne: oneByOne(input, parts),
  }
}

export function partsToCompose(input: ComposeInput, chosen: CompanyPractices): Part[] {
  return input.assemblies.map((job, at) => {
    const model = practised(job.model, chosen, job.facts)
    return { id: job.id, practised: model, walk: walkOf(model, chosenTasks(job, model, at)) }
  })
}

/** Making safe and proving once, every opening once, every task on each of its positions. */
function together(parts: Part[]): number {
  if (parts.length === 0) return 0
  const models = parts.map(({ practised: { model } }) => model)
  return (
    Math.max(...models.map((model) => model.makeSafeMinutes)) +
    Math.max(...models.map((model) => model.proveMinutes)) +
    parts.reduce((sum, { practised: model, walk }) => sum + workMinutes(model, walk.tasks), 0)
  )
}

function workMinutes(model: PractisedModel, tasks: Chosen[]): number {
  const ways = [...nodesFor(model, tasks).values()]
  return (
    ways.reduce((sum, { node }) => sum + node.openMinutes + node.closeMinutes, 0) +
    tasks.reduce((sum, each) => sum + minutesEach(each) * each.positions.length, 0)
  )
}

function oneByOne(input: ComposeInput, parts: Part[]): number {
  return input.assemblies.reduce((sum, job, at) => {
    const model = parts[at]!.practised
    return chosenTasks(job, model, at).reduce(
      (inner, each) =>
        inner +
        job.model.makeSafeMinutes +
        workMinutes(model, withImplied(model, [each])) +
        job.model.proveMinutes,
      sum,
    )
  }, 0)
}

/** What a service adds to a visit, for a planner that puts services together. */
export type ServiceShape = {
  /** Its own work and that of what it brings along, openings not counted. */
  minutes: number
  /** Each opening on its way, with opening and closing. */
  openings: { node: string; minutes: number }[]
  /** Making safe and proving: once a visit. */
  aroundMinutes: number
  helperMinutes: number
  qualifications: string[]
  /** Special tools, by the names that the model gives them. */
  specialTools: string[]
  /** The longest cure before pressure. */
  cureMinutes: number
}

/** A service apart: what it adds to a visit, and the parts that it uses. */
export type ComposedService = { shape: ServiceShape; parts: ComposedSheet['parts'] }

/**
 * One service apart: its own minutes and each opening's, so that a planner can count what several share once, and its
 * parts.
 *
 * @throws `invalid` for a task or a position that the model does not have
 */
export function composedService(
  job: ComposeInput['assemblies'][number],
  chosen: CompanyPractices = noPractices,
): ComposedService {
  const input = { assemblies: [job] }
  const [part] = partsToCompose(input, chosen)
  const { practised: model, walk } = part!
  const { helperMinutes, qualifications, tools, steps, parts } = composeSheet(input, chosen)
  return {
    parts,
    shape: {
      minutes: walk.tasks.reduce((sum, each) => sum + minutesEach(each) * each.positions.length, 0),
      openings: [...nodesFor(model, walk.tasks)].map(([node, way]) => ({
        node,
        minutes: way.node.openMinutes + way.node.closeMinutes,
      })),
      aroundMinutes: model.model.makeSafeMinutes + model.model.proveMinutes,
      helperMinutes,
      qualifications: qualifications.map(({ qualification }) => qualification),
      specialTools: tools.filter(({ special }) => special).map(({ name }) => name),
      cureMinutes: longestCure(steps.map(({ step }) => step)),
    },
  }
}

/** The longest time that what was glued has to cure before pressure: they cure beside each other. */
export function longestCure(steps: readonly Pick<Step, 'timer'>[]): number {
  return steps.reduce(
    (most, { timer }) => (timer?.kind === 'cured' ? Math.max(most, timer.minutes) : most),
    0,
  )
}

export type Saving = {
  together: number
  oneByOne: number
  saved: number
  /** Of each opening: how many of the tasks need it, and so how often it is spared. */
  shared: { assemblyId: string; node: string; name: string; minutes: number; tasks: number }[]
}

/**
 * What doing tasks on one visit saves against a visit for each, and where the saving lies.
 *
 * @example savingOfBundling({ assemblies: [seals, valves] }) // { together: 175, oneByOne: 230, saved: 55, … }
 */
export function savingOfBundling(input: ComposeInput, chosen: CompanyPractices = noPractices): Saving {
  const parts = partsToCompose(input, chosen)
  const all = together(parts)
  const apart = oneByOne(input, parts)
  const shared = parts.flatMap(({ id, practised: model, walk }) => {
    const ways = walk.tasks.map((each) => nodesFor(model, [each]))
    return walk.opened
      .map(({ key, node }) => ({
        assemblyId: id,
        node: key,
        name: node.name,
        minutes: node.openMinutes + node.closeMinutes,
        tasks: ways.filter((way) => way.has(key)).length,
      }))
      .filter(({ tasks }) => tasks > 1)
  })
  return { together: all, oneByOne: apart, saved: apart - all, shared }
}
