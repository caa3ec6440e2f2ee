'use client'

import { useState } from 'react'
import { wayBegun } from '@/core/sheets'
import { Button } from '../../frame/Button'
import { AskDialog } from './AskDialog'
import { useMoreWork } from './moreWork'
import type { StepProps } from './stepProps'

/** Swap it, or strip, inspect and rebuild it: chosen once, as long as nothing of either way is done. */
export function StepWay({ bench, step: each }: StepProps) {
  const [asking, setAsking] = useState(false)
  const add = useMoreWork()
  const { task, assemblyId } = each.step
  const about = bench.state.content.assemblies
    .find((one) => one.id === assemblyId)
    ?.tasks.find((one) => one.task === task)
  const ways = about?.ways ?? []
  if (!add || !about || ways.length < 2) return null
  const begun = wayBegun(bench.state, { assemblyId, task: about.task, positions: about.positions })
  const now = ways.find((way) => way.key === about.way) ?? ways[0]!
  const others = ways.filter((way) => way !== now)
  return (
    <p className="step-way">
      <span className="second">Way</span> {now.name}
      {!begun && (
        <Button variant="text" onClick={() => setAsking(true)}>
          Another way
        </Button>
      )}
      {asking && (
        <AskDialog
          title={`${about.name}: another way`}
          intro={<p>Chosen once for all of them. The steps that are left are composed anew.</p>}
          fields={[
            { name: 'way', label: 'Way', options: others.map((way) => way.name) },
            { name: 'reason', label: 'Why' },
          ]}
          submit="Do it so"
          onClose={() => setAsking(false)}
          send={({ way, reason }) =>
            add({
              items: [
                {
                  assemblyId,
                  task: about.task,
                  positions: about.positions,
                  path: others.find((one) => one.name === way)?.key ?? null,
                },
              ],
              reason: reason ?? '',
            })
          }
        />
      )}
    </p>
  )
}
