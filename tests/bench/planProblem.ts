import type { PlanProblem, PlanTask } from '@/core/plan'
import { dice } from '../support/planProblems'

/** A fleet's half year: about 7.5 tasks a machine behind one another's covers, a third of them coming again. */
export function fleetProblem(
  machineCount: number,
  horizonDays: number,
  seed = 7,
  perMember = 22,
): PlanProblem {
  const { chance, whole } = dice(seed)
  const yards = ['north', 'south', 'east']
  const machines = Array.from({ length: machineCount }, (_, at) => ({
    id: `M${at}`,
    yard: yards[at % yards.length]!,
    visitFixedCost: 25,
    blockedDays: chance(0.25) ? span(whole(0, horizonDays - 14), whole(4, 14)) : [],
    accessMinutes: {
      safe: whole(15, 25),
      manifold: whole(25, 45),
      case: whole(10, 25),
      crank: whole(15, 30),
    },
  }))
  const kinds = [
    { access: ['safe'], minutes: 20, early: 1.2, late: 3, every: 60 },
    { access: ['safe'], minutes: 15, early: 0.6, late: 2, every: 45 },
    { access: ['safe', 'manifold'], minutes: 40, early: 2.2, late: 8 },
    { access: ['safe', 'manifold'], minutes: 30, early: 1.6, late: 6 },
    { access: ['safe', 'manifold', 'case'], minutes: 45, early: 2.4, late: 10, every: 90 },
    { access: ['safe', 'manifold', 'case'], minutes: 35, early: 1.2, late: 5 },
    { access: ['safe', 'manifold', 'case'], minutes: 25, early: 0.9, late: 7 },
    { access: ['safe', 'crank'], minutes: 60, early: 1.5, late: 9, skill: 'electric' },
    { access: ['safe', 'crank'], minutes: 30, early: 0.8, late: 3, tool: 'puller' },
  ]
  const tasks = machines.flatMap((machine): PlanTask[] =>
    kinds
      .filter(() => chance(0.83))
      .map(({ access, minutes, early, late, every, skill, tool }, at) => {
        const due = whole(-10, Math.round(horizonDays * 1.05))
        const reach = whole(8, 24)
        const share = whole(70, 130) / 100
        return {
          id: `${machine.id}/${at}`,
          machine: machine.id,
          ...{ access, minutes, skill, tool, due },
          earliest: due - reach,
          latest: due < 0 ? horizonDays - 1 : due + whole(5, 14),
          earlyCostPerDay: early * share,
          lateCostPerDay: late * share,
          ...(every && { repeatEveryDays: every, endCostPerDay: early * share }),
          ...(chance(0.1) && { people: 2, helperMinutes: 20 }),
        }
      }),
  )
  const crew = Array.from({ length: Math.max(3, Math.round(machineCount / perMember)) }, (_, at) => ({
    id: `C${at}`,
    yard: yards[at % yards.length]!,
    skills: at % 2 === 0 ? ['electric'] : [],
    minutesByDay: Array.from({ length: horizonDays }, (_, day) => (day % 7 > 4 || chance(0.05) ? 0 : 384)),
  }))
  return {
    horizonDays,
    labourRatePerMinute: 0.9,
    downtimeCostPerDay: 30,
    crew,
    travelMinutes: { north: { south: 25, east: 40 }, south: { east: 30 } },
    benches: yards.map((yard) => ({ yard, places: Math.max(2, Math.round(machineCount / 40)) })),
    tools: [{ id: 'puller', count: 3 }],
    machines,
    tasks,
  }
}

const span = (from: number, length: number) => Array.from({ length }, (_, at) => from + at)
