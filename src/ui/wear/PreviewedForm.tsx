'use client'

import Dialog from '@mui/material/Dialog'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import { useEffect, useState, type ReactNode } from 'react'
import { useFormContext, type FieldValues } from 'react-hook-form'
import { showFarDay } from '@/core/calendar'
import type { Outcome } from '@/core/problem'
import { showNumber } from '@/core/units'
import type { RuleMove } from '@/core/wear'
import { Button } from '../frame/Button'
import { useToast } from '../feedback/Toasts'
import { EntryForm } from '../forms/EntryForm'
import type { SchemaName } from '../forms/resolver'
import { stateWords } from './words'
import { HeadCell, Table, TableBody, TableCell, TableHead, TableRow } from '../table/Table'

type Props<Values extends FieldValues> = {
  label: string
  title: string
  schema: SchemaName
  start: () => Values
  preview: (values: Values) => Promise<Outcome<RuleMove[]>>
  save: (values: Values) => Promise<Outcome>
  done: string
  unit: string
  today: string
  children: ReactNode
}

/** A form that shows what it would move before it saves: the first press shows, the second saves. */
export function PreviewedForm<Values extends FieldValues>(props: Props<Values>) {
  const { label, title, schema, start, preview, save, done, unit, today, children } = props
  const [values, setValues] = useState<Values | null>(null)
  const [moves, setMoves] = useState<RuleMove[] | null>(null)
  const toast = useToast()
  const close = () => {
    setValues(null)
    setMoves(null)
  }
  const send = async (typed: Values): Promise<Outcome<RuleMove[] | null>> => {
    if (moves === null) return preview(typed)
    const outcome = await save(typed)
    return outcome.ok ? { ok: true, data: null } : outcome
  }
  return (
    <>
      <Button variant="outlined" onClick={() => setValues(start())}>
        {label}
      </Button>
      <Dialog open={values !== null} onClose={close} maxWidth="sm" fullWidth aria-label={title}>
        <DialogTitle>{title}</DialogTitle>
        <DialogContent>
          {values && (
            <EntryForm
              schema={schema}
              values={values}
              action={send}
              onDone={(shown) => {
                if (shown) return setMoves(shown)
                close()
                toast(done)
              }}
              submit={moves === null ? 'Show what it moves' : 'Save it'}
              cancel={
                <Button variant="outlined" onClick={close}>
                  Cancel
                </Button>
              }
            >
              {children}
              <OnChange clear={() => setMoves(null)} />
              {moves && <Moves moves={moves} unit={unit} today={today} />}
            </EntryForm>
          )}
        </DialogContent>
      </Dialog>
    </>
  )
}

/** What was shown holds for what was typed then: any change asks again. */
function OnChange({ clear }: { clear: () => void }) {
  const { watch } = useFormContext()
  useEffect(() => {
    const watching = watch((_values, { type }) => {
      if (type === 'change') clear()
    })
    return () => watching.unsubscribe()
  })
  return null
}

function Moves({ moves, unit, today }: { moves: RuleMove[]; unit: string; today: string }) {
  if (moves.length === 0) return <p className="second">It moves no due day of this pump.</p>
  const amount = (value: number | null, in_: string) =>
    value === null ? 'none' : `${showNumber(value)}\u00a0${in_}`
  const limit = ({ before, after }: RuleMove) =>
    [
      before.hoursLimit !== after.hoursLimit &&
        `${amount(before.hoursLimit, unit)} → ${amount(after.hoursLimit, unit)}`,
      before.daysLimit !== after.daysLimit &&
        `${amount(before.daysLimit, 'days')} → ${amount(after.daysLimit, 'days')}`,
    ]
      .filter(Boolean)
      .join(', ') || 'as before'
  const due = ({ aboutDay, state }: RuleMove['before']) =>
    state === 'over' || state === 'overdue'
      ? stateWords[state]
      : aboutDay === null
        ? 'not in sight'
        : showFarDay(aboutDay, today)
  return (
    <Table className="plain" aria-live="polite">
      <caption className="strong">What it moves</caption>
      <TableHead>
        <TableRow>
          <HeadCell>Service</HeadCell>
          <HeadCell className="num">Limit</HeadCell>
          <HeadCell className="num">Due</HeadCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {moves.map((move) => (
          <TableRow key={`${move.service} ${move.where}`}>
            <TableCell>
              {move.service}
              <span className="second block">{move.where}</span>
            </TableCell>
            <TableCell className="num nowrap">{limit(move)}</TableCell>
            <TableCell className="num nowrap">
              {due(move.before)} → <span className="strong">{due(move.after)}</span>
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  )
}
