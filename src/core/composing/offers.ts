import { noPractices, type CompanyPractices } from '../practices'
import type { PositionKey } from '../models'
import { positionsOf } from '../wear'
import { composeSheet } from './compose'
import type { ComposeInput } from './types'

/** A task that the open pump makes cheap. */
export type Offer = {
  assemblyId: string
  task: string
  name: string
  positions: PositionKey[]
  /** Minutes more on this visit, and on a visit of its own. */
  now: number
  alone: number
  /** Openings that are open already, by name, outermost first; empty where it only shares the visit. */
  openAlready: string[]
}

/**
 * What the strip-down that is composed makes cheap: every task not chosen yet, with what it would cost
 * now and what it would cost alone. What shares an opening comes first, then by what is saved.
 *
 * @param input what is chosen so far
 * @returns nothing where nothing is chosen
 * @example offersFor(seals) // [{ task: 'oilSeals', now: 25, alone: 95, openAlready: ['Manifold off', 'Seal stack out'] }]
 */
export function offersFor(input: ComposeInput, chosen: CompanyPractices = noPractices): Offer[] {
  if (!input.assemblies.some(({ tasks }) => tasks.length > 0)) return []
  const present = composeSheet(input, chosen)
  const brought = new Set(present.implied.flatMap(({ positions }) => positions))
  return input.assemblies
    .flatMap((job) =>
      job.model.tasks.flatMap((task): Offer[] => {
        const taken = new Set(
          job.tasks.filter((each) => each.task === task.key).flatMap((each) => each.positions),
        )
        const positions = positionsOf(job.model, task).filter(
          (each) => !taken.has(each) && !(brought.has(each) && task.kind === 'renew'),
        )
        if (positions.length === 0) return []
        const more = { task: task.key, positions }
        const withIt = composeSheet(
          {
            assemblies: input.assemblies.map((each) =>
              each.id === job.id ? { ...each, tasks: [...each.tasks, more] } : each,
            ),
          },
          chosen,
        )
        const alone = composeSheet({ assemblies: [{ ...job, tasks: [more] }] }, chosen)
        const open = alone.opened.filter((key) => present.opened.includes(key))
        return [
          {
            assemblyId: job.id,
            task: task.key,
            name: task.name,
            positions,
            now: withIt.minutes - present.minutes,
            alone: alone.minutes,
            openAlready: [
              ...new Set(
                open.map((key) => job.model.access.find(({ key: node }) => node === key.split('@')[0])!.name),
              ),
            ],
          },
        ]
      }),
    )
    .sort(
      (a, b) =>
        Number(b.openAlready.length > 0) - Number(a.openAlready.length > 0) ||
        b.alone - b.now - (a.alone - a.now) ||
        a.now - b.now,
    )
}
