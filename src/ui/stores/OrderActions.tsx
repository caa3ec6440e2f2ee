'use client'

import { useRef } from 'react'
import { visitNumber } from '@/core/plan'
import {
  isComing,
  type ConfirmationFileInput,
  type ConfirmInput,
  type EndOrderInput,
  type OrderPage,
  type SendInput,
} from '@/core/stores'
import { problemWords, type Outcome } from '@/core/problem'
import { Button } from '../frame/Button'
import { useToast } from '../feedback/Toasts'
import { DialogForm } from '../forms/DialogForm'
import { FieldRow, TextEntry } from '../forms/entries'

type Props = {
  order: OrderPage
  today: string
  send: (input: SendInput) => Promise<Outcome>
  confirm: (input: ConfirmInput) => Promise<Outcome>
  takeFile: (
    input: ConfirmationFileInput,
  ) => Promise<Outcome<{ answered: number; less: number; substitutes: string[] }>>
  end: (input: EndOrderInput) => Promise<Outcome>
}

/** What can be done with an order as it stands. */
export function OrderActions({ order, send, confirm, takeFile, end }: Props) {
  const { id, version } = order
  const number = visitNumber(order.number)
  return (
    <>
      {(order.state === 'draft' || isComing(order.state)) && (
        <DialogForm
          label={order.state === 'draft' ? 'Throw away' : 'Call off'}
          title={
            order.state === 'draft'
              ? `Throw order ${number} away`
              : `Call off what is to come of order ${number}`
          }
          schema="endOrderSchema"
          start={(): EndOrderInput => ({ id, version, reason: '' })}
          action={end}
          submit={order.state === 'draft' ? 'Throw away' : 'Call off'}
          done="Nothing more comes of it. What came in stays."
        >
          <TextEntry name="reason" label="Why" autoFocus />
        </DialogForm>
      )}
      {isComing(order.state) && (
        <>
          <ConfirmationFile order={order} takeFile={takeFile} />
          <DialogForm
            label="Confirm"
            look={order.state === 'sent' ? 'contained' : 'outlined'}
            title={`What ${order.supplier} confirms`}
            schema="confirmSchema"
            start={(): ConfirmInput => ({
              id,
              version,
              lines: order.lineList.map((line) => ({
                id: line.id,
                confirmed: line.confirmed ?? line.quantity,
                promisedOn: line.promisedOn ?? line.comesOn,
                answer: line.answer,
              })),
            })}
            action={confirm}
            submit="Keep"
            done="Kept. What is to come is reckoned with it."
          >
            {order.lineList.map((line, at) => (
              <FieldRow key={line.id}>
                <TextEntry
                  name={`lines.${at}.confirmed`}
                  label={`${line.number}, of ${line.quantity}`}
                  inputMode="decimal"
                />
                <TextEntry
                  name={`lines.${at}.promisedOn`}
                  label="Promised for"
                  about={line.number}
                  type="date"
                  optional
                />
                <TextEntry name={`lines.${at}.answer`} label="Answer" about={line.number} optional />
              </FieldRow>
            ))}
          </DialogForm>
        </>
      )}
      {order.state === 'draft' && (
        <DialogForm
          label="Send"
          look="contained"
          title={`Order ${number} goes to ${order.supplier}`}
          schema="sendSchema"
          start={() => ({ id, version, hurry: '' }) as SendInput}
          action={send}
          submit="It is sent"
          done="Sent. It counts as on its way from now on."
        >
          <p>
            Atelier sends nothing itself: take the file (CSV, XLSX) or the printed page to the supplier
            {order.contact && <>, {order.contact}</>}, then say here that it is sent.
          </p>
          <TextEntry
            name="hurry"
            label="Paid more to have it earlier"
            unit={order.currency}
            inputMode="decimal"
            optional
          />
        </DialogForm>
      )}
    </>
  )
}

/** The supplier's confirmation as a file. */
function ConfirmationFile({ order, takeFile }: Pick<Props, 'order' | 'takeFile'>) {
  const input = useRef<HTMLInputElement>(null)
  const toast = useToast()
  const take = async (file: File) => {
    const text = await file.text()
    const outcome = await takeFile({ id: order.id, version: order.version, text }).catch(() => null)
    if (outcome === null) toast('Atelier could not be reached. Choose the file again in a moment.')
    else if (outcome.ok) {
      const { answered, less, substitutes } = outcome.data
      toast(
        [
          `${answered} ${answered === 1 ? 'line' : 'lines'} confirmed`,
          less > 0 && `${less} with less than ordered`,
          substitutes.length > 0 && `offered instead: ${substitutes.join(', ')}`,
        ]
          .filter(Boolean)
          .join('; ') + '.',
      )
    } else toast(`Nothing was taken of it. ${problemWords(outcome.problem)}`)
  }
  return (
    <>
      <input
        ref={input}
        type="file"
        accept=".csv,text/csv"
        className="visually-hidden"
        aria-label="Confirmation as a file"
        tabIndex={-1}
        onChange={(event) => {
          const file = event.target.files?.[0]
          event.target.value = ''
          if (file) void take(file)
        }}
      />
      <Button variant="outlined" onClick={() => input.current?.click()}>
        Confirmation file
      </Button>
    </>
  )
}
