import { invalid } from '../problem'
import {
  indicesOf,
  instanceKey,
  positionName,
  repeatName,
  splitInstance,
  type AccessNode,
  type Phase,
  type PositionKey,
  type PumpModel,
  type Step,
  type Task,
} from '../pump'
import { positionsOf } from '../wear'

/** What is to be done on one assembly. */
export type Job = {
  assemblyId: string
  model: PumpModel
  tasks: { task: string; positions: PositionKey[] }[]
}

/** How the company strips a pump: item by item through all cylinders, or one cylinder after the other. */
export type StripOrder = 'itemByItem' | 'oneAtATime'

/** A step as it stands on a sheet. Its key never depends on an index, so a signed sheet outlives later code. */
export type SheetStep = {
  key: string
  assemblyId: string
  phase: Phase
  /** The node that is opened or closed, or the task that is done, by name. */
  heading: string
  /** "cylinder 2", or blank. */
  where: string
  /** The task it belongs to and the position instance that it renews or looks at, where it is about one. */
  task: string | null
  position: PositionKey | null
  step: Step
}

export type PartNeed = {
  assemblyId: string
  part: string
  name: string
  unit: 'piece' | 'L' | 'mL'
  quantity: number
  spots: string[]
}

export type ComposedSheet = {
  steps: SheetStep[]
  parts: PartNeed[]
  tools: { key: string; name: string; special: boolean; temporary: boolean }[]
  /** Node instances that are opened, in order. */
  opened: string[]
  minutes: number
  /** What the same tasks would take each on a visit of its own, and so what doing them together saves. */
  minutesOneByOne: number
}

type NodeInstance = { node: AccessNode; index: number | null; key: string }

/**
 * Composes the ordered work for some tasks on some assemblies.
 *
 * The nodes to open are the union of the ways to each task: opened from the outside in, closed in
 * reverse, each once, which is what doing tasks together saves. A per-cylinder node opens for the
 * cylinders that need it; a once-node under per-cylinder nodes needs all of them. Work in the opened
 * pump goes from the inside out, so that closing never covers what is still to be done. The visit is
 * made safe once and proved once.
 *
 * @param jobs assemblies with their tasks; the order of tasks and positions does not matter
 * @param order item by item (default), or one cylinder at a time
 * @throws `invalid` for a task or position that the model does not have
 */
export function composeSheet(jobs: Job[], order: StripOrder = 'itemByItem'): ComposedSheet {
  const checked = jobs.map(checkJob)
  const steps: SheetStep[] = []
  const parts = new Map<string, PartNeed>()
  const opened: string[] = []
  let minutes = 0

  const [first] = checked
  if (first) {
    steps.push(...plainSteps(first.job, first.job.model.makeSafe, 'makeSafe', 'Make safe'))
    minutes += first.job.model.makeSafeMinutes
  }
  for (const { job, tasks } of checked) {
    const needed = nodesFor(job.model, tasks)
    const walked = inWalkingOrder(job.model, needed, order)
    opened.push(...walked.map((node) => node.key))
    for (const node of walked) steps.push(...nodeSteps(job, node, 'open'))
    steps.push(...taskSteps(job, tasks, walked))
    for (const node of [...walked].reverse()) steps.push(...nodeSteps(job, node, 'close'))
    minutes += walked.reduce((sum, { node }) => sum + node.openMinutes + node.closeMinutes, 0)
    minutes += tasks.reduce((sum, { task, positions }) => sum + task.minutes * positions.length, 0)
    for (const need of needsOf(job, tasks, walked)) parts.set(`${job.assemblyId}/${need.part}`, need)
  }
  if (first) {
    steps.push(...plainSteps(first.job, first.job.model.prove, 'prove', 'Prove'))
    minutes += first.job.model.proveMinutes
  }
  return {
    steps,
    parts: [...parts.values()],
    tools: toolsOf(
      checked.map(({ job }) => job),
      steps,
    ),
    opened,
    minutes,
    minutesOneByOne: oneByOne(checked),
  }
}

type Chosen = { task: Task; positions: PositionKey[] }

function checkJob(job: Job, at: number): { job: Job; tasks: Chosen[] } {
  const faults: Record<string, string> = {}
  const tasks = job.tasks.map(({ task: key, positions }, index): Chosen | undefined => {
    const task = job.model.tasks.find((each) => each.key === key)
    if (!task) {
      faults[`${at}.tasks.${index}.task`] = `${job.model.maker} ${job.model.name} has no task “${key}”.`
      return undefined
    }
    const known = positionsOf(job.model, task)
    positions.forEach((position, each) => {
      if (!known.includes(position))
        faults[`${at}.tasks.${index}.positions.${each}`] = `“${task.name}” has no position “${position}”.`
    })
    if (positions.length === 0)
      faults[`${at}.tasks.${index}.positions`] = `Choose at least one position for “${task.name}”.`
    return { task, positions: known.filter((position) => positions.includes(position)) }
  })
  if (Object.keys(faults).length > 0) throw invalid(faults)
  // In the model's own order, so that the order in which they were chosen does not matter.
  const chosen = (tasks as Chosen[]).sort(
    (a, b) => job.model.tasks.indexOf(a.task) - job.model.tasks.indexOf(b.task),
  )
  return { job, tasks: chosen }
}

/** The node instances that must be open: the union of the ways from the root. */
function nodesFor(model: PumpModel, tasks: Chosen[]): Map<string, NodeInstance> {
  const needed = new Map<string, NodeInstance>()
  const open = (nodeKey: string | null, index: number | null): void => {
    const node = model.access.find((each) => each.key === nodeKey)
    if (!node) return
    const indices = node.repeat === null ? [null] : index === null ? indicesOf(model, node.repeat) : [index]
    for (const each of indices) {
      const key = instanceKey(node.key, each)
      if (needed.has(key)) continue
      needed.set(key, { node, index: each, key })
      const parent = model.access.find((candidate) => candidate.key === node.parent)
      // One cylinder's node opens through the same cylinder of its parent; otherwise through all of it.
      open(node.parent, parent && parent.repeat === node.repeat ? each : null)
    }
  }
  for (const { task, positions } of tasks) {
    const node = model.access.find((each) => each.key === task.at)
    for (const position of positions) open(task.at, node?.repeat ? splitInstance(position).index : null)
  }
  return needed
}

function inWalkingOrder(
  model: PumpModel,
  needed: Map<string, NodeInstance>,
  order: StripOrder,
): NodeInstance[] {
  const keys = outsideIn(model)
  const rank = (node: NodeInstance) => keys.indexOf(node.node.key)
  const nodes = [...needed.values()].sort((a, b) => rank(a) - rank(b) || (a.index ?? 0) - (b.index ?? 0))
  if (order === 'itemByItem') return nodes
  // One at a time: below a once-node, everything of cylinder 1 comes before cylinder 2.
  const walked: NodeInstance[] = []
  for (let next = 0; next < nodes.length;) {
    let end = next
    while (end < nodes.length && (nodes[end]!.index === null) === (nodes[next]!.index === null)) end += 1
    const run = nodes.slice(next, end)
    walked.push(...run.sort((a, b) => (a.index ?? 0) - (b.index ?? 0) || rank(a) - rank(b)))
    next = end
  }
  return walked
}

/** Node keys with every parent before its children, children in the model's order. */
function outsideIn(model: PumpModel): string[] {
  const walk = (parent: string | null): string[] =>
    model.access.filter((node) => node.parent === parent).flatMap((node) => [node.key, ...walk(node.key)])
  return walk(null)
}

function nodeSteps(job: Job, { node, index, key }: NodeInstance, side: 'open' | 'close'): SheetStep[] {
  const where = index === null || node.repeat === null ? '' : repeatName(job.model, node.repeat, index)
  return node[side].flatMap((step) =>
    repeated(job.model, step, node.repeat).map(({ suffix, label }) => ({
      key: [job.assemblyId, key, side, suffix, step.key].filter(Boolean).join('/'),
      assemblyId: job.assemblyId,
      phase: step.phase,
      heading: node.name,
      where: [where, label].filter(Boolean).join(', '),
      task: null,
      position: null,
      step,
    })),
  )
}

/** Inspections first, then renewals from the inside out. */
function taskSteps(job: Job, tasks: Chosen[], walked: NodeInstance[]): SheetStep[] {
  const depth = (task: Task) => walked.findLastIndex(({ node }) => node.key === task.at)
  const inward = [...tasks].sort((a, b) => depth(b.task) - depth(a.task))
  const all = inward.flatMap(({ task, positions }) =>
    positions.flatMap((position) => {
      const { index } = splitInstance(position)
      const repeat =
        job.model.positions.find((each) => each.key === splitInstance(position).key)?.repeat ?? null
      const where = index === null || repeat === null ? '' : repeatName(job.model, repeat, index)
      const name = task.positions.length > 1 ? positionName(job.model, position) : where
      return task.steps.flatMap((step) =>
        repeated(job.model, step, repeat).map(({ suffix, label }) => ({
          key: [job.assemblyId, task.at ?? 'outside', task.key, position, suffix, step.key]
            .filter(Boolean)
            .join('/'),
          assemblyId: job.assemblyId,
          phase: step.phase,
          heading: task.name,
          where: [name, label].filter(Boolean).join(', '),
          task: task.key,
          position,
          step,
        })),
      )
    }),
  )
  return [
    ...all.filter((step) => step.phase === 'inspect'),
    ...all.filter((step) => step.phase !== 'inspect'),
  ]
}

function plainSteps(job: Job, steps: Step[], heading: string, name: string): SheetStep[] {
  return steps.flatMap((step) =>
    repeated(job.model, step, null).map(({ suffix, label }) => ({
      key: ['visit', heading, suffix, step.key].filter(Boolean).join('/'),
      assemblyId: job.assemblyId,
      phase: step.phase,
      heading: name,
      where: label,
      task: null,
      position: null,
      step,
    })),
  )
}

/** A step of its own for each cylinder, screw or hose, unless what it belongs to is one of those already. */
function repeated(model: PumpModel, step: Step, already: string | null): { suffix: string; label: string }[] {
  if (step.repeat === null || step.repeat === already) return [{ suffix: '', label: '' }]
  return indicesOf(model, step.repeat).map((index) => ({
    suffix: `${step.repeat}-${index}`,
    label: index === null ? '' : repeatName(model, step.repeat!, index),
  }))
}

/** Parts for the renewed positions, what the tasks use, and what opening destroys; one spot is supplied once. */
function needsOf(job: Job, tasks: Chosen[], walked: NodeInstance[]): PartNeed[] {
  const atSpot = new Map<string, { part: string; spot: string; quantity: number }>()
  const need = (part: string, spot: string, quantity: number) => {
    const key = `${part}|${spot}`
    const known = atSpot.get(key)
    atSpot.set(key, { part, spot, quantity: Math.max(known?.quantity ?? 0, quantity) })
  }
  for (const { node, index } of walked)
    for (const use of node.consumes) need(use.part, instanceKey(use.spot, index), use.quantity)
  for (const { task, positions } of tasks) {
    for (const instance of positions) {
      const { key, index } = splitInstance(instance)
      const position = job.model.positions.find((each) => each.key === key)
      if (position?.part && (task.kind === 'renew' || task.kind === 'change'))
        need(position.part, instance, position.pieces)
      for (const use of task.uses) need(use.part, instanceKey(use.spot, index), use.quantity)
    }
  }
  const needs = new Map<string, PartNeed>()
  for (const { part, spot, quantity } of atSpot.values()) {
    const about = job.model.parts.find((each) => each.key === part)
    const known = needs.get(part) ?? {
      assemblyId: job.assemblyId,
      part,
      name: about?.name ?? part,
      unit: about?.unit ?? 'piece',
      quantity: 0,
      spots: [],
    }
    known.quantity = Math.round((known.quantity + quantity) * 1e6) / 1e6
    known.spots.push(spot)
    needs.set(part, known)
  }
  return [...needs.values()]
}

function toolsOf(jobs: Job[], steps: SheetStep[]): ComposedSheet['tools'] {
  const tools = new Map<string, ComposedSheet['tools'][number]>()
  for (const { assemblyId, step } of steps) {
    const model = jobs.find((job) => job.assemblyId === assemblyId)?.model
    for (const key of [...step.tools, ...(step.temporary ? [step.temporary.tool] : [])]) {
      const tool = model?.tools.find((each) => each.key === key)
      if (tool)
        tools.set(tool.name, { key, name: tool.name, special: tool.special, temporary: tool.temporary })
    }
  }
  return [...tools.values()]
}

function oneByOne(checked: { job: Job; tasks: Chosen[] }[]): number {
  return checked.reduce(
    (sum, { job, tasks }) =>
      sum +
      tasks.reduce((inner, chosen) => {
        const nodes = [...nodesFor(job.model, [chosen]).values()]
        const way = nodes.reduce((minutes, { node }) => minutes + node.openMinutes + node.closeMinutes, 0)
        return (
          inner +
          job.model.makeSafeMinutes +
          way +
          chosen.task.minutes * chosen.positions.length +
          job.model.proveMinutes
        )
      }, 0),
    0,
  )
}
