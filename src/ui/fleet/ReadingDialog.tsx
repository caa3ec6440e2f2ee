'use client'

import Dialog from '@mui/material/Dialog'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import { useState } from 'react'
import { useFormContext, useWatch } from 'react-hook-form'
import { v7 as uuid } from 'uuid'
import { daysBetween, showAge } from '@/core/calendar'
import type { MeterPanel } from '@/core/fleet'
import { isAcceptedAtOnce, judgeTyped, type ReadingInput, type Verdict } from '@/core/hours'
import type { Outcome } from '@/core/problem'
import { showNumber } from '@/core/units'
import { Button } from '../frame/Button'
import { Note } from '../feedback/States'
import { useToast } from '../feedback/Toasts'
import { ChoiceEntry, FieldRow, TextEntry } from '../forms/entries'
import { EntryForm } from '../forms/EntryForm'
import { unpack, type Packed } from '../frame/packed'
import { ReadingBand } from '../graphics/ReadingBand'
import { verdictWords } from './verdicts'

export type Present = { instant: string; today: string; time: string }
type Recorded = { id: string; status: 'accepted' | 'doubted' | 'superseded'; verdict: Verdict; shown: string }

type Props = {
  machineNumber: string
  packed: Packed<MeterPanel>[]
  present: Present
  reader: string
  record: (input: ReadingInput) => Promise<Outcome<Recorded>>
  withdraw: (readingId: string) => Promise<Outcome>
}

/** Enter what a meter shows: judged as it is typed, never refused for being doubtful. */
export function ReadingDialog({ machineNumber, packed, present, reader, record, withdraw }: Props) {
  const meters = packed.map(unpack)
  const [open, setOpen] = useState(false)
  const toast = useToast()
  const [values, setValues] = useState<ReadingInput | null>(null)
  /** Somebody else was quicker and this person was told: saving again keeps both. */
  const [told, setTold] = useState(false)
  const save = async (input: ReadingInput): Promise<Outcome<Recorded>> => {
    const meter = meters.find((each) => each.id === input.meterId)
    const seenLast = meter?.readings.find((reading) => reading.status !== 'superseded')?.at ?? ''
    const outcome = await record(told ? input : { ...input, seenLast })
    if (!outcome.ok && outcome.problem.kind === 'conflict') setTold(true)
    return outcome
  }
  const start = () => {
    setValues({
      id: uuid(),
      meterId: meters[0]?.id ?? '',
      day: present.today,
      time: present.time,
      typed: '',
      readBy: reader,
      note: '',
      vouched: false,
    })
    setTold(false)
    setOpen(true)
  }
  const done = (recorded: Recorded) => {
    setOpen(false)
    const words =
      recorded.status === 'doubted' ? 'is kept in doubt and counts once it is settled.' : 'is recorded.'
    toast(`${machineNumber}: ${recorded.shown} ${words}`, async () => {
      const outcome = await withdraw(recorded.id)
      toast(outcome.ok ? `${machineNumber}: the reading was taken back.` : outcome.problem.message)
    })
  }
  return (
    <>
      <Button variant="contained" onClick={start} disabled={meters.length === 0}>
        Add reading
      </Button>
      <Dialog
        open={open}
        onClose={() => setOpen(false)}
        maxWidth="sm"
        fullWidth
        aria-labelledby="reading-title"
      >
        <DialogTitle id="reading-title">Reading of {machineNumber}</DialogTitle>
        <DialogContent>
          {values && (
            <EntryForm
              key={values.id}
              schema="readingSchema"
              values={values}
              action={save}
              onDone={done}
              submit="Save reading"
              cancel={
                <Button variant="outlined" onClick={() => setOpen(false)}>
                  Cancel
                </Button>
              }
            >
              {meters.length > 1 && (
                <ChoiceEntry
                  name="meterId"
                  label="Meter"
                  options={meters.map((meter) => ({ value: meter.id, label: meter.name }))}
                />
              )}
              <MeterShows meters={meters} present={present} />
              <FieldRow>
                <TextEntry name="day" label="Day" type="date" />
                <TextEntry name="time" label="Time" type="time" />
                <TextEntry name="readBy" label="Read by" />
              </FieldRow>
              <TextEntry name="note" label="Note" optional />
            </EntryForm>
          )}
        </DialogContent>
      </Dialog>
    </>
  )
}

/** The value, and beside it, before and while it is typed, what would be plausible. */
function MeterShows({ meters, present }: { meters: MeterPanel[]; present: Present }) {
  const { setValue } = useFormContext<ReadingInput>()
  const [meterId, typed, day, time, vouched] = useWatch<ReadingInput>({
    name: ['meterId', 'typed', 'day', 'time', 'vouched'],
  }) as [string, string, string, string, boolean]
  const meter = meters.find((each) => each.id === meterId) ?? meters[0]
  if (!meter) return null
  const { face } = meter
  const at = instantNear(day, time, present)
  const judged = at ? judgeTyped(typed, { face, ...meter.history }, at) : null
  const value = judged?.value ?? null
  const verdict = judged?.verdict ?? null
  const use = (amount: number) =>
    setValue('typed', amount.toFixed(face.decimals), { shouldDirty: true, shouldValidate: true })
  const show = (amount: number) => `${showNumber(amount, face.decimals)}\u00a0${face.unit}`
  const last = meter.readings.find((reading) => reading.status === 'accepted')
  const doubtful = value !== null && verdict && !isAcceptedAtOnce(verdict.kind)
  return (
    <div className="stack-tight">
      <FieldRow>
        <div className="big-input">
          <TextEntry
            name="typed"
            label={`${meter.name}: the meter shows`}
            inputMode="decimal"
            unit={face.unit}
            autoFocus
            onInput={() => setValue('vouched', false)}
          />
        </div>
        <div className="reading-context">
          {last ? (
            <p>
              Last reading <span className="strong">{show(last.value)}</span>
              <br />
              <span className="second">
                {showAge(last.day, present.today)}
                {last.readBy && `, ${last.readBy}`}
              </span>
            </p>
          ) : (
            <p className="second">This meter was never read.</p>
          )}
          {verdict?.band && (
            <p className="second">
              Expect {show(verdict.band.low)} to {show(verdict.band.high)}
            </p>
          )}
        </div>
      </FieldRow>
      {verdict?.band && verdict.previous && (
        <ReadingBand
          previous={verdict.previous.value}
          low={verdict.band.low}
          high={verdict.band.high}
          value={value}
          suggestion={value === null ? null : verdict.suggestion}
          kind={value === null ? null : verdict.kind}
          says={
            value === null
              ? `Expected ${show(verdict.band.low)} to ${show(verdict.band.high)}.`
              : verdict.reason
          }
        />
      )}
      <div aria-live="polite">
        {value !== null && verdict && !doubtful && (
          <p className="moss strong">
            {verdictWords[verdict.kind]}
            {verdict.used !== null && verdict.used >= 0 && `, +${show(verdict.used)}`}
          </p>
        )}
        {judged?.refusal && judged.suggestion !== null && (
          <Note tone="oxide" title="Not a reading of this meter.">
            {judged.refusal}
            <div className="actions">
              <Button variant="outlined" onClick={() => use(judged.suggestion!)}>
                Use {show(judged.suggestion)}
              </Button>
            </div>
          </Note>
        )}
        {doubtful && (
          <Note tone={verdict.possible ? 'brass' : 'oxide'} title={`${verdictWords[verdict.kind]}.`}>
            {verdict.reason}{' '}
            {vouched
              ? 'You looked again: it will count as it is.'
              : 'Saved like this it is kept in doubt, and counts once it is settled.'}
            <div className="actions">
              {verdict.suggestion !== null && (
                <Button variant="outlined" onClick={() => use(verdict.suggestion!)}>
                  Use {show(verdict.suggestion)}
                </Button>
              )}
              {verdict.possible && !vouched && (
                <Button variant="outlined" onClick={() => setValue('vouched', true)}>
                  I looked again: {show(value)} is right
                </Button>
              )}
            </div>
          </Note>
        )}
      </div>
    </div>
  )
}

/**
 * The instant of a typed day and time, near enough to judge by: counted from the server's present, so
 * that the device's own clock and zone do not matter. The server has the last word.
 */
export function instantNear(day: string, time: string, present: Present): string | null {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(day) || !/^\d{2}:\d{2}$/.test(time)) return null
  const minutes = (clock: string) => Number(clock.slice(0, 2)) * 60 + Number(clock.slice(3, 5))
  const shift = daysBetween(present.today, day) * 1440 + minutes(time) - minutes(present.time)
  const at = Date.parse(present.instant) + shift * 60_000
  return Number.isNaN(at) ? null : new Date(at).toISOString()
}
