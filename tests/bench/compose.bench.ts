import { readFileSync } from 'node:fs'
import { composeSheet, offersFor, type ChosenTask } from '@/core/composing'
import {
  allPositions,
  eachStep,
  modelForSize,
  parsePumpModel,
  splitInstance,
  type PumpModel,
} from '@/core/models'
import { randomFrom } from '@/demo/random'

/**
 * How long composing takes: random visits on every shipped model, and on one made as large as the parser
 * allows. Aim: any visit on the largest shipped model in under 20 ms.
 */
const visits = 400

function read(file: string): PumpModel {
  const family = parsePumpModel(JSON.parse(readFileSync(`src/demo/models/${file}.json`, 'utf8')))
  return modelForSize(family, family.sizes[0]?.key ?? null)
}

function randomVisit(model: PumpModel, random: () => number): ChosenTask[] {
  const chosen = model.tasks.filter(() => random() < 0.6)
  return (chosen.length > 0 ? chosen : model.tasks.slice(0, 1)).map((task) => {
    const positions = allPositions(model).filter((each) => task.positions.includes(splitInstance(each).key))
    const some = positions.filter(() => random() < 0.7)
    return { task: task.key, positions: some.length > 0 ? some : positions }
  })
}

/** The plate pump with 24 cylinders: far beyond any real one. */
function enlarged(model: PumpModel): PumpModel {
  return {
    ...model,
    name: `${model.name}, 24 cylinders`,
    repeats: model.repeats.map((repeat) => ({
      ...repeat,
      count: repeat.key === 'cylinder' ? 24 : repeat.count,
    })),
  }
}

function measure(model: PumpModel): void {
  const random = randomFrom(6)
  const jobs = Array.from({ length: visits }, () => randomVisit(model, random))
  const times: number[] = []
  let most = 0
  for (const round of [0, 1]) {
    for (const tasks of jobs) {
      const begun = performance.now()
      const sheet = composeSheet({ assemblies: [{ id: 'P-1', model, tasks }] })
      if (round === 1) times.push(performance.now() - begun)
      most = Math.max(most, sheet.steps.length)
    }
  }
  times.sort((a, b) => a - b)
  const offers = performance.now()
  offersFor({ assemblies: [{ id: 'P-1', model, tasks: jobs[0]! }] })
  const offered = performance.now() - offers
  const at = (share: number) =>
    times[Math.min(times.length - 1, Math.floor(times.length * share))]!.toFixed(2)
  process.stdout.write(
    `${`${model.maker} ${model.name}`.padEnd(36)} ${String(eachStep(model).length).padStart(3)} steps, sheets up to ${String(most).padStart(4)}: median ${at(0.5)} ms, 99 % ${at(0.99)} ms, slowest ${at(1)} ms; offers ${offered.toFixed(0)} ms\n`,
  )
}

for (const file of [
  'ostrel-p3-200',
  'ostrel-p3-500',
  'tarnwick-k4',
  'quillon-d35',
  'quillon-u20',
  'ostrel-wl2',
])
  measure(read(file))
measure(enlarged(read('ostrel-p3-500')))
