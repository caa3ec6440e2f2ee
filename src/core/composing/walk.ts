import {
  renewsWhere,
  indicesFor,
  instanceKey,
  instancesOf,
  outerOf,
  splitInstance,
  type NodeInstance,
  type PositionKey,
  type PumpModel,
  type Step,
  type Task,
} from '../models'
import { inModelOrder, placeOf, renewsForCertain, type Chosen } from './chosen'
import type { PractisedModel } from './practised'

/**
 * One stretch of a job: what is opened, done and closed before the next begins. The first is the pump
 * as a whole; where work goes one cylinder or head at a time, each of those is a stretch of its own.
 */
export type Stretch = {
  nodes: NodeInstance[]
  work: { chosen: Chosen; positions: PositionKey[] }[]
}

export type Walk = {
  /** Nodes opened only where something is found bad, each with the answer on which that hangs. */
  perhaps: Map<string, NonNullable<Step['when']>>
  whole: Stretch
  /** By the number of nodes of the whole that must be open for it: 0 needs none. */
  apart: { level: number; stretch: Stretch }[]
  /** Every node instance that is opened for certain, outer before inner. */
  opened: NodeInstance[]
  /** The tasks with those that opening brings with it. */
  tasks: Chosen[]
}

/** The node instances at which a task is done on one position. */
export function nodesOfTask(
  practised: PractisedModel,
  task: Task,
  position: PositionKey,
  at: string | null = task.at,
): NodeInstance[] {
  const { model, skipped } = practised
  const node = model.access.find((each) => each.key === at)
  if (!node) return []
  const { repeat, index } = placeOf(practised, position)
  const own = indicesFor(model, node.repeat, repeat, index).map((each) => ({
    node,
    index: each,
    key: instanceKey(node.key, each),
  }))
  return skipped.has(node.key) ? own.flatMap((each) => outerOf(model, each, skipped)) : own
}

/** The union of the ways from the root to some tasks: every node instance that must be open. */
export function nodesFor(practised: PractisedModel, tasks: Chosen[]): Map<string, NodeInstance> {
  const needed = new Map<string, NodeInstance>()
  const open = (instance: NodeInstance): void => {
    if (needed.has(instance.key)) return
    needed.set(instance.key, instance)
    outerOf(practised.model, instance, practised.skipped).forEach(open)
  }
  for (const { task, positions } of tasks)
    for (const position of positions) nodesOfTask(practised, task, position).forEach(open)
  // Two questions lead to one place: it is opened for certain, since a step waits for one answer only.
  for (const { instance, answers } of onCondition(practised, tasks, needed).values())
    if (answers.size > 1) open(instance)
  return needed
}

type OnCondition = { instance: NodeInstance; answers: Map<string, NonNullable<Step['when']>> }

/** What is opened only for what is found bad, beside what is opened anyway, with the answers that lead there. */
function onCondition(
  practised: PractisedModel,
  tasks: Chosen[],
  needed: ReadonlyMap<string, NodeInstance>,
): Map<string, OnCondition> {
  const found = new Map<string, OnCondition>()
  const renewed = new Set(tasks.filter(renewsForCertain).flatMap(({ positions }) => positions))
  for (const { task, positions } of tasks) {
    const when = renewsWhere(task)
    if (task.renewsAt === null || !when) continue
    for (const position of positions) {
      if (renewed.has(position)) continue
      const reach = (instance: NodeInstance): void => {
        if (needed.has(instance.key)) return
        const known = found.get(instance.key) ?? { instance, answers: new Map() }
        known.answers.set(`${task.key} ${position}`, when)
        found.set(instance.key, known)
        outerOf(practised.model, instance, practised.skipped).forEach(reach)
      }
      nodesOfTask(practised, task, position, task.renewsAt).forEach(reach)
    }
  }
  return found
}

/**
 * The tasks that opening brings with it: what an opened node destroys or unseats is renewed with it,
 * unless it is being renewed anyway. Such a task may open more, which may bring more.
 */
export function withImplied(practised: PractisedModel, chosen: Chosen[]): Chosen[] {
  const { model } = practised
  const tasks = chosen.map((each) => ({ ...each }))
  for (let before = -1; before !== tasks.reduce((sum, each) => sum + each.positions.length, 0);) {
    before = tasks.reduce((sum, each) => sum + each.positions.length, 0)
    const renewed = new Set(tasks.filter(renewsForCertain).flatMap((each) => each.positions))
    for (const instance of nodesFor(practised, tasks).values()) {
      for (const { position: key, rule, why } of instance.node.disturbs) {
        const position = model.positions.find((each) => each.key === key)
        const task = model.tasks.find((each) => each.kind === 'renew' && each.positions.includes(key))
        if (rule !== 'renew' || !position || !task) continue
        const disturbed = instancesOf(model, position).filter(
          (each) =>
            !renewed.has(each) &&
            indicesFor(model, instance.node.repeat, position.repeat, splitInstance(each).index).includes(
              instance.index,
            ),
        )
        disturbed.forEach((each) => renewed.add(each))
        addTo(tasks, task, disturbed, why)
      }
    }
  }
  return inModelOrder(model, tasks)
}

function addTo(tasks: Chosen[], task: Task, positions: PositionKey[], why: string): void {
  if (positions.length === 0) return
  // What was only going to be looked at is renewed now.
  for (const each of tasks)
    if (each.task === task) each.positions = each.positions.filter((one) => !positions.includes(one))
  const known = tasks.find((each) => each.task === task && each.why !== '')
  if (known) known.positions = [...new Set([...known.positions, ...positions])]
  else
    tasks.push({
      task,
      path: task.paths.find((path) => path.renews === 'always') ?? task.paths[0] ?? null,
      positions,
      why,
    })
}

/**
 * How a job is walked. Item by item everything that is needed is opened from the outside in, worked and
 * closed in reverse. One at a time, what repeats below the same opening is opened, worked and closed for
 * the first cylinder or head before the next; where something inside needs all of them open at once,
 * that cannot be, and it goes item by item.
 */
export function walkOf(practised: PractisedModel, chosen: Chosen[]): Walk {
  const { model, skipped } = practised
  const tasks = withImplied(practised, chosen)
  const needed = nodesFor(practised, tasks)
  const rank = new Map(outsideIn(model).map((key, index) => [key, index]))
  const inOrder = (instances: NodeInstance[]) =>
    instances.sort((a, b) => rank.get(a.node.key)! - rank.get(b.node.key)! || (a.index ?? 0) - (b.index ?? 0))
  const conditional = [...onCondition(practised, tasks, needed).values()]
  const opened = inOrder([...needed.values()])
  const all = inOrder([...opened, ...conditional.map(({ instance }) => instance)])
  const groups = groupsOf(practised, all)
  const whole: Stretch = { nodes: all.filter(({ key }) => !groups.has(key)), work: [] }
  const apart = new Map<string, Walk['apart'][number]>()
  for (const instance of all) {
    const group = groups.get(instance.key)
    if (!group) continue
    const known = apart.get(group) ?? { level: 0, stretch: { nodes: [], work: [] } }
    known.stretch.nodes.push(instance)
    for (const outer of outerOf(model, instance, skipped))
      known.level = Math.max(known.level, whole.nodes.findIndex(({ key }) => key === outer.key) + 1)
    apart.set(group, known)
  }
  for (const each of tasks) {
    const byGroup = new Map<string | undefined, PositionKey[]>()
    for (const position of each.positions) {
      const own = [...new Set(nodesOfTask(practised, each.task, position).map(({ key }) => groups.get(key)))]
      const group = own.length === 1 ? own[0] : undefined
      byGroup.set(group, [...(byGroup.get(group) ?? []), position])
    }
    for (const [group, positions] of byGroup) {
      const stretch = (group === undefined ? undefined : apart.get(group)?.stretch) ?? whole
      stretch.work.push({ chosen: each, positions })
    }
  }
  const perhaps = new Map(
    conditional.map(({ instance, answers }) => [instance.key, [...answers.values()][0]!]),
  )
  return { whole, apart: inOrderOfIndex(apart), opened, perhaps, tasks }
}

/** Cylinder 1 before cylinder 2, whichever of their nodes comes first. */
function inOrderOfIndex(apart: Map<string, Walk['apart'][number]>): Walk['apart'] {
  const nameOf = (group: string) => group.slice(0, group.lastIndexOf('@'))
  const indexOf = (group: string) => Number(group.slice(group.lastIndexOf('@') + 1))
  const names = [...new Set([...apart.keys()].map(nameOf))]
  return [...apart]
    .sort(([a], [b]) => names.indexOf(nameOf(a)) - names.indexOf(nameOf(b)) || indexOf(a) - indexOf(b))
    .map(([, each]) => each)
}

/** Which stretch of its own each node instance belongs to; instances of the whole are not in it. */
function groupsOf(practised: PractisedModel, opened: NodeInstance[]): Map<string, string> {
  const { model, skipped, practice } = practised
  const byPractice = practice('stripOrder').choice === 'oneAtATime'
  const together = new Set<string>()
  const joined = new Map<string, string>()
  const stretchOf = (name: string): string => (joined.has(name) ? stretchOf(joined.get(name)!) : name)
  for (;;) {
    const groups = new Map<string, string>()
    let clash: string | null = null
    let again = false
    for (const instance of opened) {
      const outer = outerOf(model, instance, skipped)
      const outerGroups = [...new Set(outer.flatMap(({ key }) => groups.get(key) ?? []))]
      if (outerGroups.length > 1) {
        const [first, ...others] = outerGroups.map((group) => group.slice(0, group.lastIndexOf('@')))
        const places = new Set(outerGroups.map((group) => group.slice(group.lastIndexOf('|'))))
        // Two ways into one head are one stretch: its valves come out on both sides, then the head.
        if (places.size === 1) {
          others.forEach((name) => joined.set(name, first!))
          again = true
        } else clash = first!
        break
      }
      if (outerGroups.length === 1) {
        groups.set(instance.key, outerGroups[0]!)
        continue
      }
      const repeat = model.repeats.find((each) => each.key === instance.node.repeat)
      if (!repeat || repeat.count === 1 || !(byPractice || repeat.oneAtATime)) continue
      const name = `${outer.map(({ key }) => key).join('+')}|${repeat.key}`
      if (!together.has(stretchOf(name))) groups.set(instance.key, `${stretchOf(name)}@${instance.index}`)
    }
    if (again) continue
    if (clash === null) return groups
    together.add(clash)
  }
}

/** Node keys with everything that a node needs before it, otherwise branch by branch in the model's order. */
export function outsideIn(model: PumpModel): string[] {
  const order: string[] = []
  const place = (key: string): void => {
    const node = model.access.find((each) => each.key === key)
    if (!node || order.includes(key)) return
    for (const outer of [node.parent, ...node.needs]) if (outer !== null) place(outer)
    order.push(key)
    for (const inner of model.access) if (inner.parent === key) place(inner.key)
  }
  for (const node of model.access) if (node.parent === null) place(node.key)
  for (const node of model.access) place(node.key)
  return order
}
