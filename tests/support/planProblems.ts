import type { PlanProblem, PlanTask } from '@/core/plan'

/** Numbers that follow from a seed (xorshift), for problems that can be told by one number. */
export function dice(seed: number) {
  let state = (seed * 2654435761 + 12345) >>> 0 || 1
  const next = () => {
    state ^= state << 13
    state >>>= 0
    state ^= state >>> 17
    state ^= state << 5
    state >>>= 0
    return state / 4294967296
  }
  for (let warm = 0; warm < 8; warm++) next()
  return {
    chance: (share: number) => next() < share,
    whole: (from: number, to: number) => from + Math.floor(next() * (to - from + 1)),
    pick: <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)]!,
  }
}

/** A small problem with some of everything: for the exact solver. */
export function smallProblem(seed: number): PlanProblem {
  const { chance, whole, pick } = dice(seed)
  // Thrown apart from the others, so that a seed still tells the same problem besides.
  const more = dice(seed + 1_000_000)
  const H = whole(3, 6)
  const yards = chance(0.5) ? ['north', 'south'] : ['north']
  const machines = Array.from({ length: whole(1, 2) }, (_, at) => ({
    id: `M${at}`,
    yard: pick(yards),
    visitFixedCost: whole(0, 60),
    blockedDays: chance(0.4) ? [whole(0, H - 1)] : [],
    accessMinutes: { safe: whole(5, 20), lid: whole(0, 40), head: whole(0, 60) },
  }))
  const paths = [['safe'], ['safe', 'lid'], ['safe', 'lid', 'head']]
  const crew = Array.from({ length: whole(1, 3) }, (_, at) => ({
    id: `C${at}`,
    yard: pick(yards),
    skills: chance(0.7) ? ['electric'] : [],
    minutesByDay: Array.from({ length: H }, () => (chance(0.15) ? 0 : whole(60, 240))),
  }))
  const tasks: PlanTask[] = []
  const count = whole(2, 4)
  for (let at = 0; at < count; at++) {
    const due = whole(-1, H + 1)
    const early = whole(0, 3)
    const machine = pick(machines).id
    const task: PlanTask = {
      id: `T${at}`,
      machine,
      access: pick(paths),
      minutes: whole(5, 60),
      earliest: due - early,
      due,
      latest: chance(0.8) ? Math.max(due + whole(0, 3), 1) : due + whole(0, 2),
      earlyCostPerDay: whole(0, 12),
      lateCostPerDay: whole(0, 30),
    }
    if (chance(0.15)) task.costByDay = Array.from({ length: H }, () => whole(-40, 60))
    if (chance(0.2)) task.skill = 'electric'
    if (chance(0.2)) task.tool = 'puller'
    if (more.chance(0.1)) task.moreTools = more.chance(0.5) ? ['hoist'] : ['hoist', 'puller']
    if (chance(0.2)) {
      task.people = 2
      if (chance(0.5)) task.helperMinutes = whole(5, 30)
    }
    if (chance(0.15)) task.partsFromDay = whole(0, 3)
    if (chance(0.3)) task.parts = [{ part: 'seal', quantity: whole(1, 3) }]
    const before = tasks.filter((other) => other.machine === machine)
    if (before.length > 0 && chance(0.2)) task.after = [pick(before).id]
    if (before.length > 0 && chance(0.15)) task.implies = [pick(before).id]
    if (!task.implies && chance(0.25)) {
      task.repeatEveryDays = whole(2, 4)
      if (chance(0.5)) Object.assign(task, { earlyDays: whole(0, 2), lateDays: whole(0, 2) })
      if (chance(0.5)) task.endCostPerDay = whole(0, 8)
    }
    tasks.push(task)
  }
  const problem: PlanProblem = {
    horizonDays: H,
    labourRatePerMinute: 1,
    downtimeCostPerDay: chance(0.5) ? whole(0, 30) : undefined,
    crew,
    travelMinutes: { north: { south: whole(5, 40) } },
    machines,
    tasks,
  }
  if (chance(0.4)) problem.benches = [{ yard: 'north', places: whole(1, 2) }]
  if (chance(0.5))
    problem.tools = [
      { id: 'puller', count: whole(0, 1) },
      { id: 'hoist', count: more.whole(1, 2) },
    ]
  if (chance(0.5)) {
    let sum = 0
    problem.stock = [{ part: 'seal', byDay: Array.from({ length: H }, () => (sum += whole(0, 2))) }]
  }
  if (chance(0.25)) {
    const task = pick(tasks)
    const day = Math.min(H - 1, Math.max(0, task.due))
    problem.fixed = [{ machine: task.machine, day, crew: pick(crew).id, tasks: [task.id] }]
  } else if (chance(0.3)) {
    const task = pick(tasks)
    problem.present = [
      {
        machine: task.machine,
        day: whole(0, H - 1),
        crew: pick(crew).id,
        tasks: [task.id],
        moveCost: whole(0, 80),
      },
    ]
  }
  return problem
}
