'use client'

import { useMemo, useState } from 'react'
import { showFarDay, showSpan } from '@/core/calendar'
import { dueDays, forecastUsage, forecastWords, type KnownAhead, type UsageForecast } from '@/core/hours'
import { parseNumber, showNumber } from '@/core/units'
import type { LimitAhead } from '@/core/wear'
import { FieldFrame, TextInput } from '../forms/FieldFrame'
import { unpack, type Packed } from '../frame/packed'
import { useHydrated } from '../frame/useHydrated'
import { HoursChart, type ChartEvent, type ChartPoint, type ChartSpell } from '../graphics/HoursChart'
import { HeadCell, Table, TableBody, TableCell, TableHead, TableRow } from '../table/Table'

type Props = {
  /** What is drawn: a meter's cumulative line, or an assembly's own. */
  line: ChartPoint[]
  /** The line of the meter that counts it, from which the days ahead are forecast; null: nothing counts it. */
  meterLine: ChartPoint[] | null
  share: number
  known: KnownAhead
  limits: LimitAhead[]
  doubts: { at: string; value: number }[]
  corrected: { at: string; value: number }[]
  events: ChartEvent[]
  spells: ChartSpell[]
  unit: string
  today: string
  /** Names the field where a page has several. */
  of: string
}

const listed = 6

/**
 * Hours so far and the fan ahead: what it rests on, the limits it will cross, and the day of any number of
 * hours. Learned and drawn in the browser alone: the server would do it for every look at a page.
 */
export function HoursAhead(props: Props) {
  return useHydrated() ? <Ahead {...props} /> : <div className="chart-room" />
}

type Lines = Pick<Props, 'line' | 'meterLine'>

/** The same for a page made by the server: years of readings are handed over packed. */
export function HoursAheadPacked({ lines, ...props }: Omit<Props, keyof Lines> & { lines: Packed<Lines> }) {
  return <HoursAhead {...props} {...unpack(lines)} />
}

function Ahead(props: Props) {
  const { line, meterLine, share, known, limits, doubts, corrected, events, spells, unit, today, of } = props
  const forecast = useMemo(
    () => (meterLine && share > 0 ? forecastUsage({ points: meterLine }, today, known) : null),
    [meterLine, share, known, today],
  )
  const ahead = limits.slice(0, listed).flatMap((limit) => {
    const days = forecast && dueDays(forecast, limit.meterLeft)
    if (!days?.early || !days.median) return []
    const hours = (line.at(-1)?.hours ?? 0) + (of === 'pump' ? limit.left : limit.meterLeft)
    return [{ ...limit, hours, early: days.early, median: days.median, late: days.late }]
  })
  return (
    <>
      {line.length >= 2 && (
        <HoursChart
          points={line}
          doubts={doubts}
          corrected={corrected}
          events={events}
          spells={spells}
          ahead={
            forecast && {
              addedWithin: (days) => {
                const { mean, low, high } = forecast.hoursWithin(days)
                return { mean: mean * share, low: low * share, high: high * share }
              },
              limits: ahead,
            }
          }
          unit={unit}
          today={today}
        />
      )}
      {forecast ? (
        <>
          <p className="second">
            Rests on {forecastWords(forecast, unit, share)}.
            {forecast.rests.ageDays > 7 && ` The newest reading is ${forecast.rests.ageDays} days old.`}
          </p>
          {ahead.length > 0 && (
            <details>
              <summary>
                {ahead.length === 1 ? 'One limit ahead' : `${ahead.length} limits ahead`}, as numbered
              </summary>
              <LimitsTable limits={ahead} unit={unit} today={today} />
            </details>
          )}
          <AskHours forecast={forecast} share={share} unit={unit} today={today} of={of} />
        </>
      ) : (
        <p className="second">
          {meterLine === null
            ? 'Nothing counts it at present: it lies still.'
            : 'Too few readings, or no use, to say anything of the days ahead.'}
        </p>
      )}
    </>
  )
}

type Crossing = LimitAhead & { hours: number; early: string; median: string; late: string | null }

function LimitsTable({ limits, unit, today }: { limits: Crossing[]; unit: string; today: string }) {
  return (
    <Table className="plain">
      <caption className="visually-hidden">Limits in hours it will come to, nearest first</caption>
      <TableHead>
        <TableRow>
          <HeadCell className="num">
            <span className="visually-hidden">Number in the chart</span>
          </HeadCell>
          <HeadCell>Limit ahead</HeadCell>
          <HeadCell className="num">At</HeadCell>
          <HeadCell className="num">Reached about</HeadCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {limits.map((limit, index) => (
          <TableRow key={limit.key}>
            <TableCell className="num second">{index + 1}</TableCell>
            <TableCell>{limit.label}</TableCell>
            <TableCell className="num nowrap">
              {showNumber(Math.round(limit.hours))}&nbsp;{unit}
            </TableCell>
            <TableCell className="num nowrap">
              <span className="strong">{showFarDay(limit.median, today)}</span>
              <span className="second block">{bandOf(limit, today)}</span>
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  )
}

const bandOf = ({ early, late }: { early: string; late: string | null }, today: string) =>
  `${showSpan(early, late, today)}${late === null ? ', or never' : ''}`

/** "When will it have run another … hours?" */
function AskHours({
  forecast,
  share,
  unit,
  today,
  of,
}: {
  forecast: UsageForecast
  share: number
  unit: string
  today: string
  of: string
}) {
  const [typed, setTyped] = useState('100')
  const parsed = parseNumber(typed, 1)
  const fits = parsed.ok && parsed.value > 0 && parsed.value <= 1e9
  const days = fits ? dueDays(forecast, parsed.value / share) : null
  const id = `ask-${of}`
  return (
    <div className="ask-hours">
      <FieldFrame
        id={id}
        label={`Further ${unit === 'h' ? 'hours' : 'strokes'}`}
        error={fits || typed.trim() === '' ? '' : parsed.ok ? 'Enter more than 0.' : parsed.reason}
      >
        <TextInput
          id={id}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          autoComplete="off"
          error={!fits && typed.trim() !== ''}
          endAdornment={<span className="unit">{unit}</span>}
          inputProps={{ inputMode: 'decimal' }}
        />
      </FieldFrame>
      <p aria-live="polite">
        {days && (
          <>
            <span className="strong">
              {days.median ? `about ${showFarDay(days.median, today)}` : 'not within ten years'}
            </span>
            <span className="second block">
              {days.early
                ? `as early as ${showFarDay(days.early, today)} (10 %), ${
                    days.late ? `by ${showFarDay(days.late, today)} (90 %)` : 'perhaps never'
                  }`
                : ''}
            </span>
          </>
        )}
      </p>
    </div>
  )
}
