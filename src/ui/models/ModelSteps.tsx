import { choiceName, practiceOf } from '@/core/practices'
import { phaseNames, stepFacts, type PumpModel, type Step } from '@/core/models'

/** A list of steps as the model says them, with everything each asks. */
export function ModelSteps({
  steps,
  model,
  phase,
}: {
  steps: Step[]
  model: PumpModel
  /** The phase all of them are expected to be in: only another one is told. */
  phase?: Step['phase']
}) {
  const toolName = (key: string) => model.tools.find((tool) => tool.key === key)?.name ?? key
  const repeatOf = (key: string | null) => model.repeats.find((repeat) => repeat.key === key)?.name
  return (
    <ol className="model-steps">
      {steps.map((step) => (
        <li key={step.key}>
          {step.practice && (
            <span className="second">
              {practiceOf(step.practice.key).name}:{' '}
              {step.practice.is
                .map((choice) => choiceName(step.practice!.key, choice).toLowerCase())
                .join(' or ')}
              {': '}
            </span>
          )}
          {step.when && <span className="second">Only if {[step.when.is].flat().join(', or ')}: </span>}
          {step.text}{' '}
          {step.phase !== phase && <span className="second">{phaseNames[step.phase].toLowerCase()}</span>}
          {step.repeat && <span className="second"> · a tick for each {repeatOf(step.repeat)}</span>}
          {step.fastener && (
            <span className="strong">
              {' '}
              {model.fasteners.find((fastener) => fastener.key === step.fastener)?.name}
              {step.stage && `, stage ${step.stage}`}
            </span>
          )}
          <div className="second">{stepFacts(step, toolName).join(' · ')}</div>
          {step.caution && <p className="caution">{step.caution}</p>}
        </li>
      ))}
    </ol>
  )
}
