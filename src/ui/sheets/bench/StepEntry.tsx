'use client'

import { useState } from 'react'
import {
  borePieces,
  boltPlaces,
  fastenerOf,
  findingOf,
  isLook,
  keptSettings,
  lockless,
  looksUpFirst,
  locksOn,
  nextBolt,
  sortAt,
  soundFinding,
  statedTorque,
  type Done,
  type PieceFate,
  proofRefusal,
} from '@/core/sheets'
import { findingWords, type Disposition } from '@/core/inspection'
import { parseNumber, showNumber } from '@/core/units'
import { Button } from '../../frame/Button'
import { Note } from '../../feedback/States'
import { FieldFrame, TextInput } from '../../forms/FieldFrame'
import { ClosingCount } from './ClosingCount'
import { firstTap } from './firstTap'
import { FindingEditor } from './FindingEditor'
import { LocksPanel } from './LocksPanel'
import { blankMeasure, MeasureEntry, readMeasure } from './MeasureEntry'
import { PiecesPanel } from './PiecesPanel'
import { Refused } from './Refused'
import { SlipHelp } from './SlipHelp'
import { StepAside } from './StepAside'
import { StepTimer } from './StepTimer'
import { notKept } from './useSheet'
import type { StepProps } from './stepProps'
import { LookUpTorque, TorqueEntry } from './TorqueEntry'
import { soundWords } from '../words'

/** What a step asks for, and the one button that confirms it. */
export function StepEntry({
  sheet,
  bench,
  step: each,
  blocked,
  before,
  go,
}: StepProps & { blocked: string | null }) {
  const { state } = bench
  const { step, assemblyId, position } = each.step
  const key = each.step.key
  const stated = statedTorque(state, each)
  const fastener = fastenerOf(state, each)
  const places = boltPlaces(state, each)
  const bolt = nextBolt(state, each)
  const nth = places.findIndex(({ place }) => place === bolt?.place) + 1
  const lookUp = looksUpFirst(state, each)
  const look = isLook(each) && position !== null
  const finding = look ? (findingOf(state, assemblyId, position) ?? null) : null
  const bore =
    step.key === 'countBack' ? borePieces(state).find((one) => one.step.step.key === key) : undefined
  const noted = keptSettings(state).find((one) => one.what === step.setting?.what)?.noted ?? ''

  // Whoever works here has a lock of their own on.
  const ownLock = locksOn(state).some(({ name }) => name === bench.author.name)

  const [typed, setTyped] = useState<{ value: string; unit: string } | null>(null)
  const torque = typed ?? (stated ? { value: showNumber(stated.value), unit: stated.unit } : null)
  const [measured, setMeasured] = useState(() => blankMeasure(step.measure?.unit ?? ''))
  const [answer, setAnswer] = useState('')
  const [setting, setSetting] = useState(step.setting?.goes === 'putBack' ? noted : '')
  const [fates, setFates] = useState<PieceFate[] | null>(null)
  const [ownBores, setOwnBores] = useState<string[]>([])
  const [reason, setReason] = useState('')
  const [askReason, setAskReason] = useState(false)
  const [error, setError] = useState('')

  /** What was entered, or the sentence that says what cannot be read. */
  const read = (): Done | string => {
    const given: Done = { measure: null, torque: null, answer, reason: reason.trim() }
    if (torque && torque.value.trim() !== '') {
      const parsed = parseNumber(torque.value)
      if (!parsed.ok) return parsed.reason
      given.torque = { value: parsed.value, unit: torque.unit }
    }
    if (step.measure) {
      const value = readMeasure(measured)
      if (typeof value === 'string') return value
      given.measure = value
    }
    if (step.setting && !step.measure) given.setting = setting.trim()
    if (bore)
      given.pieces = (fates ?? bore.pieces).map(({ part, pieces, fate, reason: why }) => ({
        part,
        pieces,
        fate,
        reason: why,
      }))
    if (step.key === 'toolsBack' && ownBores.length > 0) given.ownBores = ownBores
    return given
  }
  const stop = (words: string) => {
    setError(words)
    // Off its limits, misread, out of time or not measured: a reason may explain it, but no full device.
    setAskReason(
      words !== notKept &&
        (step.measure !== null ||
          fastener !== null ||
          step.timer !== null ||
          step.setting !== null ||
          step.key === 'toolsBack'),
    )
  }
  const clear = () => {
    setError('')
    setReason('')
    setAskReason(false)
    setTyped(null)
  }

  const done = async () => {
    const payload = read()
    if (typeof payload === 'string') return setError(payload)
    if (bolt && !lookUp) return pull(payload)
    if (look && !finding) {
      const refused = await bench.write('finding', soundFinding(state, assemblyId, position), key)
      if (refused) return stop(refused)
    }
    if (step.locks === 'on' && !ownLock) {
      const refused = await bench.write('lock', { name: bench.author.name, goes: 'on', reason: '' }, key)
      if (refused) return stop(refused)
    }
    const failed = proofRefusal(state, key, payload)
    if (failed) {
      await noteFailedProof(payload)
      return stop(failed)
    }
    const refused = await bench.write('done', payload, key)
    if (refused) return stop(refused)
    go(null)
  }

  /** A proof that failed is on record too: what was measured, or what was seen. */
  const noteFailedProof = async ({ measure, answer }: Done) => {
    if (!measure && answer === '') return
    await bench.write(
      'measured',
      {
        assemblyId,
        position: null,
        what: measure ? 'freezing point' : 'proof',
        value: measure?.value ?? 0,
        unit: measure?.unit ?? 'by eye',
        how: measure ? 'refractometer' : 'by eye',
        words: measure ? 'failed' : answer,
      },
      key,
    )
  }

  /** One bolt; the last of a pass finishes the step in the same tap. */
  const pull = async (payload: Done) => {
    const { place, bolt: number } = bolt!
    const refused = await bench.write(
      'bolt',
      { place, bolt: number, torque: payload.torque, reason: payload.reason },
      key,
    )
    if (refused) return stop(refused)
    const last = each.bolts.length + 1 === places.length
    clear()
    if (!last) return
    const closed = await bench.write('done', { ...payload, torque: stated, reason: '' }, key)
    if (closed) return stop(closed)
    go(null)
  }

  /** The whole pass as one entry, for a team that calls the bolts out. */
  const pullAll = async () => {
    const payload = read()
    if (typeof payload === 'string') return setError(payload)
    const refused = await bench.write(
      'done',
      {
        ...payload,
        answer: step.snug
          ? `all ${places.length} run in until they touch`
          : `all ${places.length} pulled in order`,
      },
      key,
    )
    if (refused) return stop(refused)
    go(null)
  }

  return (
    <>
      {lookUp && fastener && (
        <LookUpTorque
          bench={bench}
          assemblyId={assemblyId}
          fastener={fastener}
          before={sheet.settled.filter(
            (one) =>
              one.fastener === fastener.key &&
              one.modelVersionId ===
                state.content.assemblies.find(({ id }) => id === assemblyId)?.modelVersionId,
          )}
        />
      )}
      {torque && !lookUp && (
        <TorqueEntry
          torque={torque}
          label={bolt ? `Bolt ${bolt.number}${bolt.again ? ', once more' : ''}` : 'Pulled'}
          hint={
            bolt
              ? `${nth} of ${places.length}${bolt.bolt === String(bolt.number) ? '' : `, the maker’s ${bolt.bolt}`}`
              : countWords(fastener?.count ?? 1)
          }
          onChange={(next) => {
            setTyped(next)
            setError('')
          }}
        />
      )}
      {step.snug && bolt && (
        <div className="torque-entry snug">
          <span>
            <span className="strong">Bolt {bolt.number}</span>
            <span className="second block">
              {nth} of {places.length}
              {bolt.bolt === String(bolt.number) ? '' : `, the maker’s ${bolt.bolt}`}
            </span>
          </span>
        </div>
      )}
      {step.measure && (
        <MeasureEntry
          bench={bench}
          earlier={sheet.earlier}
          about={{ assemblyId, what: step.measure.what, where: each.step.where }}
          limits={step.measure}
          value={measured}
          onChange={setMeasured}
          stepKey={key}
        />
      )}
      {step.asks && (
        <fieldset className="answers">
          <legend className="second">What was found?</legend>
          {step.asks.answers.map((words) => (
            <Button
              key={words}
              variant={answer === words ? 'contained' : 'outlined'}
              aria-pressed={answer === words}
              onClick={() => setAnswer(words)}
            >
              {words}
            </Button>
          ))}
        </fieldset>
      )}
      {look && blocked === null && (
        <FindingEditor bench={bench} assemblyId={assemblyId} position={position} stepKey={key} />
      )}
      {bore && <PiecesPanel bore={bore} fates={fates} onChange={setFates} />}
      {step.setting && !step.measure && (
        <FieldFrame
          id="setting"
          label={
            step.setting.goes === 'noted'
              ? `${sentence(step.setting.what)} stands at`
              : `${sentence(step.setting.what)} put back to`
          }
          hint={step.setting.goes === 'putBack' && noted ? `It stood at ${noted}` : undefined}
        >
          <TextInput id="setting" value={setting} onChange={(event) => setSetting(event.target.value)} />
        </FieldFrame>
      )}
      {step.locks && <LocksPanel bench={bench} stepKey={key} goes={step.locks} />}
      {step.key === 'toolsBack' && (
        <ClosingCount state={state} go={go} ownBores={ownBores} setOwnBores={setOwnBores} />
      )}
      <StepTimer bench={bench} step={each} />
      {askReason && (
        <FieldFrame id="step-reason" label="Why it is right as it is">
          <TextInput id="step-reason" value={reason} onChange={(event) => setReason(event.target.value)} />
        </FieldFrame>
      )}
      {error && (
        <Refused words={error}>
          {torque && stated && (
            <SlipHelp
              {...{ bench, stated, torque, bolt: bolt?.number ?? null, stepKey: key, setTyped, clear }}
            />
          )}
        </Refused>
      )}
      {blocked ? (
        <Note tone="brass" title="Not yet.">
          {blocked}{' '}
          <button
            type="button"
            className="plain-button"
            onClick={() => go(state.madeSafe && lockless(state) ? { at: 'madeSafe' } : null)}
          >
            Go there
          </button>
        </Note>
      ) : each.state === 'waiting' ? (
        <Note>Whether this is to be done depends on what is found before.</Note>
      ) : null}
      <StepAside bench={bench} step={each} blocked={blocked !== null} go={go}>
        {bolt && each.bolts.length === 0 && places.length > 1 && !lookUp && step.places !== 'pinned' && (
          <Button variant="text" disabled={blocked !== null} onClick={() => void pullAll()}>
            All {places.length} in one
          </Button>
        )}
      </StepAside>
      <div className="bench-buttons">
        <Button variant="outlined" className="back" disabled={!before} onClick={() => before && go(before)}>
          Back
        </Button>
        <Button
          variant="contained"
          className="confirm"
          disabled={blocked !== null || each.state === 'waiting' || lookUp}
          onClick={firstTap(() => void done())}
        >
          {confirmWords()}
        </Button>
      </div>
    </>
  )

  /** The confirmation repeats what it confirms. */
  function confirmWords(): string {
    if (torque && !lookUp) {
      const words = `${torque.value}\u00a0${torque.unit}`
      return bolt ? `Bolt ${bolt.number} done at ${words}` : `Done at ${words}`
    }
    if (step.snug && bolt) return `Bolt ${bolt.number} touches`
    if (look)
      return finding
        ? `${findingWords(finding.payload.damages, '')}: ${decided[finding.payload.disposition]}`
        : soundWords(sortAt(state, assemblyId, position!))
    if (bore) return `${bore.pieces.reduce((sum, { of }) => sum + of, 0)} pieces accounted for`
    if (step.locks === 'on') return ownLock ? 'Locked out' : `My lock is on: ${bench.author.name}`
    if (fastener?.torque.state === 'handTight') return 'Hand tight'
    if (fastener?.torque.state === 'byFeel') return 'Tight by feel'
    if (step.measure && measured.value.trim() !== '')
      return `Done: ${measured.value.trim()}\u00a0${measured.unit}`
    if (step.setting && setting.trim() !== '')
      return step.setting.goes === 'noted' ? `Noted: ${setting.trim()}` : `Put back to ${setting.trim()}`
    return step.gate ? 'Confirmed' : 'Done'
  }
}

/** What was decided, short enough for a button. */
const decided: Record<Disposition, string> = {
  reuse: 'goes back',
  clean: 'cleaned, goes back',
  renew: 'renew',
  renewMate: 'renew, look at its mate',
  stop: 'stop and ask',
}

const countWords = (count: number) => (count > 1 ? `of ${count} like it` : '')
const sentence = (words: string) => words.charAt(0).toUpperCase() + words.slice(1)
