'use client'

import { useEffect, useId, useRef, useState } from 'react'
import { v7 as uuid } from 'uuid'
import {
  judgeCount,
  showAmount,
  type CountVerdict,
  type StocktakeInput,
  type StocktakeLine,
} from '@/core/stores'
import { parseNumber, showMoney } from '@/core/units'
import type { Outcome } from '@/core/problem'
import { Button } from '../frame/Button'
import { Note } from '../feedback/States'
import { useToast } from '../feedback/Toasts'
import { FieldFrame, TextInput } from '../forms/FieldFrame'
import { holdUnsaved } from '../frame/unsaved'
import { HeadCell, Table, TableBody, TableCell, TableHead, TableRow } from '../table/Table'
import './stores.css'

type Props = {
  placeId: string
  lines: StocktakeLine[]
  currency: string
  keep:
    ((input: StocktakeInput) => Promise<Outcome<{ counted: number; changed: number; cents: number }>>) | null
}

type Typed = { text: string; sure: boolean }

/** What is thought of a count as it stands typed. */
function verdictOf(line: StocktakeLine, text: string): CountVerdict {
  if (text.trim() === '') return { state: 'blank' }
  const parsed = parseNumber(text, line.unit === 'piece' ? 0 : 3)
  return parsed.ok ? judgeCount(parsed.value, line) : { state: 'fault', words: parsed.reason }
}

/** A round through the bins by keyboard: each count is judged as it is typed, and all are kept at once. */
export function StocktakeRound({ placeId, lines, currency, keep }: Props) {
  const toast = useToast()
  const [typed, setTyped] = useState<Record<string, Typed>>({})
  const [reason, setReason] = useState('Stocktake')
  const [faults, setFaults] = useState<Record<string, string>>({})
  const [fault, setFault] = useState('')
  const [busy, setBusy] = useState(false)
  const [done, setDone] = useState('')
  const list = useRef<HTMLDivElement>(null)
  const id = useRef(uuid())
  const name = useId()
  const of = (lotId: string): Typed => typed[lotId] ?? { text: '', sure: false }
  const counted = lines.filter((line) => of(line.lotId).text.trim() !== '')
  const isDirty = counted.length > 0

  useEffect(() => {
    if (!isDirty) return
    const warn = (event: BeforeUnloadEvent) => event.preventDefault()
    const letGo = holdUnsaved(name)
    window.addEventListener('beforeunload', warn)
    return () => {
      letGo()
      window.removeEventListener('beforeunload', warn)
    }
  }, [isDirty, name])

  const set = (lotId: string, change: Partial<Typed>) => {
    setTyped((known) => ({
      ...known,
      [lotId]: { ...(known[lotId] ?? { text: '', sure: false }), ...change },
    }))
    setFaults(({ [lotId]: _gone, ...rest }) => rest)
    setDone('')
  }
  const goFrom = (at: number, step: 1 | -1) => {
    const inputs = list.current?.querySelectorAll<HTMLInputElement>('input[data-count]')
    const next = inputs?.[at + step]
    if (next) {
      next.focus()
      next.select()
    } else if (step === 1) list.current?.querySelector<HTMLElement>('[data-keep]')?.focus()
  }
  const open = counted.filter((line) => {
    const { text, sure } = of(line.lotId)
    const { state } = verdictOf(line, text)
    return state === 'fault' || (state === 'doubted' && !sure)
  })
  const send = async () => {
    if (!keep) return
    setBusy(true)
    setFault('')
    const sent = lines.map((line) => ({
      partId: line.partId,
      lotId: line.lotId,
      counted: (of(line.lotId).text.trim() === '' ? null : of(line.lotId).text) as never,
      sure: of(line.lotId).sure,
    }))
    const outcome = await keep({ id: id.current, placeId, reason, lines: sent }).catch(() => null)
    setBusy(false)
    if (outcome === null) {
      setFault('Atelier could not be reached. What you typed is still here: try again in a moment.')
      return
    }
    if (!outcome.ok) {
      if (outcome.problem.kind !== 'invalid') {
        setFault(outcome.problem.message)
        return
      }
      const own: Record<string, string> = {}
      const rest: string[] = []
      for (const [field, message] of Object.entries(outcome.problem.fields)) {
        const at = /^lines\.(\d+)\./.exec(field)?.[1]
        if (at === undefined) rest.push(message)
        else own[lines[Number(at)]!.lotId] = message
      }
      setFaults(own)
      setFault(rest.join(' '))
      return
    }
    const { counted: count, changed, cents } = outcome.data
    const words = `${count} counted, ${changed} changed${changed > 0 ? `, ${cents > 0 ? '+' : ''}${showMoney(cents, currency)} in all` : ''}.`
    setTyped({})
    setDone(words)
    id.current = uuid()
    toast(words)
  }
  return (
    <div ref={list} className="stack">
      {done && (
        <Note tone="moss" title="Kept.">
          {done}
        </Note>
      )}
      <Table className="plain">
        <caption className="visually-hidden">Bins to count</caption>
        <TableHead>
          <TableRow>
            <HeadCell>Bin</HeadCell>
            <HeadCell>Part</HeadCell>
            <HeadCell>Lot</HeadCell>
            <HeadCell className="num">By the book</HeadCell>
            <HeadCell className="num">There are</HeadCell>
            <HeadCell>Verdict</HeadCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {lines.map((line, at) => {
            const { text, sure } = of(line.lotId)
            const verdict = verdictOf(line, text)
            return (
              <TableRow key={line.lotId}>
                <TableCell className="nowrap strong">
                  {at > 0 && lines[at - 1]!.bin === line.bin ? '' : line.bin || '–'}
                </TableCell>
                <TableCell>
                  <span className="strong">{line.number}</span> {line.name}
                </TableCell>
                <TableCell className="second">
                  {line.lot} {line.code}
                  {line.expired && <span className="brass"> expired</span>}
                </TableCell>
                <TableCell className="num nowrap">
                  {showAmount(line.onHand, line.unit)}
                  {line.taken > 0 && (
                    <div className="second">{showAmount(line.taken, line.unit)} taken on open sheets</div>
                  )}
                </TableCell>
                <TableCell className="num">
                  <TextInput
                    id={`count-${line.lotId}`}
                    className="count-input"
                    value={text}
                    disabled={!keep}
                    autoComplete="off"
                    error={verdict.state === 'fault' || Boolean(faults[line.lotId])}
                    onChange={(event) => set(line.lotId, { text: event.target.value, sure: false })}
                    onKeyDown={(event) => {
                      if (event.key === 'Enter' || event.key === 'ArrowDown') {
                        event.preventDefault()
                        // Shift and Enter says that a doubted count is so.
                        if (event.key === 'Enter' && verdict.state === 'doubted' && !sure && event.shiftKey)
                          set(line.lotId, { sure: true })
                        goFrom(at, 1)
                      } else if (event.key === 'ArrowUp') {
                        event.preventDefault()
                        goFrom(at, -1)
                      }
                    }}
                    inputProps={{
                      inputMode: 'decimal',
                      'data-count': '',
                      'aria-label': `There are of ${line.number}, lot ${line.lot}`,
                    }}
                  />
                </TableCell>
                <TableCell>
                  <Verdict
                    line={line}
                    verdict={verdict}
                    sure={sure}
                    currency={currency}
                    fault={faults[line.lotId] ?? ''}
                    onSure={() => set(line.lotId, { sure: true })}
                    onInstead={(instead) => set(line.lotId, { text: String(instead), sure: false })}
                  />
                </TableCell>
              </TableRow>
            )
          })}
        </TableBody>
      </Table>
      {keep && (
        <div className="round-foot">
          <FieldFrame id="stocktake-reason" label="What the count is for">
            <TextInput
              id="stocktake-reason"
              value={reason}
              onChange={(event) => setReason(event.target.value)}
            />
          </FieldFrame>
          <span className="grow">
            {counted.length} of {lines.length} counted
            {open.length > 0 && <span className="brass">, {open.length} to look at again</span>}
          </span>
          <Button
            variant="contained"
            data-keep=""
            disabled={busy || counted.length === 0 || open.length > 0}
            onClick={() => void send()}
          >
            Set the book right
          </Button>
        </div>
      )}
      {fault && (
        <p className="oxide strong" role="alert">
          {fault}
        </p>
      )}
    </div>
  )
}

function Verdict({
  line,
  verdict,
  sure,
  currency,
  fault,
  onSure,
  onInstead,
}: {
  line: StocktakeLine
  verdict: CountVerdict
  sure: boolean
  currency: string
  fault: string
  onSure: () => void
  onInstead: (instead: number) => void
}) {
  if (fault && verdict.state !== 'doubted')
    return (
      <span className="oxide" role="alert">
        {fault}
      </span>
    )
  if (verdict.state === 'blank') return null
  if (verdict.state === 'fault')
    return (
      <span className="oxide" role="alert">
        {verdict.words}
      </span>
    )
  if (verdict.state === 'fits') return <span className="moss">as the book says</span>
  const difference = `${verdict.difference > 0 ? '+' : ''}${showAmount(verdict.difference, line.unit)}, ${showMoney(verdict.cents, currency)}`
  if (verdict.state === 'differs' || sure) return <span className="brass">{difference}</span>
  return (
    <span role="status">
      <span className="brass strong">{verdict.words}</span>{' '}
      {verdict.instead !== null && (
        <button type="button" className="plain-button" onClick={() => onInstead(verdict.instead!)}>
          {showAmount(verdict.instead, line.unit)} it is
        </button>
      )}{' '}
      <button
        type="button"
        className="plain-button"
        aria-label={`${line.number}, lot ${line.lot}: it is so`}
        onClick={onSure}
      >
        It is so
      </button>
    </span>
  )
}
