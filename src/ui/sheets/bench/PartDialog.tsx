'use client'

import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { v7 as uuid } from 'uuid'
import { problemWords, type Outcome } from '@/core/problem'
import { serves, showAmount, takeFrom, type OpenKitInput, type PartUnit } from '@/core/stores'
import type { SheetEntry, BenchPart } from '@/core/sheets'
import { parseNumber, showNumber } from '@/core/units'
import { Button } from '../../frame/Button'
import { FieldFrame, SelectInput, TextInput } from '../../forms/FieldFrame'
import { BenchDialog } from './BenchDialog'
import type { SheetHandle } from './useSheet'

/** What the dialog starts with: an expected part, one used already, or nothing yet. */
export type PartStart = {
  assemblyId: string | null
  modelId: string | null
  part: string | null
  name: string
  unit: PartUnit
  quantity: number
  uses: SheetEntry<'part'>[]
}

export type OpenKit = (input: OpenKitInput) => Promise<Outcome<{ lots: number[] }>>

type Props = {
  start: PartStart
  stock: BenchPart[]
  bench: SheetHandle
  /** Opens a kit that holds the part; null for who may not. */
  openKit: OpenKit | null
  onClose: () => void
}

const elsewhere = 'elsewhere'
const byTheBook = 'byTheBook'
const notKnown = 'notKnown'

/** @example "2 from lot 12, then 1 from lot 31" */
function shareWords(part: BenchPart, shares: ReturnType<typeof takeFrom>): string {
  return shares
    .map(({ lotId, quantity }) => {
      const lot = part.lots.find((each) => each.id === lotId)
      return `${showAmount(quantity, part.unit)} from ${lot ? lot.label.split(',')[0] : 'a lot not known'}`
    })
    .join(', then ')
}

/** Notes a part that was used: which one of the stores, from which lot, how much; or takes one back. */
export function PartDialog({ start, stock, bench, openKit, onClose }: Props) {
  const fitting = stock.filter((part) => serves(part, start))
  const free = start.part === null
  const offered = free ? stock : fitting
  const [partId, setPartId] = useState(fitting[0]?.id ?? (free ? '' : elsewhere))
  const [lotId, setLotId] = useState(byTheBook)
  const [name, setName] = useState(start.name)
  const [quantity, setQuantity] = useState(showNumber(start.quantity))
  const [error, setError] = useState<{ field: 'part' | 'name' | 'quantity'; words: string } | null>(null)
  const part = stock.find((each) => each.id === partId)
  const unit = part?.unit ?? start.unit
  const chosen = part?.lots.find((each) => each.id === lotId)
  const parsed = parseNumber(quantity, 3)
  const wanted = parsed.ok && parsed.value > 0 ? parsed.value : 0
  // Nothing chosen: the lot to use first, then the next, as the book has them.
  const shares =
    part && lotId === byTheBook
      ? takeFrom(part.lots, wanted)
      : [{ lotId: chosen?.id ?? null, quantity: wanted }]
  const held = lotId === byTheBook ? (part?.onHand ?? 0) : (chosen?.onHand ?? 0)

  const use = async () => {
    if (partId === '')
      return setError({ field: 'part', words: 'Choose a part of the stores, or “not from the stores”.' })
    if (!part && name.trim() === '') return setError({ field: 'name', words: 'Say what was used.' })
    if (!parsed.ok) return setError({ field: 'quantity', words: parsed.reason })
    if (parsed.value <= 0) return setError({ field: 'quantity', words: 'Enter more than 0.' })
    if (unit === 'piece' && !Number.isInteger(parsed.value))
      return setError({ field: 'quantity', words: 'Pieces are used whole.' })
    for (const share of shares) {
      const refused = await bench.write('part', {
        partId: part?.id ?? null,
        lotId: share.lotId,
        name: part?.name ?? name.trim(),
        unit,
        quantity: share.quantity,
        assemblyId: start.assemblyId,
        part: start.part,
      })
      if (refused) return setError({ field: 'quantity', words: refused })
    }
    onClose()
  }

  return (
    <BenchDialog
      title={start.name === '' ? 'Part used' : start.name}
      label="Part used"
      size="xs"
      onClose={onClose}
      submit={{ words: 'Used', run: use }}
    >
      {start.uses.map((entry) => (
        <p key={entry.id} className="used-line">
          <span>
            {showAmount(entry.payload.quantity, entry.payload.unit)} noted by {entry.byName}
          </span>
          <button
            type="button"
            className="plain-button"
            onClick={() => {
              void bench.write('takeBack', { of: entry.id, reason: '' })
              onClose()
            }}
          >
            Take back
          </button>
        </p>
      ))}
      <FieldFrame id="part-choice" label="Part" error={error?.field === 'part' ? error.words : ''}>
        <SelectInput
          id="part-choice"
          placeholder={free ? 'Choose a part' : undefined}
          options={[
            ...offered.map((each) => ({
              value: each.id,
              label: `${each.number} ${each.name}${each.bin ? `, bin ${each.bin}` : ''}, ${showAmount(each.onHand, each.unit)} on hand`,
            })),
            { value: elsewhere, label: 'Not from the stores' },
          ]}
          value={partId}
          onChange={(event) => {
            setPartId(event.target.value)
            setLotId(byTheBook)
          }}
        />
      </FieldFrame>
      {part && (
        <FieldFrame
          id="part-lot"
          label="Lot"
          hint={
            part.lots.length === 0
              ? 'None on hand by the book: using it will ask to count this bin'
              : undefined
          }
          error={chosen?.expired ? 'This lot has expired. Use it only if the maker’s manual allows it.' : ''}
        >
          <SelectInput
            id="part-lot"
            options={[
              ...(part.lots.some((each) => !each.expired)
                ? [{ value: byTheBook, label: shareWords(part, takeFrom(part.lots, wanted || 1)) }]
                : []),
              ...part.lots.map((each) => ({ value: each.id, label: each.label })),
              { value: notKnown, label: 'lot not known' },
            ]}
            value={lotId === byTheBook && !part.lots.some((each) => !each.expired) ? notKnown : lotId}
            onChange={(event) => setLotId(event.target.value)}
          />
        </FieldFrame>
      )}
      {part && openKit && part.kits.length > 0 && (
        <KitsWithIt key={part.id} part={part} openKit={openKit} onOpened={() => setLotId(byTheBook)} />
      )}
      {!part && partId === elsewhere && (
        <FieldFrame id="part-name" label="What was used" error={error?.field === 'name' ? error.words : ''}>
          <TextInput id="part-name" value={name} onChange={(event) => setName(event.target.value)} />
        </FieldFrame>
      )}
      <FieldFrame
        id="part-quantity"
        label="How much"
        error={error?.field === 'quantity' ? error.words : ''}
        hint={
          part && parsed.ok && parsed.value > held
            ? `More than the book has there: it is noted all the same, and this bin wants counting`
            : undefined
        }
      >
        <TextInput
          id="part-quantity"
          value={quantity}
          onChange={(event) => setQuantity(event.target.value)}
          autoComplete="off"
          inputProps={{ inputMode: 'decimal' }}
          endAdornment={<span className="unit">{unit === 'piece' ? 'pieces' : unit}</span>}
        />
      </FieldFrame>
    </BenchDialog>
  )
}

/** The unopened kits that hold a part, each to be opened here: its pieces are lots to take from at once. */
function KitsWithIt({
  part,
  openKit,
  onOpened,
}: {
  part: BenchPart
  openKit: OpenKit
  onOpened: () => void
}) {
  const router = useRouter()
  const [said, setSaid] = useState<{ ok: boolean; words: string } | null>(null)
  // Sent once more after a cut connection, it is the same act.
  const [acts] = useState(() => new Map<string, string>())
  const open = async (kit: BenchPart['kits'][number]) => {
    const key = `${kit.lotId} ${kit.placeId}`
    const id = acts.get(key) ?? uuid()
    acts.set(key, id)
    const outcome = await openKit({ id, lotId: kit.lotId, placeId: kit.placeId }).catch(() => null)
    if (!outcome) return setSaid({ ok: false, words: 'Opening a kit needs the server: it does not answer.' })
    if (!outcome.ok) return setSaid({ ok: false, words: problemWords(outcome.problem) })
    acts.delete(key)
    onOpened()
    setSaid({ ok: true, words: `Opened: its pieces are lots ${outcome.data.lots.join(', ')}.` })
    router.refresh()
  }
  return (
    <div className="stack-tight">
      {part.kits.map((kit) => (
        <p key={`${kit.lotId} ${kit.placeId}`} className="used-line">
          <span>
            {showAmount(kit.holds, part.unit)} in an unopened {kit.label}
          </span>
          <Button variant="outlined" aria-label={`Open ${kit.label}`} onClick={() => void open(kit)}>
            Open it
          </Button>
        </p>
      ))}
      {said && (
        <p role={said.ok ? 'status' : 'alert'} className={said.ok ? 'second' : 'oxide strong'}>
          {said.words}
        </p>
      )}
    </div>
  )
}
