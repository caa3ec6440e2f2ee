'use client'

import { Button } from '../frame/Button'
import { Link } from '../frame/Link'
import { useRouter } from 'next/navigation'
import { showDay } from '@/core/calendar'
import type { Outcome } from '@/core/problem'
import { toolKinds, type RetireToolInput, type ToolInput, type ToolPage, type ToolView } from '@/core/tools'
import { showNumber } from '@/core/units'
import { useConfirm } from '../forms/Confirm'
import { useToast } from '../feedback/Toasts'
import { Status } from '../graphics/PostMark'
import { DataTable, type Column } from '../table/DataTable'
import { ToolDialog } from './ToolDialog'

type Props = {
  page: ToolPage
  today: string
  save: ((input: ToolInput) => Promise<Outcome>) | null
  retire: ((input: RetireToolInput) => Promise<Outcome>) | null
}

export function ToolsTable({ page, today, save, retire }: Props) {
  const columns: Column<ToolView>[] = [
    {
      name: 'Tool',
      by: (row) => row.number,
      cell: (row) => (
        <>
          <span className="strong">{row.number}</span> {row.name}
          {row.count > 1 && <span className="second"> {row.count} of it</span>}
          <div className="second">
            {row.retiredOn
              ? `out of use since ${showDay(row.retiredOn, today)}: ${row.retiredReason}`
              : [toolKinds[row.kind], row.serves.length > 0 && `serves as ${row.serves.join(', ')}`]
                  .filter(Boolean)
                  .join(' · ')}
          </div>
        </>
      ),
    },
    {
      name: 'Range',
      by: (row) => row.rangeTo,
      cell: (row) =>
        row.rangeFrom !== null && row.rangeTo !== null
          ? `${showNumber(row.rangeFrom)}\u00a0to\u00a0${showNumber(row.rangeTo)}\u00a0${row.rangeUnit}`
          : '–',
    },
    {
      name: 'Calibration due',
      by: (row) => row.calibrationDue,
      cell: (row) =>
        row.calibrationDue === null ? (
          '–'
        ) : row.outOfCalibration ? (
          <Status state="overdue">{showDay(row.calibrationDue, today)}</Status>
        ) : (
          showDay(row.calibrationDue, today)
        ),
    },
    {
      name: 'Where',
      by: (row) => row.yard,
      cell: (row) => [row.yard, row.place].filter(Boolean).join(', '),
    },
    {
      name: 'Visits that take it',
      by: (row) => row.visits.length,
      cell: (row) =>
        row.visits.length === 0
          ? '–'
          : row.visits.map((visit) => (
              <div key={visit.visitId}>
                <Link href={`/plan/${visit.visitId}`}>{visit.number}</Link>{' '}
                <span className="second">
                  {showDay(visit.day, today)}, {visit.yard}
                </span>
              </div>
            )),
    },
    ...(save && retire
      ? [{ name: '', cell: (row: ToolView) => <Acts row={row} page={page} save={save} retire={retire} /> }]
      : []),
  ]
  return (
    <DataTable
      caption="Tools"
      rows={page.tools}
      columns={columns}
      rowKey={(row) => row.id}
      receding={(row) => row.retiredOn !== null}
    />
  )
}

function Acts({
  row,
  page,
  save,
  retire,
}: {
  row: ToolView
  page: ToolPage
  save: NonNullable<Props['save']>
  retire: NonNullable<Props['retire']>
}) {
  const confirm = useConfirm()
  const toast = useToast()
  const router = useRouter()
  if (row.retiredOn) return null
  return (
    <div className="cell-actions nowrap-row">
      <ToolDialog tool={row} yards={page.yards} save={save} />
      <Button
        variant="text"
        onClick={() =>
          confirm({
            title: `Take ${row.number} out of use?`,
            consequence: 'No step is given it any more. Its line stays on the list.',
            action: `Take ${row.number} out of use`,
            reason: 'Why: lost, broken, sold …',
            run: async (reason) => {
              const outcome = await retire({ id: row.id, version: row.version, reason })
              if (!outcome.ok) return outcome.problem.message
              toast(`${row.number} is out of use.`)
              router.refresh()
              return undefined
            },
          })
        }
      >
        Out of use
      </Button>
    </div>
  )
}
