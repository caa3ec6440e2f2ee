'use client'

import Dialog from '@mui/material/Dialog'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import { useState, type ReactNode } from 'react'
import type { FieldValues } from 'react-hook-form'
import type { Outcome } from '@/core/problem'
import { Button } from '../frame/Button'
import { useToast } from '../feedback/Toasts'
import { EntryForm } from './EntryForm'
import type { SchemaName } from './resolver'

type Props<Values extends FieldValues> = {
  /** The button that opens it. */
  label: string
  look?: 'outlined' | 'contained' | 'text'
  title: string
  schema: SchemaName
  /** Fresh values each time it opens: a new row gets its id here. */
  start: () => Values
  action: (values: Values) => Promise<Outcome<unknown>>
  submit: string
  done: string
  fieldName?: (field: string) => string
  /** The row as it is now, turned into what the form holds. */
  fromRow?: (row: Record<string, unknown>) => Partial<Values>
  /** Opens with the page: whoever came here came for this. */
  openNow?: boolean
  children: ReactNode
}

/** A short form in a dialog, with the button that opens it. */
export function DialogForm<Values extends FieldValues>(props: Props<Values>) {
  const [values, setValues] = useState<Values | null>(() => (props.openNow ? props.start() : null))
  const toast = useToast()
  const close = () => setValues(null)
  return (
    <>
      <Button variant={props.look ?? 'outlined'} onClick={() => setValues(props.start())}>
        {props.label}
      </Button>
      <Dialog open={values !== null} onClose={close} maxWidth="sm" fullWidth aria-label={props.title}>
        <DialogTitle>{props.title}</DialogTitle>
        <DialogContent>
          {values && (
            <EntryForm
              schema={props.schema}
              values={values}
              action={props.action}
              onDone={() => {
                close()
                toast(props.done)
              }}
              submit={props.submit}
              fieldName={props.fieldName}
              fromRow={props.fromRow}
              cancel={
                <Button variant="outlined" onClick={close}>
                  Cancel
                </Button>
              }
            >
              {props.children}
            </EntryForm>
          )}
        </DialogContent>
      </Dialog>
    </>
  )
}
