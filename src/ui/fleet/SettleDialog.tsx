'use client'

import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import { useState } from 'react'
import { useWatch } from 'react-hook-form'
import { v7 as uuid } from 'uuid'
import { showDay } from '@/core/calendar'
import type { MeterPanel, ReadingLine } from '@/core/fleet/views'
import { judgeReading, settlementSchema, type SettlementInput } from '@/core/hours'
import type { Outcome } from '@/core/problem/outcome'
import { showNumber } from '@/core/units'
import { useToast } from '../feedback/Toasts'
import { FieldRow, RadioEntry, TextEntry } from '../forms/entries'
import { EntryForm } from '../forms/EntryForm'
import type { Option } from '../forms/FieldFrame'
import { verdictWords } from './verdicts'

type Props = {
  meter: MeterPanel
  reading: ReadingLine
  today: string
  settle: (input: SettlementInput) => Promise<Outcome>
  /** What the button that opens it says. */
  label: string
  /** For rows where nothing is wrong: a word rather than a box. */
  quiet?: boolean
}

type Values = {
  decision: string
  readingId: string
  id: string
  typed: string
  day: string
  time: string
  reason: string
  oldLastTyped: string
  newFirstTyped: string
}

/** Settles a reading in doubt, or corrects one: what happened is asked, never assumed. */
export function SettleDialog({ meter, reading, today, settle, label, quiet = false }: Props) {
  const [values, setValues] = useState<Values | null>(null)
  const toast = useToast()
  const { face } = meter
  const show = (value: number) => `${showNumber(value, face.decimals)}\u00a0${face.unit}`
  const verdict = judgeReading(
    { face, ...meter.history, readings: meter.history.readings.filter((other) => other.id !== reading.id) },
    reading,
  )
  const doubted = reading.status === 'doubted'
  const choices: Option[] = [
    { value: 'correct', label: 'It was misread or mistyped: correct it' },
    ...(doubted && verdict.possible ? [{ value: 'vouch', label: 'It is right as it stands' }] : []),
    ...(doubted && verdict.previous && reading.value < verdict.previous.value
      ? [{ value: 'newMeter', label: 'The meter was replaced' }]
      : []),
    ...(doubted && face.digits !== null && verdict.kind === 'rollOver'
      ? [{ value: 'rollOver', label: 'The meter went through zero' }]
      : []),
    { value: 'withdraw', label: 'It does not belong here: withdraw it' },
  ]
  const likely = doubted && ['newMeter', 'rollOver'].includes(verdict.kind) ? verdict.kind : 'correct'
  const open = () =>
    setValues({
      decision: likely,
      readingId: reading.id,
      id: uuid(),
      typed: doubted && verdict.suggestion !== null ? verdict.suggestion.toFixed(face.decimals) : '',
      day: reading.day,
      time: reading.time,
      reason: '',
      oldLastTyped: '',
      newFirstTyped: '0',
    })
  return (
    <>
      <Button
        variant={quiet ? 'text' : 'outlined'}
        className={quiet ? 'row-button' : undefined}
        onClick={open}
      >
        {label}
      </Button>
      <Dialog
        open={values !== null}
        onClose={() => setValues(null)}
        maxWidth="sm"
        fullWidth
        aria-labelledby="settle-title"
      >
        <DialogTitle id="settle-title">
          {show(reading.value)} on {showDay(reading.day, today)}
        </DialogTitle>
        <DialogContent>
          {values && (
            <EntryForm
              schema={settlementSchema}
              values={values}
              action={(typed) => settle(typed as unknown as SettlementInput)}
              onDone={() => {
                setValues(null)
                toast('Settled. The hours have been worked out again.')
              }}
              submit={doubted ? 'Settle it' : 'Save correction'}
              cancel={
                <Button variant="outlined" onClick={() => setValues(null)}>
                  Cancel
                </Button>
              }
            >
              <p>
                <span className="strong">{verdictWords[verdict.kind]}.</span> {verdict.reason}
                {verdict.previous && (
                  <span className="second">
                    {' '}
                    Before it: {show(verdict.previous.value)} on{' '}
                    {showDay(verdict.previous.at.slice(0, 10), today)}.
                  </span>
                )}
              </p>
              <RadioEntry name="decision" label="What happened?" options={choices} />
              <DecisionFields unit={face.unit} />
            </EntryForm>
          )}
        </DialogContent>
      </Dialog>
    </>
  )
}

function DecisionFields({ unit }: { unit: string }) {
  const decision = useWatch({ name: 'decision' }) as string
  return (
    <>
      {decision === 'correct' && (
        <FieldRow>
          <TextEntry name="typed" label="The meter showed" inputMode="decimal" unit={unit} />
          <TextEntry name="day" label="Day" type="date" />
          <TextEntry name="time" label="Time" type="time" />
        </FieldRow>
      )}
      {decision === 'newMeter' && (
        <>
          <FieldRow>
            <TextEntry name="day" label="Replaced on" type="date" />
            <TextEntry name="time" label="Time" type="time" />
          </FieldRow>
          <FieldRow>
            <TextEntry
              name="oldLastTyped"
              label="The old meter showed last"
              inputMode="decimal"
              unit={unit}
              optional
              hint="If nobody noted it, its last reading counts"
            />
            <TextEntry name="newFirstTyped" label="The new one started at" inputMode="decimal" unit={unit} />
          </FieldRow>
        </>
      )}
      <TextEntry
        name="reason"
        label={decision === 'newMeter' || decision === 'rollOver' ? 'Note' : 'Why'}
        optional={decision === 'newMeter' || decision === 'rollOver'}
      />
    </>
  )
}
