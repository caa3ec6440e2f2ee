'use client'

import { useState, type ReactNode } from 'react'
import { mayBeSkipped } from '@/core/sheets'
import { Button } from '../../frame/Button'
import { AskDialog } from './AskDialog'
import { PhotoButton } from './PhotoStrip'
import type { StepProps } from './stepProps'

type Props = Pick<StepProps, 'bench' | 'step' | 'go'> & { blocked: boolean; children?: ReactNode }

/** What can be done with a step besides doing it: skip it, another tool, a remark, a photo. */
export function StepAside({ bench, step: each, go, blocked, children }: Props) {
  const [dialog, setDialog] = useState<'skip' | 'tool' | 'remark' | null>(null)
  const { key, step, assemblyId, position } = each.step
  const close = () => setDialog(null)
  const toolName = (tool: string) =>
    bench.state.content.tools.find((known) => known.key === tool)?.name ?? tool
  return (
    <div className="bench-side-actions">
      {children}
      {mayBeSkipped(each) && (
        <Button variant="text" disabled={blocked} onClick={() => setDialog('skip')}>
          Skip it
        </Button>
      )}
      {step.tools.length > 0 && (
        <Button variant="text" onClick={() => setDialog('tool')}>
          Other tool
        </Button>
      )}
      <Button variant="text" onClick={() => setDialog('remark')}>
        Remark
      </Button>
      <PhotoButton
        bench={bench}
        about={{ stepKey: key, caption: step.photo ? step.text.slice(0, 120) : '', assemblyId, position }}
        wanted={step.photo}
      />
      {dialog === 'skip' && (
        <AskDialog
          title="Skip this step?"
          fields={[{ name: 'reason', label: 'Why is it skipped?' }]}
          submit="Skip it"
          onClose={close}
          send={async ({ reason }) => {
            const refused = await bench.write('skipped', { reason: reason ?? '' }, key)
            if (!refused) go(null)
            return refused
          }}
        />
      )}
      {dialog === 'tool' && (
        <AskDialog
          title="Another tool was used"
          fields={[
            { name: 'tool', label: 'Instead of', options: step.tools.map(toolName) },
            { name: 'used', label: 'What was used' },
            { name: 'reason', label: 'Why' },
          ]}
          submit="Note it"
          onClose={close}
          send={({ tool, used, reason }) =>
            bench.write('substitute', { tool: tool ?? '', used: used ?? '', reason: reason ?? '' }, key)
          }
        />
      )}
      {dialog === 'remark' && (
        <AskDialog
          title="Remark on this step"
          fields={[{ name: 'text', label: 'Remark', lines: 4 }]}
          submit="Keep it"
          onClose={close}
          send={({ text }) => bench.write('remark', { text: text ?? '' }, key)}
        />
      )}
    </div>
  )
}
