import type { SheetState } from '../state'

/** What came of looking: of so many positions, so many were renewed. */
export type ConditionOutcome = {
  assemblyId: string
  pump: string
  name: string
  looked: number
  renewed: number
}

/** Of each task on condition that was looked at: how many of how many were renewed. */
export function conditionOutcomes(state: SheetState): ConditionOutcome[] {
  return state.content.assemblies.flatMap((assembly) =>
    assembly.tasks
      .filter(({ kind }) => kind === 'condition')
      .flatMap(({ task, name, positions }) => {
        const looked = positions.filter((position) => {
          const judged = state.steps.filter(
            ({ step }) =>
              step.assemblyId === assembly.id &&
              step.task === task &&
              step.position === position &&
              step.phase === 'inspect',
          )
          return judged.length > 0 && judged.every(({ state: is }) => is === 'done' || is === 'notNeeded')
        })
        if (looked.length === 0) return []
        const renewed = looked.filter((position) =>
          state.positions.some(
            (each) =>
              each.assemblyId === assembly.id && each.position === position && each.state === 'renewed',
          ),
        )
        return [
          {
            assemblyId: assembly.id,
            pump: assembly.number,
            name,
            looked: looked.length,
            renewed: renewed.length,
          },
        ]
      }),
  )
}

/** @example outcomeWords({ looked: 3, renewed: 1 }) // '1 of 3 renewed' */
export const outcomeWords = ({ looked, renewed }: Pick<ConditionOutcome, 'looked' | 'renewed'>): string =>
  `${renewed === 0 ? 'none' : renewed} of ${looked} renewed`
