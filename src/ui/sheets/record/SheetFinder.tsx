'use client'

import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import { useWindowVirtualizer } from '@tanstack/react-virtual'
import { useEffect, useLayoutEffect, useRef, useState } from 'react'
import { showMonth } from '@/core/calendar'
import { damages, type Damage } from '@/core/inspection'
import { anySheet, type SheetLine, type SheetQuery } from '@/core/sheets'
import { Note } from '../../feedback/States'
import { SelectInput, TextInput } from '../../forms/FieldFrame'
import { SheetWords } from './SheetList'

type Found = { lines: SheetLine[]; total: number }
type Props = {
  start: Found
  choices: { people: string[]; months: string[]; damages: string[]; causes: string[] }
  today: string
}

/** Somebody who goes on typing is not asked after each letter. */
const settled = 200

async function ask(query: SheetQuery, skip: number, signal: AbortSignal): Promise<Found> {
  const { breakdown, ...texts } = query
  const search = new URLSearchParams({ ...texts, skip: String(skip), ...(breakdown && { breakdown: '1' }) })
  const answer = await fetch(`/api/sheets/find?${search}`, { signal })
  if (!answer.ok) throw new Error(answer.statusText)
  return (await answer.json()) as Found
}

/** Closed sheets, found by any word on them, by whom, when, what was seen; thousands of them scroll. */
export function SheetFinder({ start, choices, today }: Props) {
  const [query, setQuery] = useState(anySheet)
  const [found, setFound] = useState({ ...start, of: anySheet })
  const [failed, setFailed] = useState(false)
  const change = (values: Partial<SheetQuery>) => setQuery((known) => ({ ...known, ...values }))

  useEffect(() => {
    if (query === found.of) return
    const stop = new AbortController()
    const wait = setTimeout(() => {
      ask(query, 0, stop.signal)
        .then((answer) => {
          setFound({ ...answer, of: query })
          setFailed(false)
        })
        .catch(() => !stop.signal.aborted && setFailed(true))
    }, settled)
    return () => {
      clearTimeout(wait)
      stop.abort()
    }
  }, [query, found.of])

  const list = useRef<HTMLUListElement>(null)
  const [top, setTop] = useState(0)
  useLayoutEffect(() => {
    if (list.current) setTop(list.current.getBoundingClientRect().top + window.scrollY)
  }, [])
  const virtual = useWindowVirtualizer({
    count: found.lines.length,
    estimateSize: () => 47,
    getItemKey: (index) => found.lines[index]!.id,
    overscan: 12,
    initialRect: { width: 1280, height: 800 },
    scrollMargin: top,
  })
  const seen = virtual.getVirtualItems()
  const last = seen.at(-1)?.index ?? 0
  // The next portion is asked for before its place is reached.
  const wantsMore = found.lines.length < found.total && last > found.lines.length - 30
  useEffect(() => {
    if (!wantsMore || query !== found.of) return
    const stop = new AbortController()
    ask(found.of, found.lines.length, stop.signal)
      .then(({ lines, total }) =>
        setFound((known) => {
          const have = new Set(known.lines.map(({ id }) => id))
          return { ...known, total, lines: [...known.lines, ...lines.filter(({ id }) => !have.has(id))] }
        }),
      )
      .catch(() => !stop.signal.aborted && setFailed(true))
    return () => stop.abort()
  }, [wantsMore, query, found.of, found.lines.length])

  const select = (
    name: 'person' | 'month' | 'damage' | 'cause',
    label: string,
    anything: string,
    options: { value: string; label: string }[],
  ) =>
    options.length > 0 && (
      <div>
        <SelectInput
          id={`sheets-${name}`}
          placeholder={anything}
          value={query[name]}
          onChange={(event) => change({ [name]: event.target.value })}
          options={options}
          inputProps={{ 'aria-label': label }}
        />
      </div>
    )
  const asIs = (values: string[]) => values.map((value) => ({ value, label: value }))
  return (
    <>
      <div className="filters" role="search">
        <div className="search">
          <TextInput
            id="sheets-words"
            placeholder="Machine, pump, service, words"
            value={query.words}
            onChange={(event) => change({ words: event.target.value })}
            inputProps={{ 'aria-label': 'Search sheets', type: 'search' }}
          />
        </div>
        {select('person', 'Worked by', 'Anybody', asIs(choices.people))}
        {select(
          'month',
          'Month',
          'Any month',
          choices.months.map((value) => ({ value, label: showMonth(value) })),
        )}
        {select(
          'damage',
          'Seen on a part',
          'Whatever was seen',
          choices.damages.map((value) => ({ value, label: damages[value as Damage] ?? value })),
        )}
        {select('cause', 'Points to', 'Whatever it points to', asIs(choices.causes))}
        <FormControlLabel
          control={
            <Checkbox
              size="small"
              checked={query.breakdown}
              onChange={(_event, checked) => change({ breakdown: checked })}
            />
          }
          label="Breakdowns only"
        />
        <span className="second" role="status">
          {query === found.of
            ? `${found.total} ${found.total === 1 ? 'sheet' : 'sheets'}`
            : failed
              ? ''
              : 'looking …'}
        </span>
      </div>
      {failed && (
        <Note tone="oxide" title="Atelier could not be reached.">
          What is listed is what was found before.
        </Note>
      )}
      {found.total === 0 && <p className="second">No closed sheet fits. Take out a word or a choice.</p>}
      <ul
        className="line-list long"
        ref={list}
        aria-label="Closed sheets"
        style={{ height: virtual.getTotalSize() }}
      >
        {seen.map(({ index, key, start: y }) => {
          const sheet = found.lines[index]!
          return (
            <li
              key={key}
              ref={virtual.measureElement}
              data-index={index}
              aria-setsize={found.total}
              aria-posinset={index + 1}
              className={sheet.state === 'abandoned' ? 'receding' : undefined}
              style={{ transform: `translateY(${y - top}px)` }}
            >
              <SheetWords sheet={sheet} today={today} />
            </li>
          )
        })}
      </ul>
    </>
  )
}
