'use client'

import Link from 'next/link'
import { useState } from 'react'
import { currentStep, notReady, type StepState } from '@/core/sheet'
import type { SheetPage } from '@/core/sheet/views'
import { visitNumber } from '@/core/planning'
import type { Outcome } from '@/core/problem/outcome'
import type { AbandonInput } from '@/core/sheet'
import { ButtonLink } from '../frame/ButtonLink'
import { Note } from '../feedback/States'
import type { Present } from '../fleet/ReadingDialog'
import { AbandonSheet } from './AbandonSheet'
import { BenchSide } from './BenchSide'
import { PaperSheet } from './PaperSheet'
import { PrintButton } from './PrintButton'
import type { Place } from './place'
import { ReadMeters } from './ReadMeters'
import { SheetPhases } from './SheetPhases'
import { MakeSafeGate, StepWork } from './StepWork'
import { useSheet } from './useSheet'

type Props = {
  sheet: SheetPage
  author: { id: string; name: string }
  present: Present
  timeZone: string
  abandon: (input: AbandonInput) => Promise<Outcome>
}

/** The sheet at the bench: phases on the left, one thing to do in the middle, positions and parts on the right. */
export function SheetBench({ sheet, author, present, timeZone, abandon }: Props) {
  const bench = useSheet(sheet.id, sheet.entries, author)
  const { state } = bench
  const [chosen, setChosen] = useState<Place | null>(null)
  const next = placeOfNext(state)
  const place = chosen ?? next
  const step = place.at === 'step' ? state.steps.find((each) => each.step.key === place.key) : undefined
  const go = (to: Place | null) => setChosen(to)
  const notices = [...new Set(state.content.assemblies.map((assembly) => assembly.notice))].filter(Boolean)

  return (
    <main className="bench" id="content">
      <header className="bench-top">
        <div>
          <h1>
            {sheet.machineNumber ? `${sheet.machineNumber} ${sheet.machineName}` : sheet.pumps.join(', ')}
          </h1>
          <p className="second">
            Sheet {visitNumber(sheet.number)} ·{' '}
            {state.content.assemblies.map((assembly) => `${assembly.number} ${assembly.title}`).join(', ')} ·{' '}
            {author.name}
          </p>
        </div>
        <div className="bench-status" role="status" aria-live="polite">
          {bench.trouble ? (
            <span className="brass strong">
              {bench.waiting > 0 ? `${bench.waiting} kept on this device` : 'Out of reach'}
            </span>
          ) : bench.waiting > 0 ? (
            <span className="second">sending {bench.waiting} …</span>
          ) : (
            <span className="moss strong">All saved</span>
          )}
        </div>
        <PrintButton />
        <AbandonSheet sheet={sheet} abandon={abandon} />
        <ButtonLink href="/sheets">Pause</ButtonLink>
      </header>
      <SheetPhases state={state} place={place} go={go} />
      <section className="bench-work" aria-label="What to do now">
        {bench.closed && (
          <Note tone="brass" title="This sheet is closed.">
            It was signed or given up elsewhere. What you write now is kept as late and changes nothing.{' '}
            <Link href={`/sheets/${sheet.id}`}>See the record</Link>
          </Note>
        )}
        {bench.trouble && <Note tone="brass">{bench.trouble}</Note>}
        {!bench.lasting && (
          <Note tone="brass" title="Mind:">
            this browser keeps nothing on the device. Until “All saved” stands above, do not close the page.
          </Note>
        )}
        {bench.refused.map((entry) => (
          <Note key={entry.id} tone="oxide" title="Not kept:">
            {entry.refused}
            <div className="actions">
              <button type="button" className="plain-button" onClick={() => void bench.discard(entry.id)}>
                I have seen it
              </button>
            </div>
          </Note>
        ))}
        {place.at === 'meters' && (
          <ReadMeters sheet={sheet} bench={bench} present={present} onDone={() => go(null)} />
        )}
        {place.at === 'madeSafe' && (
          <MakeSafeGate bench={bench} author={author.name} timeZone={timeZone} onDone={() => go(null)} />
        )}
        {place.at === 'step' && step && (
          <StepWork
            key={`${step.step.key} ${step.by?.id ?? ''}`}
            bench={bench}
            step={step}
            timeZone={timeZone}
            before={neighbour(state.steps, step, -1)}
            go={go}
          />
        )}
        {place.at === 'end' && (
          <EndOfSheet sheetId={sheet.id} reasons={notReady(state)} waiting={bench.waiting} />
        )}
        {notices.map((notice) => (
          <p key={notice} className="second bench-notice">
            {notice}
          </p>
        ))}
      </section>
      <BenchSide sheet={sheet} bench={bench} timeZone={timeZone} />
      <PaperSheet sheet={sheet} state={state} />
    </main>
  )
}

/** Where the work stands: the first meter, step or gate that is still open. */
function placeOfNext(state: ReturnType<typeof useSheet>['state']): Place {
  if (state.unread.length > 0) return { at: 'meters' }
  const next = currentStep(state)
  if (!state.madeSafe && next?.step.phase !== 'makeSafe') return { at: 'madeSafe' }
  return next ? { at: 'step', key: next.step.key } : { at: 'end' }
}

function neighbour(steps: StepState[], step: StepState, by: 1 | -1): Place | null {
  const shown = steps.filter((each) => each.state !== 'notNeeded' && each.state !== 'waiting')
  const found = shown[shown.findIndex((each) => each.step.key === step.step.key) + by]
  return found ? { at: 'step', key: found.step.key } : null
}

function EndOfSheet({ sheetId, reasons, waiting }: { sheetId: string; reasons: string[]; waiting: number }) {
  return (
    <div className="bench-step">
      <h2 className="step-title">
        {reasons.length === 0 ? 'Everything is done' : 'Not ready to be signed yet'}
      </h2>
      {reasons.length > 0 ? (
        <ul className="bench-list">
          {reasons.map((reason) => (
            <li key={reason}>{reason}</li>
          ))}
        </ul>
      ) : (
        <p>
          Look at positions and parts on the right once more: what they say is what will be recorded. Then
          sign.
        </p>
      )}
      <div className="bench-buttons">
        {reasons.length === 0 && (
          <ButtonLink href={`/sheets/${sheetId}/sign`} filled disabled={waiting > 0} className="confirm">
            Look at it and sign
          </ButtonLink>
        )}
        {waiting > 0 && <p className="brass strong">{waiting} entries are still on this device.</p>}
      </div>
    </div>
  )
}
