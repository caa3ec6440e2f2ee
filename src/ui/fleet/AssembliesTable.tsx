'use client'

import { Link } from '../frame/Link'
import { useState } from 'react'
import { assemblyKinds, type AssemblyView } from '@/core/fleet'
import { EmptyState } from '../feedback/States'
import { SelectInput, TextInput } from '../forms/FieldFrame'
import { DataTable, type Column } from '../table/DataTable'
import { countedWords, placeWords, usageWords } from './usageWords'

type Which = 'all' | 'fitted' | 'shelf' | 'retired'

const which: Record<Which, { label: string; is: (row: AssemblyView) => boolean }> = {
  all: { label: 'In service', is: (row) => !row.retiredOn },
  fitted: { label: 'Fitted', is: (row) => row.place.machineId !== null },
  shelf: { label: 'On the shelf', is: (row) => row.place.machineId === null && !row.retiredOn },
  retired: { label: 'Retired', is: (row) => row.retiredOn !== null },
}

const columns: Column<AssemblyView>[] = [
  {
    name: 'Pump or accessory',
    by: (row) => row.number,
    cell: (row) => (
      <Link href={`/fleet/pumps/${encodeURIComponent(row.number)}`} className="row-link">
        <span className="strong">{row.number}</span> {row.title}
      </Link>
    ),
  },
  { name: 'Kind', by: (row) => row.kind, cell: (row) => assemblyKinds[row.kind] },
  { name: 'Serial', by: (row) => row.serial, cell: (row) => row.serial || <span className="second">–</span> },
  {
    name: 'Where',
    by: (row) => placeWords(row),
    cell: (row) =>
      row.place.machineNumber ? (
        <Link href={`/fleet/${encodeURIComponent(row.place.machineNumber)}`} className="row-link">
          {placeWords(row)}
        </Link>
      ) : (
        placeWords(row)
      ),
  },
  { name: 'Counted by', cell: (row) => <span className="second">{countedWords(row)}</span> },
  {
    name: 'Hours',
    numeric: true,
    by: (row) => row.usage ?? row.usedSinceTakeOver,
    cell: (row) => <span className="nowrap">{usageWords(row)}</span>,
  },
]

export function AssembliesTable({ assemblies }: { assemblies: AssemblyView[] }) {
  const [search, setSearch] = useState('')
  const [state, setState] = useState<Which>('all')
  const words = search.toLowerCase().split(/\s+/).filter(Boolean)
  const shown = assemblies.filter((row) => {
    const text = `${row.number} ${row.title} ${row.serial} ${placeWords(row)}`.toLowerCase()
    return which[state].is(row) && words.every((word) => text.includes(word))
  })
  return (
    <>
      <div className="filters" role="search">
        <div className="search">
          <TextInput
            id="assembly-search"
            placeholder="Search pump, serial, machine"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
            inputProps={{ 'aria-label': 'Search pump, serial, machine', type: 'search' }}
          />
        </div>
        <div>
          <SelectInput
            id="assembly-state"
            value={state}
            onChange={(event) => setState(event.target.value as Which)}
            options={Object.entries(which).map(([value, { label, is }]) => ({
              value,
              label: `${label} (${assemblies.filter(is).length})`,
            }))}
            inputProps={{ 'aria-label': 'Which pumps' }}
          />
        </div>
      </div>
      {shown.length === 0 ? (
        <EmptyState title="Nothing fits">Clear the search or choose another list.</EmptyState>
      ) : (
        <DataTable
          caption="Pumps and accessories"
          rows={shown}
          columns={columns}
          rowKey={(row) => row.id}
          receding={(row) => row.retiredOn !== null}
        />
      )}
    </>
  )
}
