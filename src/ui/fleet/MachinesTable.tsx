'use client'

import { useMemo, useState } from 'react'
import { showAge } from '@/core/calendar'
import { machineKinds, storageKinds } from '@/core/fleet'
import { worseStanding, type MachineStanding } from '@/core/plan'
import { showNumber } from '@/core/units'
import { EmptyState } from '../feedback/States'
import { Link } from '../frame/Link'
import { unpack, type Packed } from '../frame/packed'
import { Status } from '../graphics/PostMark'
import { DataTable, type Column } from '../table/DataTable'
import { holdsWords, ListFilters } from './ListFilters'
import { showWeekly } from './usageWords'
import { standingColumns, standingOf, standingOrder, standingText } from './standingWords'

type Props = { packed: Packed<MachineStanding[]>; yards: { id: string; name: string }[]; today: string }

const inService = (machine: MachineStanding) => machine.retiredOn === null
const isPast = ({ standing }: MachineStanding) => standing?.state === 'over' || standing?.state === 'overdue'
const which: Record<string, { label: string; is: (machine: MachineStanding) => boolean }> = {
  inService: { label: 'In service', is: inService },
  past: { label: 'Past a limit', is: (machine) => inService(machine) && isPast(machine) },
  soon: {
    label: 'Due soon',
    is: (machine) => inService(machine) && machine.standing?.state === 'dueSoon',
  },
  unbooked: {
    label: 'Due, on no visit',
    is: (machine) =>
      inService(machine) &&
      machine.standing?.worst !== null &&
      machine.standing?.worst !== undefined &&
      machine.standing.worst.state !== 'healthy' &&
      machine.standing.worst.bookedOn === null,
  },
  signs: { label: 'Signs', is: (machine) => (machine.standing?.signs.length ?? 0) > 0 },
  owing: { label: 'Owe a reading', is: (machine) => machine.owesReading },
  doubtful: { label: 'Reading in doubt', is: (machine) => machine.doubts > 0 && inService(machine) },
  retired: { label: 'Retired', is: (machine) => !inService(machine) },
}

const groups: Record<
  string,
  { label: string; of: (machine: MachineStanding) => string; order?: readonly string[] }
> = {
  standing: { label: 'By how it stands', of: standingOf, order: standingOrder },
  yard: { label: 'By yard', of: (machine) => machine.yardName },
  kind: { label: 'By kind', of: (machine) => machineKinds[machine.kind] },
  crew: { label: 'By crew', of: (machine) => machine.crew },
  model: { label: 'By pump model', of: (machine) => machine.pumps[0]?.title ?? '' },
  storage: { label: 'By storage', of: (machine) => storageKinds[machine.storage] },
}

/** The fleet, worst first: searched by anything on a row, narrowed to a yard or to what needs a look. */
export function MachinesTable({ packed, yards, today }: Props) {
  const machines = unpack(packed)
  const [search, setSearch] = useState('')
  const [yardId, setYardId] = useState('')
  const [state, setState] = useState('inService')
  const [group, setGroup] = useState('')
  const columns = useMemo(() => columnsOn(today), [today])
  const shown = machines.filter(
    (machine) =>
      which[state]!.is(machine) &&
      (!yardId || machine.yardId === yardId) &&
      holdsWords(`${machine.written} ${machine.yardName} ${machine.spell} ${standingText(machine)}`, search),
  )
  return (
    <ListFilters
      id="machine"
      label="Search machine, pump, service"
      placeholder="Search anything written on one"
      search={search}
      onSearch={setSearch}
      found={`${shown.length} ${shown.length === 1 ? 'machine' : 'machines'}`}
      choices={[
        {
          id: 'yard',
          label: 'Yard',
          placeholder: 'All yards',
          value: yardId,
          onChange: setYardId,
          options: yards.map((yard) => ({ value: yard.id, label: yard.name })),
        },
        {
          id: 'state',
          label: 'Which machines',
          value: state,
          onChange: setState,
          options: Object.entries(which).map(([value, { label, is }]) => ({
            value,
            label: `${label} (${machines.filter(is).length})`,
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
        <EmptyState title="No machine fits">
          Clear the search, or choose another yard or another list.
        </EmptyState>
      ) : (
        <DataTable
          caption="Machines, worst first"
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

const worse = (a: MachineStanding, b: MachineStanding) => worseStanding(a.standing, b.standing)

function columnsOn(today: string): Column<MachineStanding>[] {
  return [
    {
      name: 'Machine',
      width: '18%',
      by: (row) => row.number,
      cell: (row) => (
        <>
          <Link href={`/fleet/${encodeURIComponent(row.number)}`} className="row-link">
            <span className="strong">{row.number}</span> {row.name}
          </Link>
          <span className="second block">
            {row.yardName}
            {row.bay && `, bay ${row.bay}`}
            {row.spell && ` · ${row.spell}`}
          </span>
        </>
      ),
    },
    ...standingColumns<MachineStanding>(today, true, worse),
    {
      name: 'Meter',
      width: '17%',
      by: (row) => row.lastReading?.ageDays ?? null,
      cell: (row) => <MeterCell machine={row} today={today} />,
    },
  ]
}

function MeterCell({ machine, today }: { machine: MachineStanding; today: string }) {
  const { lastReading, meter, weekly } = machine
  return (
    <ReadingState machine={machine}>
      {lastReading && meter ? (
        <span className="nowrap">
          {showNumber(lastReading.value, meter.decimals)}&nbsp;{meter.unit}
        </span>
      ) : (
        <span className="second">{meter ? 'never read' : 'no meter'}</span>
      )}
      <span className="second block">
        {machine.retiredOn
          ? `retired ${showAge(machine.retiredOn, today)}`
          : [
              lastReading && showAge(lastReading.day, today),
              weekly !== null && meter && `${showWeekly(weekly, meter.unit)} a week`,
            ]
              .filter(Boolean)
              .join(', ')}
      </span>
    </ReadingState>
  )
}

function ReadingState({ machine, children }: { machine: MachineStanding; children: React.ReactNode }) {
  if (machine.retiredOn || !machine.meter) return <span>{children}</span>
  if (machine.doubts > 0)
    return (
      <Status state="doubted">
        <span className="oxide strong">
          {machine.doubts === 1 ? 'One in doubt' : `${machine.doubts} in doubt`}
        </span>
        <span className="block">{children}</span>
      </Status>
    )
  if (machine.owesReading)
    return (
      <Status state="notRead">
        <span className="brass strong">To read</span>
        <span className="block">{children}</span>
      </Status>
    )
  return <Status state="done">{children}</Status>
}
