import type { ReactNode } from 'react'
import { foldSteps, placesWords } from '@/core/composing'

type Placed = { key: string; phase: string; heading: string; where: string; stretch?: string }

type Props<Step extends Placed> = {
  steps: Step[]
  phaseName: (phase: Step['phase']) => string
  /** Everything a line tells but its place. */
  likeness: (step: Step) => string
  /** @param where its job and place in words; blank where the block above says it */
  line: (step: Step, where: string) => ReactNode
}

/** Steps by phase; what is done alike at several cylinders is told once, with its cylinders. */
export function FoldedSteps<Step extends Placed>({ steps, phaseName, likeness, line }: Props<Step>) {
  const groups: { phase: Step['phase']; blocks: ReturnType<typeof foldSteps<Step>> }[] = []
  for (const block of foldSteps(steps, likeness)) {
    const { phase } = block.runs[0]![0]!
    const last = groups.at(-1)
    if (last?.phase === phase) last.blocks.push(block)
    else groups.push({ phase, blocks: [block] })
  }
  return (
    <>
      {groups.map((group) => (
        <section key={group.blocks[0]!.runs[0]![0]!.key} className="step-group">
          <h3>{phaseName(group.phase)}</h3>
          <ol>
            {group.blocks.map(({ places, runs }) => {
              const run = runs[0]!
              const { stretch } = run[0]!
              // A stretch runs through several jobs; else the job says which of two like steps this is.
              const job = stretch !== undefined ? '' : jobOf(run[0]!, phaseName)
              const where = [job, placesWords(places)].filter(Boolean).join(', ')
              if (run.length === 1) return <li key={run[0]!.key}>{line(run[0]!, where)}</li>
              return (
                <li key={run[0]!.key} className="step-block">
                  {where && (
                    <span className="strong">
                      {where}
                      {places.length > 1 && <span className="second"> · one after the other</span>}
                    </span>
                  )}
                  <ol>
                    {run.map((step, index) => (
                      <li key={step.key}>
                        {step.phase !== (run[index - 1] ?? run[0]!).phase && (
                          <span className="second block">{phaseName(step.phase)}</span>
                        )}
                        {line(step, stretch !== undefined ? jobOf(step, phaseName) : '')}
                      </li>
                    ))}
                  </ol>
                </li>
              )
            })}
          </ol>
        </section>
      ))}
    </>
  )
}

/** The job a step belongs to, which tells it from a like one of another; blank where its phase says it. */
function jobOf<Step extends Placed>(step: Step, phaseName: (phase: Step['phase']) => string): string {
  return step.heading === phaseName(step.phase) ? '' : step.heading
}
