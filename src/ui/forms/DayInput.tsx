'use client'

import CalendarMonth from '@mui/icons-material/CalendarMonth'
import Schedule from '@mui/icons-material/Schedule'
import IconButton from '@mui/material/IconButton'
import InputAdornment from '@mui/material/InputAdornment'
import type { OutlinedInputProps } from '@mui/material/OutlinedInput'
import dynamic from 'next/dynamic'
import { useState } from 'react'
import { isDay, readDay, readTime, writeDay } from '@/core/calendar'
import { useDateOrder } from './dateOrder'
import { TextInput } from './FieldFrame'

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

/**
 * A day, typed in the company's order or picked from a calendar. What is no day is kept as typed, so that
 * saving refuses it in words and nothing is dropped.
 */
export function DayInput({ value, onChange, label, ...input }: Props) {
  const order = useDateOrder()
  const [typed, setTyped] = useState<string | null>(null)
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const pick = (day: string) => {
    setTyped(null)
    onChange(day)
    setAnchor(null)
  }
  return (
    <>
      <TextInput
        {...input}
        value={typed ?? (isDay(value) ? writeDay(value, order) : value)}
        placeholder={order === 'ymd' ? 'yyyy-mm-dd' : order === 'mdy' ? 'mm/dd/yyyy' : 'dd/mm/yyyy'}
        onChange={(event) => {
          setTyped(event.target.value)
          onChange(readDay(event.target.value, order) ?? event.target.value.trim())
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
              aria-label={`Calendar: ${label}`}
              aria-haspopup="dialog"
              onClick={(event) => setAnchor(event.currentTarget)}
            >
              <CalendarMonth fontSize="small" />
            </IconButton>
          </InputAdornment>
        }
      />
      {anchor && (
        <DayPicker
          anchor={anchor}
          label={label}
          value={value}
          onPick={pick}
          onClose={() => setAnchor(null)}
        />
      )}
    </>
  )
}

/** A time of day, typed or picked; 24 hours, whatever the browser's language. */
export function TimeInput({ value, onChange, label, ...input }: Props) {
  const [typed, setTyped] = useState<string | null>(null)
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  return (
    <>
      <TextInput
        {...input}
        value={typed ?? value}
        placeholder="hh:mm"
        onChange={(event) => {
          setTyped(event.target.value)
          onChange(readTime(event.target.value) ?? event.target.value.trim())
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
              aria-label={`Clock: ${label}`}
              aria-haspopup="dialog"
              onClick={(event) => setAnchor(event.currentTarget)}
            >
              <Schedule fontSize="small" />
            </IconButton>
          </InputAdornment>
        }
      />
      {anchor && (
        <TimePicker
          anchor={anchor}
          label={label}
          value={value}
          onPick={(time) => {
            setTyped(null)
            onChange(time)
          }}
          onClose={() => setAnchor(null)}
        />
      )}
    </>
  )
}
