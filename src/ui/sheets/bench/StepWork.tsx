'use client'

import { authorWords, blockedBy, phasesOf, looksUpFirst, type StepState } from '@/core/sheets'
import { Button } from '../../frame/Button'
import { Note } from '../../feedback/States'
import { BoreStack } from '../../graphics/BoreStack'
import { OrientationPicture } from '../../graphics/OrientationPicture'
import { PhotoStrip } from './PhotoStrip'
import { StepEntry } from './StepEntry'
import type { StepProps } from './stepProps'
import { StepTorque } from './StepTorque'
import { StepWay } from './StepWay'
import { firstTap } from './firstTap'
import { clockTime, doneWords, flagWords, nodeOf, phaseNames, stepFacts } from '../words'

/** One step: what to do, with what, which way round, what it asks for, and its one confirmation. */
export function StepWork(props: StepProps) {
  const { bench, step: each, timeZone } = props
  const { state } = bench
  const { step, where, heading } = each.step
  const phase = phasesOf(state).find(({ steps }) => steps.some((other) => other.step.key === each.step.key))
  // What waits for an answer may not come: it is not counted.
  const counted = (phase?.steps ?? []).filter(
    (other) => other.state !== 'waiting' || other.step.key === each.step.key,
  )
  const blocked = blockedBy(state, each)
  const remarks = state.remarks.filter((entry) => entry.stepKey === each.step.key)
  const substitutes = state.substitutes.filter((entry) => entry.stepKey === each.step.key)
  const photos = state.photos.filter((entry) => entry.stepKey === each.step.key)
  const node = nodeOf(state, each)
  const assembly = state.content.assemblies.find((one) => one.id === each.step.assemblyId)
  const partName = (key: string) => assembly?.parts.find((part) => part.key === key)?.name ?? key
  const settled = each.state === 'done' || each.state === 'skipped'
  const coming = comingFlags(state.steps, each)
  // Before its torque is known nothing else about the step helps.
  const lookUp = !settled && looksUpFirst(state, each)
  return (
    <div className="bench-step">
      <p className="second">
        {phaseNames[each.step.phase]}, step{' '}
        {counted.findIndex((other) => other.step.key === each.step.key) + 1} of {counted.length} · {heading}
      </p>
      <h2 className="step-title">{step.text}</h2>
      <div className="step-badges">
        {where && <p className="step-where">{where}</p>}
        {flagWords(each).map((words) => (
          <p key={words} className="step-flag">
            {words}
          </p>
        ))}
      </div>
      {coming && !settled && (
        <p className="step-coming">
          <span className="strong">Coming up:</span> {coming}
        </p>
      )}
      {step.caution && <p className="caution bench-caution">{step.caution}</p>}
      <StepTorque bench={bench} step={each} />
      {step.orientation && <OrientationPicture orientation={step.orientation} />}
      {node && node.stack.length > 0 && step.key !== 'countBack' && step.phase !== 'inspect' && (
        <BoreStack
          stack={node.stack}
          partName={partName}
          name={node.name}
          now={step.part}
          innermost={node.innermost}
        />
      )}
      <dl className="step-facts">
        {(lookUp ? [] : stepFacts(state, each)).map(([name, words]) => (
          <div key={name}>
            <dt>{name}</dt>
            <dd>{words}</dd>
          </div>
        ))}
      </dl>
      {!settled && <StepWay {...props} />}
      {each.rival && (
        <Note tone="oxide" title="Two devices say different things.">
          {each.by && authorWords(each.by)}: {each.by?.kind === 'done' ? 'done' : 'skipped'}.{' '}
          {authorWords(each.rival)}: {each.rival.kind === 'done' ? 'done' : 'skipped'}. Take back what stands
          and enter what is right.
        </Note>
      )}
      {[...substitutes, ...remarks].map((entry) => (
        <p key={entry.id} className="bench-remark">
          <span className="second">
            {authorWords(entry)}, {clockTime(entry.at, timeZone)}
          </span>{' '}
          {entry.kind === 'remark'
            ? entry.payload.text
            : `${entry.payload.used} instead of ${entry.payload.tool}: ${entry.payload.reason}`}
        </p>
      ))}
      {photos.length > 0 && <PhotoStrip bench={bench} photos={photos} />}
      {settled ? <Settled {...props} /> : <StepEntry {...props} blocked={blocked} />}
    </div>
  )
}

/** A step after this one that needs a second person or a lift: said before it is begun. */
function comingFlags(steps: StepState[], now: StepState): string | null {
  const at = steps.findIndex((each) => each.step.key === now.step.key)
  const next = steps.slice(at + 1, at + 4).find((each) => each.state === 'open' && flagWords(each).length > 0)
  return next ? `${flagWords(next).join(', ')} for “${next.step.step.text}”` : null
}

function Settled({ bench, step, timeZone, before, go }: StepProps) {
  const { by } = step
  if (!by) return null
  return (
    <>
      <Note tone={by.kind === 'done' ? 'moss' : 'brass'} title={by.kind === 'done' ? 'Done.' : 'Skipped.'}>
        {authorWords(by)}, {clockTime(by.at, timeZone)}
        {by.kind === 'done'
          ? doneWords(by.payload) && ` · ${doneWords(by.payload)}`
          : ` · ${by.payload.reason}`}
      </Note>
      <div className="bench-buttons">
        <Button variant="outlined" className="back" disabled={!before} onClick={() => before && go(before)}>
          Back
        </Button>
        <Button
          variant="outlined"
          onClick={() => {
            // What was pulled on it counts no more: a bolt that is undone is pulled anew.
            for (const of of [by.id, ...step.bolts.map(({ id }) => id)])
              void bench.write('takeBack', { of, reason: '' })
            go({ at: 'step', key: step.step.key })
          }}
        >
          Take back
        </Button>
        <Button variant="contained" className="confirm" onClick={firstTap(() => go(null))}>
          Go on
        </Button>
      </div>
    </>
  )
}
