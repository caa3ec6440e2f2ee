'use client'

import { Link } from '../../frame/Link'
import { useState } from 'react'
import {
  whereWorkStands,
  type MoreWorkInput,
  type StepState,
  type SheetPage,
  type AbandonInput,
  type Place,
} from '@/core/sheets'
import { visitNumber } from '@/core/plan'
import type { ReactNode } from 'react'
import type { Outcome } from '@/core/problem'
import { Note } from '../../feedback/States'
import type { Present } from '../../fleet'
import { unpack, type Packed } from '../../frame/packed'
import { AbandonSheet } from '../signing/AbandonSheet'
import { BenchSide } from './BenchSide'
import type { OpenKit } from './PartDialog'
import { EndOfSheet } from '../signing/EndOfSheet'
import { LeaveSheet, TakeUp } from '../signing/LeaveSheet'
import { MakeSafeGate } from './MakeSafeGate'
import { MoreWorkContext, type AddWork } from './moreWork'
import { MoreWorkDialog } from './MoreWorkDialog'
import { OnPaper } from '../record/OnPaper'
import { PaperSheet } from '../record/PaperSheet'
import { PrintButton } from '../record/PrintButton'
import { ReadMeters } from './ReadMeters'
import { SheetPhases } from './SheetPhases'
import { StepWork } from './StepWork'
import { TopTimers } from './TopTimers'
import { useSheet } from './useSheet'
import { WaitingForOthers } from './WaitingForOthers'

type Props = {
  packed: Packed<SheetPage>
  author: { id: string; name: string }
  /** Whether this person may take in what others cannot send any more. */
  mayTakeIn: boolean
  present: Present
  timeZone: string
  abandon: (input: AbandonInput) => Promise<Outcome>
  /** Old parts that came off and are kept. */
  oldParts?: ReactNode
  openKit: OpenKit | null
  addMoreWork: (input: MoreWorkInput) => Promise<Outcome>
}

/** The sheet at the bench: phases on the left, one thing to do in the middle, positions and parts on the right. */
export function SheetBench({
  packed,
  author,
  mayTakeIn,
  present,
  timeZone,
  abandon,
  oldParts,
  openKit,
  addMoreWork,
}: Props) {
  const sheet = unpack(packed)
  const bench = useSheet(sheet.id, sheet.entries, author, sheet.now)
  const { state } = bench
  const [chosen, setChosen] = useState<Place | null>(null)
  const [more, setMore] = useState<{
    start: { assemblyId: string; task: string; positions: string[] } | null
  } | null>(null)
  const addWork: AddWork = async (input) => {
    await bench.look()
    const outcome = await addMoreWork({ sheetId: sheet.id, seenUpTo: bench.upTo(), ...input }).catch(
      () => null,
    )
    if (!outcome) return 'Atelier cannot be reached: work is added once it can be. Go on with what is there.'
    if (!outcome.ok) return outcome.problem.message
    await bench.look()
    setChosen(null)
    return null
  }
  const next = whereWorkStands(state)
  const place = chosen ?? next
  const step = place.at === 'step' ? state.steps.find((each) => each.step.key === place.key) : undefined
  const go = (to: Place | null) => setChosen(to)
  const notices = [...new Set(state.content.assemblies.map((assembly) => assembly.notice))].filter(Boolean)

  return (
    <MoreWorkContext value={addWork}>
      <main className="bench" id="content">
        <header className="bench-top">
          <div>
            <h1>
              {sheet.machineNumber ? `${sheet.machineNumber} ${sheet.machineName}` : sheet.pumps.join(', ')}
            </h1>
            <p className="second">
              Sheet {visitNumber(sheet.number)} ·{' '}
              {state.content.assemblies.map((assembly) => `${assembly.number} ${assembly.title}`).join(', ')}{' '}
              · {author.name}
            </p>
          </div>
          <div className="bench-status" role="status" aria-live="polite">
            {bench.unkept ? (
              <span className="oxide strong">Not kept on this device</span>
            ) : bench.trouble ? (
              <span className="brass strong">
                {bench.waiting > 0 ? `${bench.waiting} kept on this device` : 'Out of reach'}
              </span>
            ) : bench.waiting > 0 ? (
              <span className="second">sending {bench.waiting} …</span>
            ) : !bench.looked ? (
              <span className="second">looking what waits here …</span>
            ) : (
              <span className="moss strong">All saved</span>
            )}
          </div>
          <TopTimers bench={bench} />
          <PrintButton />
          <AbandonSheet sheet={sheet} abandon={abandon} />
          <LeaveSheet sheet={sheet} bench={bench} />
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
          <TakeUp bench={bench} timeZone={timeZone} />
          {bench.somebodyElse && (
            <Note tone="oxide" title={`${bench.somebodyElse} is signed in on this device now.`}>
              What you tick here stays {author.name}’s and waits for {author.name} to sign in again.{' '}
              <a href={`/sheets/${sheet.id}`}>Load the page again to work as {bench.somebodyElse}</a>
            </Note>
          )}
          <WaitingForOthers
            waiting={bench.others}
            author={author}
            people={sheet.colleagues}
            mayTakeIn={mayTakeIn}
            claim={bench.claim}
            takeIn={bench.takeIn}
          />
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
              sheet={sheet}
              bench={bench}
              step={step}
              timeZone={timeZone}
              before={neighbour(state.steps, step, -1)}
              go={go}
              more={(start) => setMore({ start })}
            />
          )}
          {place.at === 'end' && (
            <EndOfSheet sheet={sheet} bench={bench} openKit={openKit} more={(start) => setMore({ start })} />
          )}
          {notices.map((notice) => (
            <p key={notice} className="second bench-notice">
              {notice}
            </p>
          ))}
        </section>
        <BenchSide
          sheet={sheet}
          bench={bench}
          timeZone={timeZone}
          oldParts={oldParts}
          openKit={openKit}
          more={() => setMore({ start: null })}
        />
        <OnPaper>{() => <PaperSheet sheet={sheet} state={state} />}</OnPaper>
        {more && (
          <MoreWorkDialog
            sheetId={sheet.id}
            start={more.start}
            several={state.content.assemblies.length > 1}
            energised={state.energised}
            onClose={() => setMore(null)}
          />
        )}
      </main>
    </MoreWorkContext>
  )
}

function neighbour(steps: StepState[], step: StepState, by: 1 | -1): Place | null {
  const shown = steps.filter((each) => each.state !== 'notNeeded' && each.state !== 'waiting')
  const found = shown[shown.findIndex((each) => each.step.key === step.step.key) + by]
  return found ? { at: 'step', key: found.step.key } : null
}
