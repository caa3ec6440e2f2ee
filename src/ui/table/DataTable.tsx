'use client'

import { useState, type ReactNode } from 'react'

export type Column<Row> = {
  name: string
  /** What the column sorts by; a column without it does not sort. */
  by?: (row: Row) => string | number | null
  numeric?: boolean
  cell: (row: Row) => ReactNode
}

type Props<Row> = {
  caption: string
  rows: Row[]
  columns: Column<Row>[]
  rowKey: (row: Row) => string
  receding?: (row: Row) => boolean
  /** Rows of one group stand together under its name. */
  groupBy?: (row: Row) => string
  plain?: boolean
}

/** A real table: sorts by its heads, keeps them in sight, and says to a screen reader what it lists. */
export function DataTable<Row>({ caption, rows, columns, rowKey, receding, groupBy, plain }: Props<Row>) {
  const [sort, setSort] = useState<{ column: number; down: boolean } | null>(null)
  const by = sort ? columns[sort.column]?.by : undefined
  const sorted = by && sort ? [...rows].sort((a, b) => compare(by(a), by(b)) * (sort.down ? -1 : 1)) : rows
  const table = (
    <table className={plain ? 'table plain' : 'table'}>
      <caption className="visually-hidden">{caption}</caption>
      <thead>
        <tr>
          {columns.map((column, index) => {
            const active = sort?.column === index
            return (
              <th
                key={column.name}
                scope="col"
                className={column.numeric ? 'num' : undefined}
                aria-sort={active ? (sort.down ? 'descending' : 'ascending') : undefined}
              >
                {column.by ? (
                  <button
                    type="button"
                    onClick={() => setSort({ column: index, down: active ? !sort.down : false })}
                  >
                    {column.name}
                    {active ? (sort.down ? ' ↓' : ' ↑') : ''}
                  </button>
                ) : (
                  column.name || <span className="visually-hidden">What can be done</span>
                )}
              </th>
            )
          })}
        </tr>
      </thead>
      {grouped(sorted, groupBy).map(([group, members]) => (
        <tbody key={group}>
          {groupBy && (
            <tr className="group-row">
              <th scope="rowgroup" colSpan={columns.length}>
                {group || 'None'} <span className="second">{members.length}</span>
              </th>
            </tr>
          )}
          {members.map((row) => (
            <tr key={rowKey(row)} className={receding?.(row) ? 'receding' : undefined}>
              {columns.map((column) => (
                <td key={column.name} className={column.numeric ? 'num' : undefined}>
                  {column.cell(row)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      ))}
    </table>
  )
  return plain ? table : <div className="table-frame">{table}</div>
}

function compare(a: string | number | null, b: string | number | null): number {
  if (a === b) return 0
  if (a === null) return 1
  if (b === null) return -1
  return typeof a === 'number' && typeof b === 'number'
    ? a - b
    : String(a).localeCompare(String(b), 'en', { numeric: true })
}

/** Rows by their group, groups by name, what has none last; all of them as one where nothing groups. */
function grouped<Row>(rows: Row[], groupBy: ((row: Row) => string) | undefined): [string, Row[]][] {
  if (!groupBy) return [['', rows]]
  const names = [...new Set(rows.map(groupBy))]
  return names
    .sort((a, b) => Number(a === '') - Number(b === '') || compare(a, b))
    .map((name) => [name, rows.filter((row) => groupBy(row) === name)])
}
