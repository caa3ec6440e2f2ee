'use client'

import { useState } from 'react'
import { useController } from 'react-hook-form'
import { v7 as uuid } from 'uuid'
import { showAmount, type DeliveryInput, type OrderPage } from '@/core/stores'
import type { Outcome } from '@/core/problem'
import { Note } from '../feedback/States'
import { EntryForm } from '../forms/EntryForm'
import { FieldRow, TextEntry } from '../forms/entries'
import './stores.css'

type Taken = { lots: number[]; differences: string[]; closed: boolean }
type Props = {
  order: OrderPage
  today: string
  receive: (input: DeliveryInput) => Promise<Outcome<Taken>>
}

/** What came, line by line, beside what its note says; damaged and wrong pieces are set aside. */
export function DeliveryForm({ order, today, receive }: Props) {
  const lines = order.lineList.filter((line) => line.open > 0)
  const [taken, setTaken] = useState<Taken | null>(null)
  const [round, setRound] = useState(0)
  return (
    <>
      {taken && (
        <Note tone={taken.differences.length > 0 ? 'brass' : 'moss'} title="Taken in.">
          {taken.lots.length > 0 && (
            <>
              Write on the bags: {taken.lots.length === 1 ? 'lot' : 'lots'}{' '}
              <span className="strong">{taken.lots.join(', ')}</span>.{' '}
            </>
          )}
          {taken.differences.join('; ')}
        </Note>
      )}
      {lines.length > 0 && (
        <EntryForm
          key={`${round} ${lines.map((line) => line.id).join()}`}
          schema="deliverySchema"
          values={
            {
              id: uuid(),
              orderId: order.id,
              noteNumber: '',
              receivedOn: today,
              lines: lines.map((line) => ({
                lotId: uuid(),
                lineId: line.id,
                wrongPart: false,
                noted: '',
                came: '',
                damaged: '',
                code: '',
                curedOn: '',
                expiresOn: '',
              })),
            } as unknown as DeliveryInput
          }
          action={receive}
          onDone={(done) => {
            setTaken(done)
            setRound(round + 1)
          }}
          submit="Take in"
        >
          <FieldRow>
            <TextEntry name="noteNumber" label="Delivery note" />
            <TextEntry name="receivedOn" label="Came on" type="date" />
          </FieldRow>
          {lines.map((line, at) => (
            <fieldset key={line.id} className="field delivery-line">
              <legend>
                <span className="strong">{line.number}</span> {line.name}{' '}
                <span className="second">{showAmount(line.open, line.unit)} to come</span>
              </legend>
              <FieldRow>
                <TextEntry
                  name={`lines.${at}.noted`}
                  label="By the note"
                  about={line.number}
                  inputMode="decimal"
                />
                <TextEntry
                  name={`lines.${at}.came`}
                  label="Counted"
                  about={line.number}
                  inputMode="decimal"
                />
                <TextEntry
                  name={`lines.${at}.damaged`}
                  label="Of that damaged"
                  about={line.number}
                  inputMode="decimal"
                  optional
                />
              </FieldRow>
              <FieldRow>
                <TextEntry name={`lines.${at}.code`} label="Maker’s lot" about={line.number} optional />
                {line.ages && (
                  <TextEntry
                    name={`lines.${at}.curedOn`}
                    label="Cured"
                    about={line.number}
                    hint="2Q26, 2026-05 or a day; blank: assumed from today"
                    optional
                  />
                )}
                <TextEntry
                  name={`lines.${at}.expiresOn`}
                  label="Good until, if printed"
                  about={line.number}
                  type="date"
                  optional
                />
              </FieldRow>
              <Wrong
                name={`lines.${at}.wrongPart`}
                label={`${line.number}: another part than ordered came`}
              />
            </fieldset>
          ))}
        </EntryForm>
      )}
    </>
  )
}

function Wrong({ name, label }: { name: string; label: string }) {
  const { field } = useController({ name })
  return (
    <label className="check-line">
      <input
        type="checkbox"
        checked={Boolean(field.value)}
        onChange={(event) => field.onChange(event.target.checked)}
      />{' '}
      {label}
    </label>
  )
}
