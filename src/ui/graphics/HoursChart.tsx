'use client'

import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { useState } from 'react'
import {
  Area,
  CartesianGrid,
  ComposedChart,
  Line,
  ReferenceArea,
  ReferenceLine,
  ResponsiveContainer,
  Scatter,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts'
import { showDay } from '@/core/calendar'
import { showNumber } from '@/core/units'
import { niceTicks } from './ticks'

export type ChartPoint = { at: string; hours: number; source: 'reading' | 'event' }
/** Something that happened to the meter or to what it counts, in a word or two. */
export type ChartEvent = { at: string; words: string; strong: boolean }
/** Days a machine stands or is booked; a lay-up without an end goes on. */
export type ChartSpell = { kind: 'layUp' | 'job'; fromDay: string; toDay: string | null; what: string }
/** What is to come: hours added by a number of days after the last point, and limits it will cross. */
export type ChartAhead = {
  addedWithin: (days: number) => { mean: number; low: number; high: number }
  limits: { key: string; hours: number; early: string; median: string; late: string | null }[]
}
type Value = { at: string; value: number }

type Props = {
  points: ChartPoint[]
  doubts: Value[]
  corrected: Value[]
  events: ChartEvent[]
  spells: ChartSpell[]
  ahead: ChartAhead | null
  unit: string
  today: string
}

const spans = { 12: '12 weeks', 52: '1 year', 0: 'All' } as const
const aheadWeeks = { 12: 8, 52: 26, 0: 26 } as const
const msPerDay = 86_400_000
const msPerWeek = 7 * msPerDay

/**
 * Cumulative hours: solid points are accepted readings, hollow ones in doubt, dashed ones corrected since;
 * posts where something happened; hatched where it is laid up; the fan ahead and the limits it crosses.
 */
export function HoursChart({ points, doubts, corrected, events, spells, ahead, unit, today }: Props) {
  const [weeks, setWeeks] = useState<0 | 12 | 52>(12)
  const now = Date.parse(`${today}T23:59:59Z`)
  const start = weeks === 0 ? 0 : now - weeks * msPerWeek
  const end = ahead ? now + aheadWeeks[weeks] * msPerWeek : now
  const from = Math.max(0, points.findIndex((point) => Date.parse(point.at) >= start) - 1)
  const shown = points.slice(points.some((point) => Date.parse(point.at) >= start) ? from : -2)
  const past = shown.map((point) => ({ time: Date.parse(point.at), hours: point.hours }))
  const low = past[0]?.hours ?? 0
  const high = past.at(-1)?.hours ?? 0
  const first = past[0]?.time ?? now
  const fan = ahead ? fanOf(ahead, past.at(-1)!, end) : []
  const top = fan.at(-1)?.band[1] ?? high
  // A reading ten times too big would flatten the line: it is drawn at the chart's edge.
  const ceiling = Math.max(top, high + Math.max((high - low) * 0.25, 5))
  const inside = (list: Value[]) =>
    list
      .filter((each) => Date.parse(each.at) >= first)
      .map((each) => ({ time: Date.parse(each.at), mark: Math.min(Math.max(each.value, low), ceiling) }))
  const doubtful = inside(doubts)
  const ticks = niceTicks(low, doubtful.length > 0 || ahead ? ceiling : high)
  const floor = ticks[0] ?? 0
  const limits = together(
    (ahead?.limits ?? [])
      .map((limit, index) => ({ ...limit, number: index + 1 }))
      .filter((limit) => limit.hours <= top && Date.parse(limit.median) < end),
    ((ticks.at(-1) ?? 1) - floor) / 16,
  )
  const sentence = [
    `Hours from ${showNumber(Math.round(low))} to ${showNumber(Math.round(high))} ${unit} since ${showDay(isoDay(first), today)}, ${past.length} points`,
    doubtful.length > 0 && `${doubtful.length} in doubt`,
    ahead &&
      `by ${showDay(isoDay(end), today)} between ${showNumber(Math.round(fan.at(-1)!.band[0]))} and ${showNumber(Math.round(top))}`,
    limits.length > 0 && `limits ${limits.map((limit) => limit.words).join(', ')} on the way`,
  ]
    .filter(Boolean)
    .join(', ')
  return (
    <figure>
      {/* Told in words: what is drawn can be pointed at, and an image holds nothing that can. */}
      <figcaption className="visually-hidden">{sentence}.</figcaption>
      <div aria-hidden>
        <ResponsiveContainer
          width="100%"
          height={ahead ? 236 : 188}
          initialDimension={{ width: 424, height: 188 }}
        >
          <ComposedChart
            data={[...past, ...fan]}
            margin={{ top: 12, right: 12, bottom: 0, left: 0 }}
            accessibilityLayer={false}
          >
            <defs>
              <pattern
                id="chart-hatch"
                width="6"
                height="6"
                patternUnits="userSpaceOnUse"
                patternTransform="rotate(45)"
              >
                <line x1="0" y1="0" x2="0" y2="6" stroke="var(--edge)" strokeWidth="1.4" />
              </pattern>
            </defs>
            <CartesianGrid vertical={false} stroke="var(--line)" />
            <XAxis
              dataKey="time"
              type="number"
              scale="time"
              domain={[first, end]}
              ticks={Array.from({ length: 5 }, (_, index) => first + ((end - first) * (index + 0.5)) / 5)}
              tickFormatter={(time: number) => showDay(isoDay(time), today).replace('\u00a0', ' ')}
              tick={tick}
              stroke="var(--edge)"
              minTickGap={36}
              allowDataOverflow
            />
            <YAxis
              domain={[floor, ticks.at(-1) ?? 1]}
              ticks={ticks}
              tickFormatter={(value: number) => showNumber(Math.round(value))}
              tick={tick}
              stroke="none"
              width={52}
            />
            {spells
              .map((spell) => ({
                ...spell,
                x1: Math.max(first, Date.parse(spell.fromDay)),
                x2: Math.min(end, spell.toDay === null ? end : Date.parse(spell.toDay) + msPerDay),
              }))
              .filter(({ x1, x2 }) => x2 > x1)
              .map(({ kind, fromDay, what, x1, x2 }) => (
                <ReferenceArea
                  key={`${kind} ${fromDay}`}
                  x1={x1}
                  x2={x2}
                  fill="url(#chart-hatch)"
                  fillOpacity={0.6}
                  stroke="none"
                  {...(kind === 'job' ? { shape: JobBar } : {})}
                  label={{
                    value: kind === 'layUp' ? 'laid up' : what,
                    position: kind === 'layUp' ? 'insideBottom' : 'insideBottomLeft',
                    dy: kind === 'layUp' ? 0 : -8,
                    fontSize: 11,
                    fill: 'var(--ink)',
                  }}
                />
              ))}
            {ahead && (
              <ReferenceLine
                x={now}
                stroke="var(--oxide)"
                strokeWidth={1.5}
                label={{ value: 'today', position: 'insideBottomRight', fontSize: 11, fill: 'var(--muted)' }}
              />
            )}
            {events
              .filter((event) => Date.parse(event.at) >= first)
              .map((event, index) => (
                <ReferenceLine
                  key={event.at + event.words}
                  x={Date.parse(event.at)}
                  stroke="var(--ink)"
                  strokeWidth={event.strong ? 2 : 1}
                  strokeDasharray={event.strong ? undefined : '3 3'}
                  ifOverflow="hidden"
                  label={{
                    value: event.words,
                    position: 'insideTopLeft',
                    dy: (index % 3) * 13,
                    fontSize: 11,
                    fill: 'var(--ink)',
                  }}
                />
              ))}
            <Tooltip
              formatter={(value, name) =>
                Array.isArray(value)
                  ? [value.map((each) => showNumber(Math.round(Number(each)))).join(' to '), '10 to 90 %']
                  : [`${showNumber(Number(value), 1)} ${unit}`, name === 'mean' ? 'expected' : 'cumulative']
              }
              labelFormatter={(time) => showDay(isoDay(Number(time)), today)}
              contentStyle={{
                background: 'var(--panel)',
                border: '1px solid var(--edge)',
                borderRadius: 4,
                color: 'var(--ink)',
                fontSize: 12,
              }}
            />
            {ahead && (
              <>
                <Area
                  dataKey="band"
                  type="linear"
                  fill="var(--petrol-tint)"
                  fillOpacity={1}
                  stroke="var(--petrol)"
                  strokeOpacity={0.5}
                  strokeWidth={1}
                  isAnimationActive={false}
                  activeDot={false}
                />
                <Line
                  dataKey="mean"
                  type="linear"
                  stroke="var(--petrol)"
                  strokeWidth={1.6}
                  strokeDasharray="5 4"
                  dot={false}
                  isAnimationActive={false}
                />
              </>
            )}
            {limits.map((limit) => (
              <ReferenceLine
                key={`${limit.key} line`}
                segment={[
                  { x: now, y: limit.hours },
                  { x: end, y: limit.hours },
                ]}
                stroke="var(--ink)"
                strokeWidth={1}
                label={{
                  value: limit.words,
                  position: 'insideBottomLeft',
                  fontSize: 11,
                  fill: 'var(--ink)',
                }}
              />
            ))}
            {limits.map((limit) => {
              const x1 = Date.parse(limit.early)
              const x2 = Math.min(end, limit.late === null ? end : Date.parse(limit.late))
              return (
                <ReferenceArea
                  key={limit.key}
                  x1={x1}
                  x2={Math.max(x2, x1 + msPerDay / 2)}
                  y1={limit.hours}
                  y2={limit.hours}
                  shape={(box: Box) => (
                    <Lens
                      {...box}
                      median={(Date.parse(limit.median) - x1) / Math.max(x2 - x1, msPerDay / 2)}
                    />
                  )}
                />
              )
            })}
            <Line
              dataKey="hours"
              type="linear"
              stroke="var(--petrol)"
              strokeWidth={2}
              isAnimationActive={false}
              dot={
                weeks === 12
                  ? { r: 3.2, fill: 'var(--ground)', stroke: 'var(--petrol)', strokeWidth: 1.6 }
                  : false
              }
            />
            {corrected.length > 0 && (
              <Scatter
                data={inside(corrected)}
                dataKey="mark"
                isAnimationActive={false}
                shape={<CorrectedMark />}
              />
            )}
            {doubtful.length > 0 && (
              <Scatter data={doubtful} dataKey="mark" isAnimationActive={false} shape={<DoubtMark />} />
            )}
          </ComposedChart>
        </ResponsiveContainer>
      </div>
      <ToggleButtonGroup
        exclusive
        size="small"
        value={weeks}
        aria-label="Span of the chart"
        onChange={(_event, choice: 0 | 12 | 52 | null) => choice !== null && setWeeks(choice)}
      >
        {([12, 52, 0] as const).map((span) => (
          <ToggleButton key={span} value={span}>
            {spans[span]}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
    </figure>
  )
}

/** Limits that lie too close to be drawn apart become one line with all their numbers: "2–5". */
function together<Limit extends { hours: number; number: number }>(limits: Limit[], apart: number) {
  const groups: Limit[][] = []
  for (const limit of limits) {
    const last = groups.at(-1)
    if (last && limit.hours - last[0]!.hours < apart) last.push(limit)
    else groups.push([limit])
  }
  return groups.map((group) => {
    const [from, to] = [group[0]!, group.at(-1)!]
    return { ...from, words: from === to ? String(from.number) : `${from.number}–${to.number}` }
  })
}

/** The fan from the last point on: expected hours, and the band around them. */
function fanOf(ahead: ChartAhead, last: { time: number; hours: number }, end: number) {
  const days = Math.max(1, (end - last.time) / msPerDay)
  const steps = Math.min(Math.ceil(days), 64)
  return Array.from({ length: steps + 1 }, (_, index) => {
    const after = (days * index) / steps
    const { mean, low, high } = ahead.addedWithin(after)
    return {
      time: last.time + after * msPerDay,
      mean: last.hours + mean,
      band: [last.hours + low, last.hours + high] as [number, number],
    }
  })
}

const tick = { fontSize: 11, fill: 'var(--muted)' }

const isoDay = (time: number) => new Date(time).toISOString().slice(0, 10)

type Box = { x?: number; y?: number; width?: number; height?: number }

/** Where a limit is reached: 10 to 90 % of the chances between its tips, the post at the middle one. */
function Lens({ x = 0, y = 0, width = 0, median }: Box & { median: number }) {
  const at = x + Math.min(1, Math.max(0, median)) * width
  return (
    <g>
      <path
        d={`M${x} ${y} Q${at} ${y - 16} ${x + width} ${y} Q${at} ${y + 16} ${x} ${y}Z`}
        fill="var(--panel)"
        stroke="var(--petrol)"
        strokeWidth="1.3"
      />
      <line x1={at} y1={y - 7} x2={at} y2={y + 7} stroke="var(--petrol)" strokeWidth="2" />
    </g>
  )
}

/** Days of a booked job: a solid bar on the floor of the chart. */
function JobBar({ x = 0, y = 0, width = 0, height = 0 }: Box) {
  return <rect x={x} y={y + height - 7} width={width} height={7} fill="var(--petrol)" />
}

function DoubtMark({ cx = 0, cy = 0 }: { cx?: number; cy?: number }) {
  return (
    <path
      d={`M${cx} ${cy - 6} l5 6 -5 6 -5 -6Z`}
      fill="var(--ground)"
      stroke="var(--oxide)"
      strokeWidth="1.6"
    />
  )
}

function CorrectedMark({ cx = 0, cy = 0 }: { cx?: number; cy?: number }) {
  return (
    <circle cx={cx} cy={cy} r="4" fill="none" stroke="var(--muted)" strokeWidth="1.4" strokeDasharray="2 2" />
  )
}
