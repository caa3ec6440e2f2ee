'use client'

import { useState } from 'react'
import { addDays } from '@/core/calendar'
import { changeNames, visitNumber, type Fleet, type FleetChange } from '@/core/plan'
import { Button } from '../../frame/Button'
import { DayInput } from '../../forms/DayInput'
import { FieldFrame, SelectInput, TextInput } from '../../forms/FieldFrame'

type Props = {
  fleet: Fleet
  yards: { id: string; name: string }[]
  ask: (change: FleetChange) => void
}

/** What would happen if: one change to how it is, tried on the booked visits. */
export function WhatIfForm({ fleet, yards, ask }: Props) {
  const [kind, setKind] = useState<FleetChange['kind']>('away')
  const [who, setWho] = useState('')
  const [from, setFrom] = useState(fleet.today)
  const [to, setTo] = useState(addDays(fleet.today, 7))
  const [amount, setAmount] = useState('14')
  const [error, setError] = useState('')
  const choices = {
    away: fleet.crew.map(({ id, name }) => ({ value: id, label: name })),
    called: fleet.machines.map(({ id, number, name }) => ({ value: id, label: `${number} ${name}` })),
    partsLate: fleet.visits.map(({ id, number, machineId }) => ({
      value: id,
      label: `${visitNumber(number)} ${fleet.machines.find((machine) => machine.id === machineId)?.number ?? ''}`,
    })),
    bench: yards.map(({ id, name }) => ({ value: id, label: name })),
    frost: yards.map(({ id, name }) => ({ value: id, label: name })),
  }[kind]

  function submit() {
    const number = Number(amount)
    const wrong =
      who === ''
        ? 'Choose which.'
        : kind === 'away' || kind === 'called'
          ? from > to
            ? 'The last day is before the first.'
            : ''
          : !Number.isInteger(number) || number < (kind === 'bench' ? 0 : 1) || number > 400
            ? 'Enter a whole number.'
            : ''
    setError(wrong)
    if (wrong !== '') return
    if (kind === 'away') ask({ kind, personId: who, from, to })
    else if (kind === 'called') ask({ kind, machineId: who, from, to })
    else if (kind === 'partsLate') ask({ kind, visitId: who, days: number })
    else if (kind === 'frost') ask({ kind, yardId: who, days: number })
    else ask({ kind, yardId: who, places: number })
  }

  return (
    <section className="part" aria-label="What if">
      <header>
        <h2>What if</h2>
      </header>
      <FieldFrame id="what-if" label="What happens">
        <SelectInput
          id="what-if"
          options={Object.entries(changeNames).map(([value, label]) => ({ value, label }))}
          value={kind}
          onChange={({ target: { value } }) => {
            setKind(value as FleetChange['kind'])
            setWho('')
          }}
        />
      </FieldFrame>
      <FieldFrame id="what-if-who" label="Which" error={error}>
        <SelectInput
          id="what-if-who"
          placeholder="Choose"
          options={choices}
          value={who}
          onChange={({ target: { value } }) => setWho(value)}
        />
      </FieldFrame>
      {kind === 'away' || kind === 'called' ? (
        <>
          <FieldFrame id="what-if-from" label="From">
            <DayInput id="what-if-from" name="what-if-from" label="From" value={from} onChange={setFrom} />
          </FieldFrame>
          <FieldFrame id="what-if-to" label="To">
            <DayInput id="what-if-to" name="what-if-to" label="To" value={to} onChange={setTo} />
          </FieldFrame>
        </>
      ) : (
        <FieldFrame
          id="what-if-amount"
          label={{ bench: 'Places', frost: 'Days early', partsLate: 'Days late' }[kind]}
        >
          <TextInput
            id="what-if-amount"
            value={amount}
            onChange={({ target: { value } }) => setAmount(value)}
            inputProps={{ inputMode: 'numeric' }}
          />
        </FieldFrame>
      )}
      <Button variant="outlined" onClick={submit}>
        Try it
      </Button>
    </section>
  )
}
