'use client'

import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { isDay } from '@/core/calendar'
import { DayInput } from '../forms/DayInput'
import './stores.css'

/** Another day: the page then says how it stood at its end. */
export function DayChooser({ day }: { day: string }) {
  const router = useRouter()
  const [typed, setTyped] = useState(day)
  return (
    <span className="day-chooser">
      <label htmlFor="stores-day" className="second">
        Day
      </label>
      <DayInput
        id="stores-day"
        name="day"
        label="Day"
        value={typed}
        error={false}
        autoComplete="off"
        onChange={(value) => {
          setTyped(value)
          if (isDay(value)) router.push(`/stores/value?day=${value}`)
        }}
      />
    </span>
  )
}
