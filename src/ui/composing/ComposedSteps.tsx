import type { ComposedSheet, ComposePage, SheetStep } from '@/core/composing'
import { phaseNames, stepFacts, titleOf } from '@/core/models'
import { showTorque } from '@/core/torque'
import { FoldedSteps } from './FoldedSteps'

type Props = { pump: { number: string }; sheet: ComposedSheet; page: ComposePage }

/** The steps by phase, each with all it asks; what repeats per cylinder is told once. */
export function ComposedSteps({ pump, sheet, page }: Props) {
  return (
    <FoldedSteps
      steps={sheet.steps}
      phaseName={(phase) => phaseNames[phase]}
      likeness={({ step }) => JSON.stringify(step)}
      line={(each, where) => <StepLine each={each} where={where} page={page} sheet={sheet} pump={pump} />}
    />
  )
}

type LineProps = Props & { each: SheetStep; where: string }

function StepLine({ each, where, page, sheet, pump }: LineProps) {
  const { step } = each
  const toolName = (key: string) => page.model.tools.find((tool) => tool.key === key)?.name ?? key
  const fastener = sheet.fasteners.find((need) => need.fastener.key === step.fastener)?.fastener
  return (
    <>
      {step.when && <span className="second">Only if {[step.when.is].flat().join(', or ')}: </span>}
      {step.text} <span className="second">{where}</span>
      {fastener && (
        <div>
          <span className="strong">{showTorque(fastener.torque, step.stage)}</span>{' '}
          <span className="second">
            {pump.number} {titleOf(page.model)}, {fastener.name}
          </span>
        </div>
      )}
      <div className="second">{stepFacts(step, toolName).join(' · ')}</div>
      {step.caution && <p className="caution">{step.caution}</p>}
    </>
  )
}
