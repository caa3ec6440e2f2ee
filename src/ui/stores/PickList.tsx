'use client'

import { useRef, useState } from 'react'
import { v7 as uuid } from 'uuid'
import { showDay } from '@/core/calendar'
import { visitNumber } from '@/core/plan'
import {
  showAmount,
  stockStates,
  tidy,
  type MoveInput,
  type PickInput,
  type PickLine,
  type PickPage,
  type StockAct,
} from '@/core/stores'
import { showNumber } from '@/core/units'
import type { Outcome } from '@/core/problem'
import { Button } from '../frame/Button'
import { useToast } from '../feedback/Toasts'
import { Link } from '../frame/Link'
import { HeadCell, Table, TableBody, TableCell, TableHead, TableRow } from '../table/Table'
import './stores.css'

type Props = {
  list: PickPage
  today: string
  pick: ((input: PickInput) => Promise<Outcome<{ picked: number }>>) | null
  move: ((input: MoveInput) => Promise<Outcome>) | null
  /** The page is about this visit alone. */
  alone?: boolean
}

const words = (problem: { kind: string; message?: string; fields?: Record<string, string> }) =>
  problem.kind === 'invalid' ? Object.values(problem.fields ?? {}).join(' ') : (problem.message ?? '')

/** What to pick for a visit, bin after bin: lots, kits to open, what is short, and what goes along. */
export function PickList({ list, today, pick, move, alone }: Props) {
  const toast = useToast()
  const [busy, setBusy] = useState(false)
  const [fault, setFault] = useState('')
  const id = useRef(uuid())
  const number = visitNumber(list.number)
  const nothing = list.take.length === 0 && list.open.length === 0
  const send = async (input: Omit<PickInput, 'id' | 'visitId'>) => {
    if (!pick) return
    setBusy(true)
    setFault('')
    const outcome = await pick({ ...input, id: id.current, visitId: list.visitId }).catch(() => null)
    setBusy(false)
    if (outcome === null) {
      setFault('Atelier could not be reached. Nothing is lost: try again in a moment.')
      return
    }
    if (outcome.ok) toast(`Laid ready for visit ${number}.`)
    else setFault(words(outcome.problem))
    id.current = uuid()
  }
  const take = ({ lotId, placeId, quantity }: PickLine) => ({ lotId, placeId, quantity })
  const opening = ({ lotId, placeId, pieces }: PickPage['open'][number]) => ({
    lotId,
    placeId,
    pieces: pieces.map(({ partId, quantity }) => ({ partId, quantity })),
  })
  return (
    <section className="part pick-list" aria-label={`Pick list of visit ${number}`}>
      {!alone && (
        <header>
          <h2>
            <Link href={`/stores/picks/${list.visitId}`}>
              Visit {number}: {list.where}
            </Link>
          </h2>
          <span className="second">{[list.startTime, list.yard, list.lead].filter(Boolean).join(' · ')}</span>
        </header>
      )}
      {nothing && list.short.length === 0 && (
        <p className={list.picked.length > 0 ? 'moss strong' : 'second'}>
          {list.picked.length > 0
            ? 'All that it wants is laid ready.'
            : 'It wants nothing out of the stores.'}
        </p>
      )}
      {!nothing && (
        <Table className="plain">
          <caption className="visually-hidden">What to pick for visit {number}, bin after bin</caption>
          <TableHead>
            <TableRow>
              <HeadCell>Bin</HeadCell>
              <HeadCell>Part</HeadCell>
              <HeadCell>Lot</HeadCell>
              <HeadCell className="num">Take</HeadCell>
              {pick && <HeadCell className="no-print">Picked</HeadCell>}
            </TableRow>
          </TableHead>
          <TableBody>
            {list.take.map((line) => (
              <TableRow key={line.key}>
                <TableCell className="nowrap strong">{line.bin || '–'}</TableCell>
                <TableCell>
                  <Link href={`/stores/${encodeURIComponent(line.number)}`} className="strong">
                    {line.number}
                  </Link>{' '}
                  {line.name}
                </TableCell>
                <TableCell>
                  {line.lot}
                  {line.leftOver && <span className="second">, left over: first</span>}
                  {line.expiresOn && (
                    <div className="second">good until {showDay(line.expiresOn, today)}</div>
                  )}
                </TableCell>
                <TableCell className="num strong nowrap">{showAmount(line.quantity, line.unit)}</TableCell>
                {pick && (
                  <TableCell className="no-print">
                    <button
                      type="button"
                      className="plain-button"
                      disabled={busy}
                      aria-label={`Pick ${line.number}, ${line.lot}`}
                      onClick={() => void send({ take: [take(line)], open: [] })}
                    >
                      Pick
                    </button>
                  </TableCell>
                )}
              </TableRow>
            ))}
            {list.open.map((line) => (
              <TableRow key={line.key}>
                <TableCell className="nowrap strong">{line.bin || '–'}</TableCell>
                <TableCell>
                  <span className="brass strong">Open one</span>{' '}
                  <Link href={`/stores/${encodeURIComponent(line.number)}`} className="strong">
                    {line.number}
                  </Link>{' '}
                  {line.name}
                  <div className="second">
                    take out{' '}
                    {line.pieces.map((piece) => `${showNumber(piece.quantity)} × ${piece.number}`).join(', ')}
                    ; the rest is loose stock
                  </div>
                </TableCell>
                <TableCell>
                  {line.lot}
                  {line.expiresOn && (
                    <div className="second">good until {showDay(line.expiresOn, today)}</div>
                  )}
                </TableCell>
                <TableCell className="num strong nowrap">1 kit</TableCell>
                {pick && (
                  <TableCell className="no-print">
                    <button
                      type="button"
                      className="plain-button"
                      disabled={busy}
                      aria-label={`Open ${line.number}, ${line.lot}`}
                      onClick={() => void send({ take: [], open: [opening(line)] })}
                    >
                      Open and pick
                    </button>
                  </TableCell>
                )}
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
      {list.afterOpening.length > 0 && (
        <p className="second">
          Out of what an earlier visit’s kit leaves over:{' '}
          {list.afterOpening
            .map((line) => `${showAmount(line.quantity, line.unit)} × ${line.number} ${line.name}`)
            .join(', ')}
          .
        </p>
      )}
      {fault && (
        <p className="oxide strong" role="alert">
          {fault}
        </p>
      )}
      {!nothing && pick && (
        <div className="actions no-print">
          <Button
            variant="contained"
            disabled={busy}
            onClick={() => void send({ take: list.take.map(take), open: list.open.map(opening) })}
          >
            Pick all of it
          </Button>
        </div>
      )}
      {list.short.some((line) => line.transfers.length > 0) && (
        <>
          <h3>To bring over from another yard</h3>
          <ul className="line-list">
            {list.short
              .filter((line) => line.transfers.length > 0)
              .map((line) => (
                <li key={line.partId}>
                  <span className="grow">
                    <Link href={`/stores/${encodeURIComponent(line.number)}`} className="strong">
                      {line.number}
                    </Link>{' '}
                    {line.name}{' '}
                    <span className="second">
                      {line.transfers
                        .map(
                          (each) =>
                            `${showAmount(each.quantity, line.unit)} of lot ${each.lot}, ${each.place}`,
                        )
                        .join('; ')}
                    </span>
                  </span>
                  <span className="brass strong nowrap">{showAmount(brought(line), line.unit)}</span>
                  {move && <BringOver line={line} yard={list.yard} move={move} />}
                </li>
              ))}
          </ul>
        </>
      )}
      {list.short.some((line) => brought(line) < line.quantity) && (
        <>
          <h3>Short</h3>
          <ul className="line-list">
            {list.short
              .filter((line) => brought(line) < line.quantity)
              .map((line) => (
                <li key={line.partId}>
                  <span className="grow">
                    <Link href={`/stores/${encodeURIComponent(line.number)}`} className="strong">
                      {line.number}
                    </Link>{' '}
                    {line.name}
                    {line.elsewhere.map((each) => (
                      <div key={each} className="second">
                        {each}
                      </div>
                    ))}
                  </span>
                  <span className={`nowrap ${line.inTime ? 'brass' : 'oxide'} strong`}>
                    {showAmount(tidy(line.quantity - brought(line)), line.unit)} short
                    <span className="second block">
                      all there on {showDay(line.earliestDay, today)}
                      {line.inTime ? '' : ', after the visit'}
                    </span>
                  </span>
                </li>
              ))}
          </ul>
        </>
      )}
      {list.unknown.length > 0 && (
        <p className="second">
          Not kept in the stores:{' '}
          {list.unknown.map((line) => `${showAmount(line.quantity, line.unit)} × ${line.name}`).join(', ')}.
        </p>
      )}
      {list.picked.length > 0 && (
        <>
          <h3>Laid ready</h3>
          <ul className="line-list">
            {list.picked.map((line) => (
              <li key={`${line.lotId} ${line.placeId} ${line.state}`}>
                <span className="grow">
                  <span className="strong">{line.number}</span> {line.name}{' '}
                  <span className="second">
                    lot {line.lot}, {stockStates[line.state]}, {line.place}
                  </span>
                </span>
                <span className="strong nowrap">{showAmount(line.quantity, line.unit)}</span>
                {move && <Put line={line} move={move} />}
              </li>
            ))}
          </ul>
        </>
      )}
      {list.spares.length > 0 && (
        <>
          <h3>To take along, in case</h3>
          <ul className="line-list">
            {list.spares.map((line) => (
              <li key={line.name}>
                <span className="grow">
                  {line.name} <span className="second">{line.likely}</span>
                </span>
                <span className="second nowrap">{line.there}</span>
                <span className="nowrap">up to {showAmount(line.quantity, line.unit)}</span>
              </li>
            ))}
          </ul>
        </>
      )}
      {list.consumables.length > 0 && (
        <>
          <h3>Bottles and tubes</h3>
          <ul className="line-list">
            {list.consumables.map((need) => (
              <li key={need.name}>
                <span className="grow">
                  {need.name[0]!.toUpperCase() + need.name.slice(1)}{' '}
                  <span className={need.short ? 'brass strong' : 'second'}>
                    {need.there || 'not kept in the stores'}
                  </span>
                </span>
                <span className="nowrap">{need.amount}</span>
              </li>
            ))}
          </ul>
        </>
      )}
      {list.tools.length > 0 && <p className="second">Tools: {list.tools.join(', ')}.</p>}
    </section>
  )
}

const brought = (line: PickPage['short'][number]) =>
  tidy(line.transfers.reduce((sum, { quantity }) => sum + quantity, 0))

/** What was brought from another yard lies on the shelf of this one from now on. */
function BringOver({
  line,
  yard,
  move,
}: {
  line: PickPage['short'][number]
  yard: string
  move: (input: MoveInput) => Promise<Outcome>
}) {
  const toast = useToast()
  const [busy, setBusy] = useState(false)
  const bring = async () => {
    setBusy(true)
    for (const { lotId, placeId, quantity } of line.transfers) {
      const outcome = await move({
        ...{ id: uuid(), partId: line.partId, lotId, placeId, quantity, toPlaceId: line.toPlaceId },
        ...{ state: 'shelf', visitId: null, act: 'transfer', reason: '' },
      }).catch(() => null)
      if (outcome === null || !outcome.ok) {
        toast(
          outcome === null ? 'Atelier could not be reached. Try again in a moment.' : words(outcome.problem),
        )
        break
      }
      toast(`${line.number} lies in ${yard} now.`)
    }
    setBusy(false)
  }
  return (
    <button
      type="button"
      className="plain-button no-print nowrap"
      disabled={busy}
      aria-label={`It is here: ${line.number}`}
      onClick={() => void bring()}
    >
      It is here
    </button>
  )
}

/** What is laid ready goes to the bench, or comes back. */
function Put({
  line,
  move,
}: {
  line: PickPage['picked'][number]
  move: (input: MoveInput) => Promise<Outcome>
}) {
  const toast = useToast()
  const [busy, setBusy] = useState(false)
  const put = async (act: StockAct, done: string) => {
    setBusy(true)
    const outcome = await move({
      id: uuid(),
      partId: line.partId,
      lotId: line.lotId,
      placeId: line.placeId,
      state: line.state,
      visitId: line.visitId,
      act,
      quantity: line.quantity,
      toPlaceId: '',
      reason: '',
    }).catch(() => null)
    setBusy(false)
    toast(
      outcome === null
        ? 'Atelier could not be reached. Try again in a moment.'
        : outcome.ok
          ? done
          : words(outcome.problem),
    )
  }
  return (
    <span className="nowrap no-print">
      {line.state === 'picked' && (
        <button
          type="button"
          className="plain-button"
          disabled={busy}
          aria-label={`To the bench: ${line.number}`}
          onClick={() => void put('lay', 'At the bench.')}
        >
          To the bench
        </button>
      )}{' '}
      <button
        type="button"
        className="plain-button"
        disabled={busy}
        aria-label={`Bring back: ${line.number}`}
        onClick={() =>
          void (line.state === 'picked'
            ? put('shelve', 'Back on the shelf.')
            : put('bringBack', 'Back: look it over, then shelve it on the part’s page.'))
        }
      >
        Bring back
      </button>
    </span>
  )
}
