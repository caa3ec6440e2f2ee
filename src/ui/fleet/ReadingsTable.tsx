'use client'

import { useState } from 'react'
import { showDay } from '@/core/calendar'
import type { MeterPanel, ReadingLine } from '@/core/fleet'
import type { SettlementInput } from '@/core/hours'
import type { Outcome } from '@/core/problem'
import { showNumber } from '@/core/units'
import { Button } from '../frame/Button'
import { unpack, type Packed } from '../frame/packed'
import { Status } from '../graphics/PostMark'
import { DataTable, type Column } from '../table/DataTable'
import { SettleDialog } from './SettleDialog'
import { verdictWords } from './verdicts'

type Props = {
  packed: Packed<MeterPanel>
  today: string
  mayEnter: boolean
  maySettleAll: boolean
  settle: (input: SettlementInput) => Promise<Outcome>
}

const few = 8

/** What was read, when and by whom; corrected readings stay, struck through, beside what replaced them. */
export function ReadingsTable({ packed, today, mayEnter, maySettleAll, settle }: Props) {
  const [all, setAll] = useState(false)
  const meter = unpack(packed)
  const { face } = meter
  const rows = all ? meter.readings : meter.readings.slice(0, few)
  const columns: Column<ReadingLine>[] = [
    {
      name: 'Read',
      cell: (row) => (
        <span className="nowrap">
          {showDay(row.day, today)} <span className="second">{row.time}</span>
        </span>
      ),
    },
    {
      name: `Meter shows, ${face.unit}`,
      numeric: true,
      cell: (row) => (
        <span
          className={
            row.status === 'superseded' ? 'struck' : row.status === 'doubted' ? 'oxide strong' : undefined
          }
        >
          {showNumber(row.value, row.decimals)}
        </span>
      ),
    },
    { name: 'Read by', cell: (row) => <span className="nowrap">{row.readBy || row.recordedBy}</span> },
    { name: 'Verdict', cell: (row) => <VerdictCell row={row} /> },
    {
      name: '',
      cell: (row) =>
        mayEnter && row.status !== 'superseded' && (maySettleAll || row.mine) ? (
          <SettleDialog
            packed={packed}
            reading={row}
            today={today}
            settle={settle}
            label={row.status === 'doubted' ? 'Settle' : 'Correct'}
            quiet={row.status !== 'doubted'}
          />
        ) : null,
    },
  ]
  if (meter.readings.length === 0)
    return <p className="second">No readings yet. The first one starts the clock.</p>
  return (
    <>
      <DataTable
        plain
        caption={`Readings of ${meter.name}`}
        rows={rows}
        columns={columns}
        rowKey={(row) => row.id}
        receding={(row) => row.status === 'superseded'}
      />
      {meter.readings.length > few && (
        <div className="actions">
          <Button variant="text" onClick={() => setAll(!all)}>
            {all ? 'Show the newest only' : `Show all ${meter.readings.length} readings`}
          </Button>
        </div>
      )}
    </>
  )
}

function VerdictCell({ row }: { row: ReadingLine }) {
  if (row.status === 'superseded') {
    return (
      <>
        corrected or withdrawn
        {row.vouchedReason && <div className="second">{row.vouchedReason}</div>}
      </>
    )
  }
  if (row.status === 'doubted') {
    return (
      <Status state="doubted">
        <span className="oxide strong">{verdictWords[row.verdict]}</span>
        <div className="second">{row.reason}</div>
      </Status>
    )
  }
  return (
    <>
      {row.supersedesId
        ? 'correction'
        : row.vouchedReason
          ? `${verdictWords[row.verdict].toLowerCase()}, kept as right`
          : verdictWords[row.verdict].toLowerCase()}
      {(row.vouchedReason || row.note) && <div className="second">{row.vouchedReason || row.note}</div>}
    </>
  )
}
