'use client'

import { useState } from 'react'
import { isDay, showDay } from '@/core/calendar'
import { showAmount } from '@/core/stores'
import { problemWords, type Outcome } from '@/core/problem'
import { DayInput } from '../forms/DayInput'
import './stores.css'

type Held = {
  day: string
  total: number
  held: { lot: number | null; place: string; state: string; quantity: number }[]
}

/** How much lay where at the end of a past day, from the movements alone. */
export function PastDay({
  partId,
  unit,
  today,
  ask,
}: {
  partId: string
  unit: string
  today: string
  ask: (partId: string, day: string) => Promise<Outcome<Held>>
}) {
  const [day, setDay] = useState('')
  const [held, setHeld] = useState<Held | null>(null)
  const [fault, setFault] = useState('')
  const look = async (value: string) => {
    setDay(value)
    setFault('')
    if (!isDay(value)) return
    const outcome = await ask(partId, value).catch(() => null)
    if (outcome === null) setFault('Atelier could not be reached.')
    else if (outcome.ok) setHeld(outcome.data)
    else setFault(problemWords(outcome.problem))
  }
  return (
    <details className="past-day">
      <summary>What lay there on a past day</summary>
      <DayInput
        id="past-day"
        name="past-day"
        label="Past day"
        value={day}
        error={fault !== ''}
        autoComplete="off"
        onChange={(value) => void look(value)}
      />
      {fault && (
        <p className="oxide" role="alert">
          {fault}
        </p>
      )}
      {held && (
        <p role="status">
          At the end of {showDay(held.day, today)}:{' '}
          <span className="strong">{showAmount(held.total, unit)}</span>
          {held.held.map((each, at) => (
            <span key={at} className="second block">
              {showAmount(each.quantity, unit)} {each.lot === null ? 'of no lot' : `of lot ${each.lot}`},{' '}
              {each.state}, {each.place}
            </span>
          ))}
        </p>
      )}
    </details>
  )
}
