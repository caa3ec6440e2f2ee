'use client'

import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import { Button } from '../frame/Button'
import { Link } from '../frame/Link'
import { useState } from 'react'
import { showDay } from '@/core/calendar'
import type { Outcome } from '@/core/problem'
import { inSentence, showNumber } from '@/core/units'
import type { MovePartInput, LifeLine, PositionLives, WearView } from '@/core/wear'
import { MovePart } from './MovePart'
import { PositionGrid } from '../graphics/PositionGrid'
import { HeadCell, Table, TableBody, TableCell, TableHead, TableRow } from '../table/Table'

type Props = Pick<WearView, 'assemblyId' | 'grid' | 'columns' | 'unit'> & {
  today: string
  show: (input: { assemblyId: string; position: string }) => Promise<Outcome<PositionLives>>
  /** Null where whoever looks may not. */
  move: ((input: MovePartInput) => Promise<Outcome>) | null
}

/** The position grid whose cells open the lives at that position. */
export function LivesGrid({ assemblyId, grid, columns, unit, today, show, move }: Props) {
  const [open, setOpen] = useState(false)
  const [at, setAt] = useState('')
  const [found, setFound] = useState<PositionLives | null>(null)
  const [error, setError] = useState('')
  const ask = async (position: string) => {
    setFound(null)
    setAt(position)
    setError('')
    setOpen(true)
    const outcome = await show({ assemblyId, position }).catch(() => null)
    if (outcome?.ok) setFound(outcome.data)
    else setError(outcome ? outcome.problem.message : 'Atelier could not be reached. Try again in a moment.')
  }
  return (
    <>
      <PositionGrid grid={grid} columns={columns} unit={unit} open={(position) => void ask(position)} />
      <Dialog
        open={open}
        onClose={() => setOpen(false)}
        maxWidth="md"
        fullWidth
        aria-labelledby="lives-title"
      >
        <DialogTitle id="lives-title">{found ? `Lives at ${inSentence(found.name)}` : 'Lives'}</DialogTitle>
        <DialogContent aria-live="polite">
          {error && <p className="oxide strong">{error}</p>}
          {!found && !error && <p className="second">Looking them up …</p>}
          {found && <LivesTable found={found} today={today} />}
        </DialogContent>
        <DialogActions>
          {found && move && found.others.length > 0 && found.lives[0]?.to === null && (
            <MovePart
              assemblyId={assemblyId}
              position={at}
              found={found}
              today={today}
              move={async (input) => {
                const outcome = await move(input)
                if (outcome.ok) void ask(at)
                return outcome
              }}
            />
          )}
          <Button variant="outlined" onClick={() => setOpen(false)}>
            Close
          </Button>
        </DialogActions>
      </Dialog>
    </>
  )
}

function LivesTable({ found, today }: { found: PositionLives; today: string }) {
  const longest = Math.max(...found.lives.map((life) => life.hours), 1)
  return (
    <Table className="plain">
      <caption className="visually-hidden">Parts that sat at {found.name}, newest first</caption>
      <TableHead>
        <TableRow>
          <HeadCell>Fitted</HeadCell>
          <HeadCell>Came out</HeadCell>
          <HeadCell className="num">Ran</HeadCell>
          <HeadCell>
            <span className="visually-hidden">Beside the longest</span>
          </HeadCell>
          <HeadCell>Why it came out</HeadCell>
          <HeadCell>From</HeadCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {found.lives.map((life) => (
          <TableRow key={life.id}>
            <TableCell className="nowrap">
              {life.assumed && '~'}
              {showDay(life.from, today)}
              {life.cameFrom && <span className="second block">in {life.cameFrom.toLowerCase()}</span>}
              <SheetLink sheet={life.sheet} />
            </TableCell>
            <TableCell className="nowrap">
              {life.to ? showDay(life.to, today) : <span className="moss strong">there now</span>}
              <SheetLink sheet={life.endSheet} />
            </TableCell>
            <TableCell className="num nowrap">
              {life.assumed && '~'}
              {showNumber(Math.round(life.hours))}&nbsp;{found.unit}
              <span className="second block">{showNumber(life.days)} days</span>
            </TableCell>
            <TableCell>
              <svg width="96" height="10" aria-hidden>
                <rect
                  x="0.5"
                  y="0.5"
                  width={Math.max(2, (life.hours / longest) * 95)}
                  height="9"
                  fill={life.to === null ? 'none' : life.failed ? 'var(--oxide)' : 'var(--petrol)'}
                  stroke={life.failed ? 'var(--oxide)' : 'var(--petrol)'}
                />
              </svg>
            </TableCell>
            <TableCell>
              <span className={life.failed ? 'oxide strong' : undefined}>{life.endReason ?? '–'}</span>
              <span className="second block">{detail(life, today)}</span>
            </TableCell>
            <TableCell className="second">
              {life.lot || (life.first ? 'came with the pump, new' : '–')}
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  )
}

const detail = (life: LifeLine, today: string) =>
  [life.seenFailingOn && `first seen failing ${showDay(life.seenFailingOn, today)}`, life.note]
    .filter(Boolean)
    .join(' · ')

function SheetLink({ sheet }: { sheet: LifeLine['sheet'] }) {
  return sheet ? (
    <span className="second block">
      <Link href={`/sheets/${sheet.id}`}>sheet {sheet.number}</Link>
    </span>
  ) : null
}
