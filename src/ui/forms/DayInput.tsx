'use client'

import CalendarMonth from '@mui/icons-material/CalendarMonth'
import Schedule from '@mui/icons-material/Schedule'
import IconButton from '@mui/material/IconButton'
import InputAdornment from '@mui/material/InputAdornment'
import type { OutlinedInputProps } from '@mui/material/OutlinedInput'
import dynamic from 'next/dynamic'
import { useState, type ComponentType, type ReactNode } from 'react'
import { isDay, readDay, readTime, writeDay } from '@/core/calendar'
import { useDateOrder } from './dateOrder'
import { TextInput } from './FieldFrame'
import type { PickerProps } from './pickers'

const DayPicker = dynamic(() => import('./pickers').then((each) => each.DayPicker), { ssr: false })
const TimePicker = dynamic(() => import('./pickers').then((each) => each.TimePicker), { ssr: false })

type Props = Omit<OutlinedInputProps, 'value' | 'onChange' | 'type'> & {
  id: string
  /** The day or time as it is kept, or what was typed and is none. */
  value: string
  onChange: (value: string) => void
  /** What it is, for the button that opens the picker. */
  label: string
}

/** What a day and a time have of their own. */
type Kind = {
  /** The kept value of what was typed; null where it is none. */
  read: (text: string) => string | null
  /** How a kept value stands in the field. */
  shown: (value: string) => string
  placeholder: string
  opens: string
  icon: ReactNode
  Picker: ComponentType<PickerProps>
}

/**
 * A day, typed in the company's order or picked from a calendar. What is no day is kept as typed, so that
 * saving refuses it in words and nothing is dropped.
 */
export function DayInput(props: Props) {
  const order = useDateOrder()
  return (
    <PickedInput
      {...props}
      kind={{
        read: (text) => readDay(text, order),
        shown: (value) => (isDay(value) ? writeDay(value, order) : value),
        placeholder: order === 'ymd' ? 'yyyy-mm-dd' : order === 'mdy' ? 'mm/dd/yyyy' : 'dd/mm/yyyy',
        opens: 'Calendar',
        icon: <CalendarMonth fontSize="small" />,
        Picker: DayPicker,
      }}
    />
  )
}

const time: Kind = {
  read: readTime,
  shown: (value) => value,
  placeholder: 'hh:mm',
  opens: 'Clock',
  icon: <Schedule fontSize="small" />,
  Picker: TimePicker,
}

/** A time of day, typed or picked; 24 hours, whatever the browser's language. */
export function TimeInput(props: Props) {
  return <PickedInput {...props} kind={time} />
}

function PickedInput({ value, onChange, label, kind, ...input }: Props & { kind: Kind }) {
  const [typed, setTyped] = useState<string | null>(null)
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  return (
    <>
      <TextInput
        {...input}
        value={typed ?? kind.shown(value)}
        placeholder={kind.placeholder}
        onChange={(event) => {
          setTyped(event.target.value)
          onChange(kind.read(event.target.value) ?? event.target.value.trim())
        }}
        onBlur={(event) => {
          setTyped(null)
          input.onBlur?.(event)
        }}
        endAdornment={
          <InputAdornment position="end">
            <IconButton
              size="small"
              edge="end"
              aria-label={`${kind.opens}: ${label}`}
              aria-haspopup="dialog"
              onClick={(event) => setAnchor(event.currentTarget)}
            >
              {kind.icon}
            </IconButton>
          </InputAdornment>
        }
      />
      {anchor && (
        <kind.Picker
          anchor={anchor}
          label={label}
          value={value}
          onPick={(picked) => {
            setTyped(null)
            onChange(picked)
          }}
          onClose={() => setAnchor(null)}
        />
      )}
    </>
  )
}
