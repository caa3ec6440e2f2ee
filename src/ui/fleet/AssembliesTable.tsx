'use client'

import { useMemo, useState } from 'react'
import { assemblyKinds } from '@/core/fleet'
import { worseStanding, type AssemblyStanding } from '@/core/plan'
import { EmptyState } from '../feedback/States'
import { Link } from '../frame/Link'
import { unpack, type Packed } from '../frame/packed'
import { DataTable, type Column } from '../table/DataTable'
import { holdsWords, ListFilters } from './ListFilters'
import { standingColumns, standingOf, standingOrder, standingText } from './standingWords'
import { placeWords, usageWords } from './usageWords'

const inService = (row: AssemblyStanding) => row.retiredOn === null
const which: Record<string, { label: string; is: (row: AssemblyStanding) => boolean }> = {
  all: { label: 'In service', is: inService },
  past: {
    label: 'Past a limit',
    is: (row) => inService(row) && ['over', 'overdue'].includes(row.standing?.state ?? ''),
  },
  soon: { label: 'Due soon', is: (row) => inService(row) && row.standing?.state === 'dueSoon' },
  signs: { label: 'Signs', is: (row) => (row.standing?.signs.length ?? 0) > 0 },
  fitted: { label: 'Fitted', is: (row) => row.place.machineId !== null },
  shelf: { label: 'On the shelf', is: (row) => row.place.machineId === null && inService(row) },
  retired: { label: 'Retired', is: (row) => !inService(row) },
}

const groups: Record<
  string,
  { label: string; of: (row: AssemblyStanding) => string; order?: readonly string[] }
> = {
  standing: { label: 'By how it stands', of: standingOf, order: standingOrder },
  title: { label: 'By model', of: (row) => row.title },
  kind: { label: 'By kind', of: (row) => assemblyKinds[row.kind] },
}

const worse = (a: AssemblyStanding, b: AssemblyStanding) => worseStanding(a.standing, b.standing)

/** Pumps and drives, worst first. */
type Props = { packed: Packed<AssemblyStanding[]>; today: string }

export function AssembliesTable({ packed, today }: Props) {
  const assemblies = unpack(packed)
  const [search, setSearch] = useState('')
  const [state, setState] = useState('all')
  const [group, setGroup] = useState('')
  const columns = useMemo(() => columnsOn(today), [today])
  const shown = assemblies.filter(
    (row) =>
      which[state]!.is(row) &&
      holdsWords(
        `${row.number} ${row.title} ${assemblyKinds[row.kind]} ${row.serial} ${placeWords(row)} ${standingText(row)}`,
        search,
      ),
  )
  return (
    <ListFilters
      id="assembly"
      label="Search pump, serial, machine, service"
      placeholder="Search pump, serial, machine, service"
      search={search}
      onSearch={setSearch}
      found={`${shown.length} ${shown.length === 1 ? 'pump, drive or accessory' : 'pumps, drives and accessories'}`}
      choices={[
        {
          id: 'state',
          label: 'Which pumps',
          value: state,
          onChange: setState,
          options: Object.entries(which).map(([value, { label, is }]) => ({
            value,
            label: `${label} (${assemblies.filter(is).length})`,
          })),
        },
        {
          id: 'group',
          label: 'Group by',
          placeholder: 'Not grouped',
          value: group,
          onChange: setGroup,
          options: Object.entries(groups).map(([value, { label }]) => ({ value, label })),
        },
      ]}
    >
      {shown.length === 0 ? (
        <EmptyState title="Nothing fits">Clear the search or choose another list.</EmptyState>
      ) : (
        <DataTable
          caption="Pumps and drives, worst first"
          rows={shown}
          columns={columns}
          sortedBy="Worst service"
          folds
          rowKey={(row) => row.id}
          receding={(row) => row.retiredOn !== null}
          groupBy={groups[group]?.of}
          groupOrder={groups[group]?.order}
        />
      )}
    </ListFilters>
  )
}

function columnsOn(today: string): Column<AssemblyStanding>[] {
  return [
    {
      name: 'Pump, drive or accessory',
      width: '18%',
      by: (row) => row.number,
      cell: (row) => (
        <>
          <Link href={`/fleet/pumps/${encodeURIComponent(row.number)}`} className="row-link">
            <span className="strong">{row.number}</span> {row.title}
          </Link>
          <span className="second block">
            {assemblyKinds[row.kind]}
            {row.serial && ` · ${row.serial}`}
          </span>
        </>
      ),
    },
    ...standingColumns<AssemblyStanding>(today, false, worse),
    {
      name: 'Where',
      width: '17%',
      by: (row) => placeWords(row),
      cell: (row) => (
        <>
          {row.place.machineNumber ? (
            <Link href={`/fleet/${encodeURIComponent(row.place.machineNumber)}`} className="row-link">
              {placeWords(row)}
            </Link>
          ) : (
            placeWords(row)
          )}
          <span className="second block nowrap">{usageWords(row)}</span>
        </>
      ),
    },
  ]
}
