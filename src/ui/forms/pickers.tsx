'use client'

import Popover from '@mui/material/Popover'
import { AdapterDayjs } from '@mui/x-date-pickers/AdapterDayjs'
import { DateCalendar } from '@mui/x-date-pickers/DateCalendar'
import { LocalizationProvider } from '@mui/x-date-pickers/LocalizationProvider'
import { MultiSectionDigitalClock } from '@mui/x-date-pickers/MultiSectionDigitalClock'
import dayjs, { type Dayjs } from 'dayjs'
import 'dayjs/locale/en-gb'
import type { ReactNode } from 'react'
import { isDay, readTime } from '@/core/calendar'

export type PickerProps = {
  anchor: HTMLElement
  label: string
  value: string
  onPick: (value: string) => void
  onClose: () => void
}

/** A month to pick a day from; weeks begin on Monday. */
export function DayPicker({ value, onPick, ...around }: PickerProps) {
  return (
    <Around {...around}>
      <DateCalendar
        autoFocus
        value={isDay(value) ? dayjs(value) : null}
        onChange={(day: Dayjs | null, state) => {
          if (!day?.isValid() || state !== 'finish') return
          onPick(day.format('YYYY-MM-DD'))
          around.onClose()
        }}
      />
    </Around>
  )
}

/** Hours and minutes to pick a time from. */
export function TimePicker({ value, onPick, ...around }: PickerProps) {
  const time = readTime(value)
  return (
    <Around {...around}>
      <MultiSectionDigitalClock
        autoFocus
        ampm={false}
        timeSteps={{ minutes: 5 }}
        value={time === null ? null : dayjs(`2000-01-01T${time}`)}
        onChange={(picked: Dayjs | null, state) => {
          if (picked?.isValid()) onPick(picked.format('HH:mm'))
          if (state === 'finish') around.onClose()
        }}
      />
    </Around>
  )
}

function Around({
  anchor,
  label,
  onClose,
  children,
}: Omit<PickerProps, 'value' | 'onPick'> & { children: ReactNode }) {
  return (
    <LocalizationProvider dateAdapter={AdapterDayjs} adapterLocale="en-gb">
      <Popover
        open
        transitionDuration={0}
        anchorEl={anchor}
        onClose={onClose}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'right' }}
        transformOrigin={{ vertical: 'top', horizontal: 'right' }}
        slotProps={{
          paper: {
            role: 'dialog',
            'aria-label': label,
            sx: { border: '1px solid var(--edge)', boxShadow: 'none', borderRadius: 0 },
          },
        }}
      >
        {children}
      </Popover>
    </LocalizationProvider>
  )
}
