import type { ReactNode } from 'react'
import { showMinutes } from '@/core/plan'
import type { ComposedSheet, Saving } from '@/core/composing'
import { type PumpModel } from '@/core/models'
import { whereWords } from '@/core/wear'
import { inSentence } from '@/core/units'
import { StripComb } from './StripComb'
import { WhoItTakes } from './WhoItTakes'

type Props = { sheet: ComposedSheet; saving: Saving; model: PumpModel; children: ReactNode }

/** How long it takes together, what that saves, what comes with it whether chosen or not, and the act. */
export function Totals({ sheet, saving, model, children }: Props) {
  const taskName = (key: string) => model.tasks.find((task) => task.key === key)?.name ?? key
  return (
    <section className="panel panel-pad stack-tight" aria-label="In all">
      <div className="compose-totals">
        <span>
          <span className="figure">{showMinutes(sheet.minutes)}</span> <span className="second">in all</span>
        </span>
        {saving.saved > 0 && (
          <span>
            <span className="moss strong">{showMinutes(saving.saved)} saved</span>{' '}
            <span className="second">against {showMinutes(saving.oneByOne)} one by one</span>
          </span>
        )}
        <span className="grow" />
        {children}
      </div>
      <StripComb saving={saving} sheet={sheet} model={model} />
      <WhoItTakes {...sheet} />
      {sheet.implied.map(({ task, positions, why }) => (
        <p key={task}>
          <span className="strong">Comes with it: {inSentence(taskName(task))}</span>{' '}
          <span className="second">{[whereWords(model, positions), why].filter(Boolean).join(': ')}</span>
        </p>
      ))}
      {sheet.cautions
        .filter(({ where }) => where === 'Torque')
        .map(({ words }) => (
          <p key={words} className="caution">
            {words}
          </p>
        ))}
    </section>
  )
}
