'use client'

import Dialog from '@mui/material/Dialog'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import { useState } from 'react'
import { useWatch } from 'react-hook-form'
import { v7 as uuid } from 'uuid'
import { showDay } from '@/core/calendar'
import type { MeterPanel, ReadingLine } from '@/core/fleet'
import { judgeReading, presumedChange, type SettlementInput } from '@/core/hours'
import type { Outcome } from '@/core/problem'
import { showNumber } from '@/core/units'
import { Button } from '../frame/Button'
import { useToast } from '../feedback/Toasts'
import { ChoiceEntry, FieldRow, RadioEntry, TextEntry } from '../forms/entries'
import { EntryForm } from '../forms/EntryForm'
import type { Option } from '../forms/FieldFrame'
import { unpack, type Packed } from '../frame/packed'
import { verdictWords } from './verdicts'

type Props = {
  packed: Packed<MeterPanel>
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
  oldLast: string
  oldLastTyped: string
  newFirstTyped: string
  digits: string
  meterEvent: string
}

/** Settles a reading in doubt, or corrects one: what happened is asked, never assumed. */
export function SettleDialog({ packed, reading, today, settle, label, quiet = false }: Props) {
  const [open, setOpen] = useState(false)
  const close = () => setOpen(false)
  const show = showIn(unpack(packed).face)
  return (
    <>
      <Button
        variant={quiet ? 'text' : 'outlined'}
        className={quiet ? 'row-button' : undefined}
        onClick={() => setOpen(true)}
      >
        {label}
      </Button>
      {open && (
        <Dialog open onClose={close} maxWidth="sm" fullWidth aria-labelledby="settle-title">
          <DialogTitle id="settle-title">
            {show(reading.value)} on {showDay(reading.day, today)}
          </DialogTitle>
          <DialogContent>
            <SettleForm packed={packed} reading={reading} today={today} settle={settle} onClose={close} />
          </DialogContent>
        </Dialog>
      )}
    </>
  )
}

const showIn = (face: MeterPanel['face']) => (value: number) =>
  `${showNumber(value, face.decimals)}\u00a0${face.unit}`

function SettleForm({
  packed,
  reading,
  today,
  settle,
  onClose,
}: Omit<Props, 'label' | 'quiet'> & { onClose: () => void }) {
  const toast = useToast()
  const meter = unpack(packed)
  const { face } = meter
  const show = showIn(face)
  const history = {
    face,
    ...meter.history,
    readings: meter.history.readings.filter((other) => other.id !== reading.id),
  }
  const verdict = judgeReading(history, reading)
  const change = presumedChange(history, reading, 0)
  const fellBack =
    verdict.previous !== null && verdict.next === null && reading.value < verdict.previous.value
  const doubted = reading.status === 'doubted'
  const choices: Option[] = [
    { value: 'correct', label: 'It was misread or mistyped: correct it' },
    ...(doubted && verdict.possible ? [{ value: 'vouch', label: 'It is right as it stands' }] : []),
    ...(doubted && verdict.previous && reading.value < verdict.previous.value
      ? [{ value: 'newMeter', label: 'The meter was replaced' }]
      : []),
    ...(doubted && fellBack && (face.digits === null || verdict.kind === 'rollOver')
      ? [{ value: 'rollOver', label: 'The meter went through zero' }]
      : []),
    { value: 'withdraw', label: 'It does not belong here: withdraw it' },
  ]
  const likely = doubted && ['newMeter', 'rollOver'].includes(verdict.kind) ? verdict.kind : 'correct'
  // As it stood when it was opened: what is typed stays, whatever becomes of the page behind it.
  const [values] = useState<Values>(() => ({
    decision: likely,
    readingId: reading.id,
    id: uuid(),
    typed: doubted && verdict.suggestion !== null ? verdict.suggestion.toFixed(face.decimals) : '',
    // A new meter was fitted before it was found: by its use since the last reading, about then.
    ...(likely === 'newMeter' && change
      ? earlier(reading, Date.parse(reading.at) - Date.parse(change.at))
      : { day: reading.day, time: reading.time }),
    reason: '',
    oldLast: change ? 'estimate' : 'none',
    oldLastTyped: '',
    newFirstTyped: change ? '0' : String(reading.value.toFixed(face.decimals)),
    digits: String(verdict.previous ? Math.trunc(verdict.previous.value).toString().length : ''),
    meterEvent: '',
  }))
  return (
    <EntryForm
      schema="settlementSchema"
      values={values}
      action={(typed) => settle(typed as unknown as SettlementInput)}
      onDone={() => {
        onClose()
        toast('Settled. The hours have been worked out again.')
      }}
      submit={doubted ? 'Settle it' : 'Save correction'}
      cancel={
        <Button variant="outlined" onClick={onClose}>
          Cancel
        </Button>
      }
    >
      <p>
        <span className="strong">{verdictWords[verdict.kind]}.</span> {verdict.reason}
        {verdict.previous && (
          <span className="second">
            {' '}
            Before it: {show(verdict.previous.value)} on {showDay(verdict.previous.at.slice(0, 10), today)}.
          </span>
        )}
      </p>
      <RadioEntry name="decision" label="What happened?" options={choices} />
      <DecisionFields
        unit={face.unit}
        estimate={change && show(change.lastValue)}
        asksDigits={face.digits === null}
        tells={reading.tells}
      />
    </EntryForm>
  )
}

/** A day and time on the same clock, so much earlier. */
function earlier({ day, time }: { day: string; time: string }, ms: number): { day: string; time: string } {
  const face = new Date(Date.parse(`${day}T${time}:00Z`) - ms).toISOString()
  return { day: face.slice(0, 10), time: face.slice(11, 16) }
}

const whatHappened = { change: 'the meter was replaced', rollOver: 'the meter went through zero' } as const

type FieldProps = {
  unit: string
  /** What the old meter will have shown by its use; null where nothing was read before. */
  estimate: string | null
  asksDigits: boolean
  tells: ReadingLine['tells']
}

function DecisionFields({ unit, estimate, asksDigits, tells }: FieldProps) {
  const [decision, oldLast] = useWatch({ name: ['decision', 'oldLast'] }) as [string, string]
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
            <TextEntry
              name="day"
              label="Replaced on"
              type="date"
              hint="Presumed from its use: change it if you know"
            />
            <TextEntry name="time" label="Time" type="time" />
          </FieldRow>
          <FieldRow>
            <TextEntry name="newFirstTyped" label="The new one started at" inputMode="decimal" unit={unit} />
          </FieldRow>
          <RadioEntry
            name="oldLast"
            label="What did the old one show last?"
            options={[
              { value: 'read', label: 'Somebody read it' },
              ...(estimate === null
                ? []
                : [
                    {
                      value: 'estimate',
                      label: `Nobody read it: reckon with about ${estimate}, by its use on that day. It is marked as an estimate`,
                    },
                  ]),
              {
                value: 'none',
                label: 'Nobody read it: its last reading counts, and what it ran after that is lost',
              },
            ]}
          />
          {oldLast === 'read' && (
            <TextEntry
              name="oldLastTyped"
              label="The old meter showed last"
              inputMode="decimal"
              unit={unit}
            />
          )}
        </>
      )}
      {decision === 'rollOver' && asksDigits && (
        <TextEntry
          name="digits"
          label="Digits before the point"
          inputMode="numeric"
          hint="How many digits this meter has: it goes from all nines to zero"
        />
      )}
      {tells !== null && (decision === 'correct' || decision === 'withdraw') && (
        <ChoiceEntry
          name="meterEvent"
          label={`This reading told that ${whatHappened[tells]}`}
          options={[
            { value: '', label: 'Let the readings decide whether that stands' },
            { value: 'goes', label: 'That was wrong as well: take it back with it' },
            { value: 'stays', label: 'That is true all the same' },
          ]}
        />
      )}
      <TextEntry
        name="reason"
        label={decision === 'newMeter' || decision === 'rollOver' ? 'Note' : 'Why'}
        optional={decision === 'newMeter' || decision === 'rollOver'}
      />
    </>
  )
}
