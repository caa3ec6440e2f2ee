'use client'

import {
  createSortedRowModel,
  rowSortingFeature,
  tableFeatures,
  useTable,
  type ColumnDef,
  type RowData,
} from '@tanstack/react-table'
import { useWindowVirtualizer } from '@tanstack/react-virtual'
import {
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type ReactNode,
} from 'react'
import { useHydrated } from '../frame/useHydrated'
import { HeadCell, RowHead, Table, TableBody, TableCell, TableHead, TableRow } from './Table'

export type Column<Row> = {
  name: string
  /** What the column sorts by; a column without it, and without an order of its own, does not sort. */
  by?: (row: Row) => string | number | null
  /** An order of its own, for what no single value tells. */
  order?: (a: Row, b: Row) => number
  numeric?: boolean
  /** Its share of the width; columns of a table whose rows come and go must not jump. */
  width?: string
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
  /** The names of the groups in the order they come; else by name, what has none last. */
  groupOrder?: readonly string[]
  /** The column it is sorted by until somebody sorts by another. */
  sortedBy?: string
  plain?: boolean
  /** On a phone each row folds, cell below cell; else the table scrolls sideways. */
  folds?: boolean
}

const features = tableFeatures({ rowSortingFeature, sortedRowModel: createSortedRowModel() })

type Item<Row> = { kind: 'group'; name: string; count: number } | { kind: 'row'; row: Row }

/** Rows drawn beyond what is in sight, in the browser. */
const beyond = 18
/** What is in sight before the browser has measured anything. */
const firstSight = { width: 1280, height: 800 }

/** A busy device may take so long to draw a row that was out of sight, in milliseconds: a key is not lost for it. */
const drawnWithin = 2000

/**
 * A real table: sorts by its heads, keeps them in sight, and says to a screen reader what it lists. Of a
 * long one only the rows in sight are drawn; the arrow keys go from row to row through all of them.
 */
export function DataTable<Row extends RowData>(props: Props<Row>) {
  const { caption, rows, columns, rowKey, receding, groupBy, groupOrder, sortedBy, plain, folds } = props
  const table = useTable({
    features,
    data: rows,
    columns: useMemo(() => columns.map((column) => definitionOf(column)), [columns]),
    getRowId: rowKey,
    initialState: { sorting: sortedBy ? [{ id: sortedBy, desc: false }] : [] },
    enableSortingRemoval: false,
  })
  const sorted = table.getRowModel().rows.map(({ original }) => original)
  const items = itemsOf(sorted, groupBy, groupOrder)

  const body = useRef<HTMLTableSectionElement>(null)
  const [top, setTop] = useState(0)
  useLayoutEffect(() => {
    if (body.current) setTop(body.current.getBoundingClientRect().top + window.scrollY)
  }, [])
  const virtual = useWindowVirtualizer({
    count: items.length,
    estimateSize: (index) => (items[index]?.kind === 'group' ? 32 : 50),
    getItemKey: (index) => keyOf(items[index]!, rowKey),
    overscan: useHydrated() ? beyond : 1,
    initialRect: firstSight,
    scrollMargin: top,
  })
  // Another search, group or order starts at the top of the list, where its head is.
  const [sorting] = table.state.sorting
  const shape = `${rows.length} ${sorting?.id} ${sorting?.desc}`
  const shapes = useRef({ groupBy, shape })
  useEffect(() => {
    if (shapes.current.groupBy === groupBy && shapes.current.shape === shape) return
    shapes.current = { groupBy, shape }
    const start = (body.current?.closest('table')?.getBoundingClientRect().top ?? 0) + window.scrollY
    if (!plain && window.scrollY > start) window.scrollTo({ top: start })
  }, [groupBy, shape, plain])

  const seen = virtual.getVirtualItems()
  const above = seen.length > 0 ? seen[0]!.start - top : 0
  const below = seen.length > 0 ? virtual.getTotalSize() - (seen.at(-1)!.end - top) : 0

  /** Goes to the next or previous row, which may not be drawn yet. */
  const walk = (event: KeyboardEvent) => {
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key]
    const from = (event.target as HTMLElement).closest('tr')?.dataset.index
    if (!step || from === undefined || (event.target as HTMLElement).closest('input, select, textarea'))
      return
    let to = Number(from) + step
    while (items[to]?.kind === 'group') to += step
    if (!items[to]) return
    event.preventDefault()
    virtual.scrollToIndex(to)
    const until = performance.now() + drawnWithin
    const focus = () => {
      const found = body.current?.querySelector<HTMLElement>(
        `tr[data-index="${to}"] :is(a, button):not([disabled])`,
      )
      if (found) return found.focus()
      // Whoever has gone elsewhere meanwhile stays there; the row that was left may itself be gone.
      const isHere = [event.target, document.body].includes(document.activeElement as HTMLElement)
      if (isHere && performance.now() < until) requestAnimationFrame(focus)
    }
    focus()
  }

  const list = (
    <Table
      className={`${plain ? 'plain' : folds ? 'list folds' : 'list'}${columns.some(({ width }) => width) ? ' shared' : ''}`}
      aria-rowcount={rows.length + 1}
    >
      <caption className="visually-hidden">{caption}</caption>
      <TableHead>
        <TableRow aria-rowindex={1}>
          {columns.map((column) => {
            const head = table.getColumn(idOf(column))!
            const active = sorting?.id === column.name
            return (
              <HeadCell
                key={column.name}
                className={column.numeric ? 'right' : undefined}
                style={column.width ? { width: column.width } : undefined}
                aria-sort={active ? (sorting.desc ? 'descending' : 'ascending') : undefined}
              >
                {head.getCanSort() ? (
                  <button
                    type="button"
                    className="sort-label"
                    onClick={() => head.toggleSorting(active ? !sorting.desc : false)}
                  >
                    {column.name}
                    <span aria-hidden="true">{active ? (sorting.desc ? '↓' : '↑') : ''}</span>
                  </button>
                ) : (
                  column.name || <span className="visually-hidden">What can be done</span>
                )}
              </HeadCell>
            )
          })}
        </TableRow>
      </TableHead>
      <TableBody ref={body} onKeyDown={walk}>
        {above > 0 && <Space height={above} columns={columns.length} />}
        {seen.map(({ index }) => {
          const item = items[index]!
          if (item.kind === 'group')
            return (
              <TableRow
                key={`group ${item.name}`}
                ref={virtual.measureElement}
                data-index={index}
                className="group-row"
              >
                <RowHead scope="rowgroup" colSpan={columns.length}>
                  {item.name || 'None'} <span className="second">{item.count}</span>
                </RowHead>
              </TableRow>
            )
          const { row } = item
          return (
            <TableRow
              key={rowKey(row)}
              ref={virtual.measureElement}
              data-index={index}
              aria-rowindex={sorted.indexOf(row) + 2}
              className={receding?.(row) ? 'receding' : undefined}
            >
              {columns.map((column) => (
                <TableCell key={column.name} className={column.numeric ? 'right' : undefined}>
                  {column.cell(row)}
                </TableCell>
              ))}
            </TableRow>
          )
        })}
        {below > 0 && <Space height={below} columns={columns.length} />}
      </TableBody>
    </Table>
  )
  return plain ? list : <div className="table-frame">{list}</div>
}

/** Where rows that are not drawn would stand. */
function Space({ height, columns }: { height: number; columns: number }) {
  return (
    <tr aria-hidden="true">
      <td colSpan={columns} style={{ height, padding: 0, border: 0 }} />
    </tr>
  )
}

function definitionOf<Row extends RowData>({
  name,
  by,
  order,
}: Column<Row>): ColumnDef<typeof features, Row> {
  return {
    id: idOf({ name }),
    // What has no value comes last, whichever way it is sorted.
    accessorFn: (row) => by?.(row) ?? undefined,
    enableSorting: by !== undefined || order !== undefined,
    sortUndefined: order ? false : 'last',
    sortFn: order
      ? (a, b) => order(a.original, b.original)
      : (a, b, id) => compare(a.getValue(id), b.getValue(id)),
  }
}

/** A column without a head holds what can be done. */
const idOf = ({ name }: { name: string }) => name || 'actions'

function compare(a: string | number, b: string | number): number {
  return typeof a === 'number' && typeof b === 'number'
    ? a - b
    : String(a).localeCompare(String(b), 'en', { numeric: true })
}

const keyOf = <Row,>(item: Item<Row>, rowKey: (row: Row) => string) =>
  item.kind === 'group' ? `group ${item.name}` : rowKey(item.row)

/** Rows under their groups, in the order of these; as they come where nothing groups. */
function itemsOf<Row>(
  rows: Row[],
  groupBy: ((row: Row) => string) | undefined,
  groupOrder: readonly string[] | undefined,
): Item<Row>[] {
  const asItem = (row: Row) => ({ kind: 'row' as const, row })
  if (!groupBy) return rows.map(asItem)
  const groups = new Map<string, Row[]>()
  for (const row of rows) {
    const members = groups.get(groupBy(row))
    if (members) members.push(row)
    else groups.set(groupBy(row), [row])
  }
  const place = (name: string) => groupOrder?.indexOf(name) ?? Number(name === '')
  return [...groups]
    .sort(([a], [b]) => place(a) - place(b) || compare(a, b))
    .flatMap(([name, members]) => [
      { kind: 'group' as const, name, count: members.length },
      ...members.map(asItem),
    ])
}
