import type { ComposedSheet, SheetStep, ComposePage } from '@/core/composing'
import { phaseNames, stepFacts } from '@/core/models'
import { showTorque } from '@/core/torque'

type Props = { sheet: ComposedSheet; page: ComposePage }

/** The steps by phase, each with all it asks; a phase that comes again, head by head, is told again. */
export function ComposedSteps({ sheet, page }: Props) {
  return (
    <>
      {byPhase(sheet.steps).map((group) => (
        <section key={group.steps[0]!.key} className="step-group">
          <h3>{phaseNames[group.phase]}</h3>
          <ol>
            {group.steps.map((each) => (
              <StepLine key={each.key} each={each} page={page} sheet={sheet} />
            ))}
          </ol>
        </section>
      ))}
    </>
  )
}

function StepLine({ each, page, sheet }: { each: SheetStep; page: ComposePage; sheet: ComposedSheet }) {
  const { step, where, heading } = each
  const toolName = (key: string) => page.model.tools.find((tool) => tool.key === key)?.name ?? key
  const fastener = sheet.fasteners.find((need) => need.fastener.key === step.fastener)?.fastener
  return (
    <li>
      {step.when && <span className="second">Only if {[step.when.is].flat().join(', or ')}: </span>}
      {step.text}{' '}
      <span className="second">
        {[heading === phaseNames[each.phase] ? '' : heading, where].filter(Boolean).join(', ')}
      </span>
      {fastener && <div className="strong">{showTorque(fastener.torque, step.stage)}</div>}
      <div className="second">{stepFacts(step, toolName).join(' · ')}</div>
      {step.caution && <p className="caution">{step.caution}</p>}
    </li>
  )
}

function byPhase(steps: SheetStep[]): { phase: SheetStep['phase']; steps: SheetStep[] }[] {
  const groups: { phase: SheetStep['phase']; steps: SheetStep[] }[] = []
  for (const step of steps) {
    const last = groups.at(-1)
    if (last?.phase === step.phase) last.steps.push(step)
    else groups.push({ phase: step.phase, steps: [step] })
  }
  return groups
}
