'use client'

import { useState, type ReactNode } from 'react'
import { showAmount, tidy } from '@/core/stores'
import { findingWords } from '@/core/inspection'
import {
  partName,
  usesFor,
  type Expected,
  type SheetEntry,
  type SheetState,
  type BenchPart,
  type SheetPage,
} from '@/core/sheets'
import { Button } from '../../frame/Button'
import { AskDialog } from './AskDialog'
import { BenchPositions } from './BenchPositions'
import { CausesPanel } from './CausesPanel'
import { MeasureDialog } from './MeasureDialog'
import { PartDialog, type OpenKit, type PartStart } from './PartDialog'
import { PhotoButton, PhotoStrip } from './PhotoStrip'
import { SeenElsewhere } from './SeenElsewhere'
import type { SheetHandle } from './useSheet'
import { clockTime } from '../words'
import { Note } from '../../feedback/States'

type Props = {
  sheet: SheetPage
  bench: SheetHandle
  timeZone: string
  oldParts?: ReactNode
  openKit: OpenKit | null
  more: () => void
}

/** What stands beside the work: the positions, what they point to, the parts, photos and remarks. */
export function BenchSide({ sheet, bench, timeZone, oldParts, openKit, more }: Props) {
  const { state } = bench
  const [using, setUsing] = useState<PartStart | null>(null)
  const [dialog, setDialog] = useState<'remark' | 'measure' | 'seen' | null>(null)
  const [first] = state.content.assemblies
  const elsewhereSeen = state.findings.filter(({ payload }) => payload.position === null)
  return (
    <aside className="bench-side" aria-label="Positions and parts">
      {state.content.assemblies.map((assembly) => (
        <BenchPositions
          key={assembly.id}
          assembly={assembly}
          bench={bench}
          wear={sheet.wear.find((view) => view.assemblyId === assembly.id) ?? null}
        />
      ))}
      <CausesPanel bench={bench} />
      <PartsUsed sheet={sheet} bench={bench} open={setUsing} />
      {oldParts}
      <section>
        <div className="bench-pair">
          <Button variant="outlined" onClick={() => setUsing(freePart(first?.id ?? null))}>
            Other part
          </Button>
          <Button variant="outlined" onClick={() => setDialog('remark')}>
            Remark
          </Button>
          <Button variant="outlined" onClick={() => setDialog('measure')}>
            Measure
          </Button>
          <Button variant="outlined" onClick={more}>
            More work
          </Button>
          <Button variant="outlined" onClick={() => setDialog('seen')}>
            Seen elsewhere
          </Button>
          <PhotoButton
            bench={bench}
            about={{ stepKey: null, caption: '', assemblyId: first?.id ?? null, position: null }}
            variant="outlined"
          />
        </div>
      </section>
      {state.photos.length > 0 && <PhotoStrip bench={bench} photos={state.photos} />}
      {state.measures.length > 0 && (
        <section>
          <header>
            <h2>Measured besides</h2>
          </header>
          <ul>
            {state.measures.map((entry) => (
              <li key={entry.id} className="bench-remark">
                {entry.payload.what}:{' '}
                <span className="strong">{`${entry.payload.value}\u00a0${entry.payload.unit}`}</span>{' '}
                <TakeBack bench={bench} of={entry.id} />
              </li>
            ))}
          </ul>
        </section>
      )}
      {elsewhereSeen.length > 0 && (
        <section>
          <header>
            <h2>Seen elsewhere</h2>
          </header>
          <ul>
            {elsewhereSeen.map((entry) => (
              <li key={entry.id} className="bench-remark">
                {partName(state, entry.payload)}{' '}
                <span className="strong">{findingWords(entry.payload.damages, entry.payload.extent)}</span>{' '}
                <TakeBack bench={bench} of={entry.id} />
              </li>
            ))}
          </ul>
        </section>
      )}
      {(state.content.extra ?? []).length > 0 && (
        <section>
          <header>
            <h2>Added on the way</h2>
          </header>
          <ul>
            {state.content.extra!.map((extra) => (
              <li key={extra.at} className="bench-remark">
                {extra.services}{' '}
                <span className="second">
                  {extra.reason} · {extra.byName}
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
      {state.remarks.length > 0 && (
        <section>
          <header>
            <h2>Remarks</h2>
          </header>
          <ul>
            {state.remarks.map((entry) => (
              <li key={entry.id} className="bench-remark">
                <span className="second">
                  {entry.byName}, {clockTime(entry.at, timeZone)}
                </span>{' '}
                {entry.payload.text} <TakeBack bench={bench} of={entry.id} />
              </li>
            ))}
          </ul>
        </section>
      )}
      {using && (
        <PartDialog
          start={using}
          stock={sheet.parts}
          bench={bench}
          openKit={openKit}
          onClose={() => setUsing(null)}
        />
      )}
      {dialog === 'remark' && (
        <AskDialog
          title="Remark"
          fields={[{ name: 'text', label: 'Remark', lines: 4 }]}
          submit="Keep it"
          onClose={() => setDialog(null)}
          send={({ text }) => bench.write('remark', { text: text ?? '' })}
        />
      )}
      {dialog === 'seen' && <SeenElsewhere bench={bench} onClose={() => setDialog(null)} />}
      {dialog === 'measure' && <MeasureDialog sheet={sheet} bench={bench} onClose={() => setDialog(null)} />}
    </aside>
  )
}

function TakeBack({ bench, of }: { bench: SheetHandle; of: string }) {
  return (
    <button
      type="button"
      className="plain-button"
      onClick={() => void bench.write('takeBack', { of, reason: '' })}
    >
      Take back
    </button>
  )
}

/** Expected parts come off stock with one tap, from the lot to use first; a second tap opens what was noted. */
function PartsUsed({
  sheet,
  bench,
  open,
}: {
  sheet: SheetPage
  bench: SheetHandle
  open: (start: PartStart) => void
}) {
  const { state } = bench
  const [error, setError] = useState('')
  const several = state.content.assemblies.length > 1
  const others = state.uses.filter(
    ({ payload }) =>
      !state.content.parts.some(
        (need) => need.assemblyId === payload.assemblyId && need.part === payload.part,
      ),
  )
  return (
    <section>
      <header>
        <h2>Parts used</h2>
        <span className="second">one tap takes it</span>
      </header>
      {error && <Note tone="oxide">{error}</Note>}
      <ul className="bench-parts">
        {state.content.parts.map((need) => {
          const uses = usesOf(state, need)
          const used = tidy(uses.reduce((sum, { payload }) => sum + payload.quantity, 0))
          const pump = state.content.assemblies.find((assembly) => assembly.id === need.assemblyId)
          const start: PartStart = {
            assemblyId: need.assemblyId,
            modelId: pump?.modelId ?? null,
            part: need.part,
            name: need.name,
            unit: need.unit,
            quantity: tidy(Math.max(0, need.quantity - used)) || need.quantity,
            uses,
          }
          const skipped = state.notUsed.find(
            ({ payload }) => payload.assemblyId === need.assemblyId && payload.part === need.part,
          )
          return (
            <li key={`${need.assemblyId} ${need.part}`}>
              <button
                type="button"
                onClick={async () => {
                  if (used > 0) return open(start)
                  const taken = await takeAtOnce(bench, sheet.parts, start)
                  if (taken === 'ask') open(start)
                  else setError(taken ?? '')
                }}
              >
                <PartMark used={used >= need.quantity} />
                <span>
                  {need.name}
                  {several && <span className="second"> {pump?.number}</span>}
                  {used > 0 && <span className="second block">{lotWords(uses)}</span>}
                  {used === 0 && skipped && (
                    <span className="second block">not used: {skipped.payload.reason}</span>
                  )}
                </span>
                <span className="strong num">
                  {used > 0 && used !== need.quantity ? `${showAmount(used, need.unit)} of ` : ''}
                  {showAmount(need.quantity, need.unit)}
                </span>
              </button>
            </li>
          )
        })}
        {others.map((use) => (
          <li key={use.id}>
            <button
              type="button"
              onClick={() =>
                open({
                  assemblyId: use.payload.assemblyId,
                  modelId: null,
                  part: use.payload.part,
                  name: use.payload.name,
                  unit: use.payload.unit,
                  quantity: use.payload.quantity,
                  uses: [use],
                })
              }
            >
              <PartMark used />
              <span>
                {use.payload.name} <span className="second">besides</span>
              </span>
              <span className="strong num">{showAmount(use.payload.quantity, use.payload.unit)}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  )
}

const usesOf = (state: SheetState, need: { assemblyId: string; part: string }) =>
  state.uses.filter(({ payload }) => payload.assemblyId === need.assemblyId && payload.part === need.part)

function lotWords(uses: SheetEntry<'part'>[]): string {
  const lots = uses.map(({ payload }) =>
    payload.partId === null
      ? 'not from the stores'
      : payload.lot
        ? `lot ${payload.lot}`
        : payload.lotId
          ? 'its lot'
          : 'lot not known',
  )
  return [...new Set(lots)].join(', ')
}

/** Notes an expected part with one tap; `ask` where somebody has to say which, or from where. */
export async function takeAtOnce(
  bench: SheetHandle,
  stock: BenchPart[],
  expected: Expected,
): Promise<string | 'ask' | null> {
  const uses = usesFor(stock, expected)
  if (!uses) return 'ask'
  for (const use of uses) {
    const refused = await bench.write('part', use)
    if (refused) return refused
  }
  return null
}

function freePart(assemblyId: string | null): PartStart {
  return { assemblyId, modelId: null, part: null, name: '', unit: 'piece', quantity: 1, uses: [] }
}

function PartMark({ used }: { used: boolean }) {
  return (
    <svg width="18" height="18" viewBox="0 0 18 18" role="img" aria-label={used ? 'used' : 'expected'}>
      {used ? (
        <path d="m3 9.5 4 4 8-9" fill="none" stroke="var(--moss)" strokeWidth="2.2" />
      ) : (
        <rect x="3.5" y="5.5" width="11" height="7" fill="none" stroke="var(--edge)" />
      )}
    </svg>
  )
}
