'use client'

import { Link } from '../frame/Link'
import { useState } from 'react'
import { showAge } from '@/core/calendar'
import { machineKinds, storageKinds, type MachineLine } from '@/core/fleet'
import { showNumber } from '@/core/units'
import { EmptyState } from '../feedback/States'
import { SelectInput, TextInput } from '../forms/FieldFrame'
import { Status } from '../graphics/PostMark'
import { DataTable, type Column } from '../table/DataTable'

type Props = { machines: MachineLine[]; yards: { id: string; name: string }[]; today: string }
type Which = 'inService' | 'owing' | 'doubtful' | 'retired'

const which: Record<Which, { label: string; is: (machine: MachineLine) => boolean }> = {
  inService: { label: 'In service', is: (machine) => !machine.retiredOn },
  owing: { label: 'Owe a reading', is: (machine) => machine.owesReading },
  doubtful: { label: 'Reading in doubt', is: (machine) => machine.doubts > 0 && !machine.retiredOn },
  retired: { label: 'Retired', is: (machine) => machine.retiredOn !== null },
}

const groups: Record<string, { label: string; of: (machine: MachineLine) => string }> = {
  yard: { label: 'By yard', of: (machine) => machine.yardName },
  kind: { label: 'By kind', of: (machine) => machineKinds[machine.kind] },
  crew: { label: 'By crew', of: (machine) => machine.crew },
  model: { label: 'By pump model', of: (machine) => machine.pumps[0]?.title ?? '' },
  storage: { label: 'By storage', of: (machine) => storageKinds[machine.storage] },
}

/** The fleet: searched by anything on a row, narrowed to a yard or to what needs a look. */
export function MachinesTable({ machines, yards, today }: Props) {
  const [search, setSearch] = useState('')
  const [yardId, setYardId] = useState('')
  const [state, setState] = useState<Which>('inService')
  const [group, setGroup] = useState('')
  const words = search.toLowerCase().split(/\s+/).filter(Boolean)
  const shown = machines.filter((machine) => {
    const all = `${machine.written} ${machine.yardName} ${machine.spell}`.toLowerCase()
    return (
      which[state].is(machine) &&
      (!yardId || machine.yardId === yardId) &&
      words.every((word) => all.includes(word))
    )
  })
  return (
    <>
      <div className="filters" role="search">
        <div className="search">
          <TextInput
            id="machine-search"
            placeholder="Search anything written on one"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
            inputProps={{ 'aria-label': 'Search machine or pump', type: 'search' }}
          />
        </div>
        <div>
          <SelectInput
            id="machine-yard"
            placeholder="All yards"
            value={yardId}
            onChange={(event) => setYardId(event.target.value)}
            options={yards.map((yard) => ({ value: yard.id, label: yard.name }))}
            inputProps={{ 'aria-label': 'Yard' }}
          />
        </div>
        <div>
          <SelectInput
            id="machine-state"
            value={state}
            onChange={(event) => setState(event.target.value as Which)}
            options={Object.entries(which).map(([value, { label, is }]) => ({
              value,
              label: `${label} (${machines.filter(is).length})`,
            }))}
            inputProps={{ 'aria-label': 'Which machines' }}
          />
        </div>
        <div>
          <SelectInput
            id="machine-group"
            placeholder="Not grouped"
            value={group}
            onChange={(event) => setGroup(event.target.value)}
            options={Object.entries(groups).map(([value, { label }]) => ({ value, label }))}
            inputProps={{ 'aria-label': 'Group by' }}
          />
        </div>
      </div>
      {shown.length === 0 ? (
        <EmptyState title="No machine fits">
          Clear the search, or choose another yard or another list.
        </EmptyState>
      ) : (
        <DataTable
          caption="Machines"
          rows={shown}
          columns={columns(today)}
          rowKey={(row) => row.id}
          receding={(row) => row.retiredOn !== null}
          groupBy={groups[group]?.of}
        />
      )}
    </>
  )
}

function columns(today: string): Column<MachineLine>[] {
  return [
    {
      name: 'Machine',
      by: (row) => row.number,
      cell: (row) => (
        <Link href={`/fleet/${encodeURIComponent(row.number)}`} className="row-link">
          <span className="strong">{row.number}</span> {row.name}
        </Link>
      ),
    },
    {
      name: 'Pumps',
      by: (row) => row.pumps[0]?.title ?? null,
      cell: (row) =>
        row.pumps.length === 0 ? (
          <span className="second">none fitted</span>
        ) : (
          row.pumps.map((pump) => (
            <div key={pump.number} className="nowrap">
              {pump.title} <span className="second">{pump.number}</span>
            </div>
          ))
        ),
    },
    {
      name: 'Yard',
      by: (row) => `${row.yardName} ${row.bay}`,
      cell: (row) => (
        <>
          {row.yardName}
          <div className="second">
            {row.bay ? `bay ${row.bay} · ` : ''}
            {storageKinds[row.storage].toLowerCase()}
          </div>
        </>
      ),
    },
    {
      name: 'Meter shows',
      numeric: true,
      by: (row) => row.lastReading?.value ?? null,
      cell: (row) =>
        row.lastReading && row.meter ? (
          <span className="nowrap">
            {showNumber(row.lastReading.value, row.meter.decimals)}{' '}
            <span className="second">{row.meter.unit}</span>
          </span>
        ) : (
          <span className="second">never read</span>
        ),
    },
    {
      name: 'A week',
      numeric: true,
      by: (row) => row.weekly,
      cell: (row) =>
        row.weekly === null ? (
          <span className="second">–</span>
        ) : (
          <span className="nowrap">{showWeekly(row.weekly, row.meter?.unit ?? 'h')}</span>
        ),
    },
    {
      name: 'Reading',
      by: (row) => row.lastReading?.ageDays ?? null,
      cell: (row) => <ReadingState machine={row} today={today} />,
    },
  ]
}

export function showWeekly(weekly: number, unit: string): string {
  return `${showNumber(Math.round(weekly))}\u00a0${unit}`
}

function ReadingState({ machine, today }: { machine: MachineLine; today: string }) {
  if (machine.retiredOn) return <span className="second">retired {showAge(machine.retiredOn, today)}</span>
  const age = machine.lastReading && showAge(machine.lastReading.day, today)
  if (machine.doubts > 0) {
    return (
      <Status state="doubted">
        <span className="oxide strong">
          {machine.doubts === 1 ? 'One in doubt' : `${machine.doubts} in doubt`}
        </span>
        {age && <div className="second">last good one {age}</div>}
      </Status>
    )
  }
  if (machine.owesReading) {
    return (
      <Status state="notRead">
        <span className="brass strong">{age ? 'To read' : 'Never read'}</span>
        {age && <div className="second">last read {age}</div>}
      </Status>
    )
  }
  return machine.meter ? <Status state="done">{age}</Status> : <span className="second">no meter</span>
}
