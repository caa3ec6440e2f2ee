'use client'

import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { useState } from 'react'
import {
  CartesianGrid,
  ComposedChart,
  Line,
  ReferenceLine,
  ResponsiveContainer,
  Scatter,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts'
import { showDay } from '@/core/calendar'
import { showNumber } from '@/core/units'

export type ChartPoint = { at: string; hours: number; source: 'reading' | 'event' }
type Doubt = { at: string; value: number }
type Event = { at: string; kind: 'change' | 'rollOver' }

type Props = { points: ChartPoint[]; doubts: Doubt[]; events: Event[]; unit: string; today: string }

const spans = { 12: '12 weeks', 52: '1 year', 0: 'All' } as const
const msPerWeek = 7 * 86_400_000

/** Cumulative hours: solid points are accepted readings, hollow ones in doubt, a post where the meter was changed. */
export function HoursChart({ points, doubts, events, unit, today }: Props) {
  const [weeks, setWeeks] = useState<0 | 12 | 52>(12)
  const end = Date.parse(`${today}T23:59:59Z`)
  const start = weeks === 0 ? 0 : end - weeks * msPerWeek
  const from = Math.max(0, points.findIndex((point) => Date.parse(point.at) >= start) - 1)
  const shown = points.slice(points.some((point) => Date.parse(point.at) >= start) ? from : -2)
  const data = shown.map((point) => ({
    time: Date.parse(point.at),
    hours: point.hours,
    source: point.source,
  }))
  const low = data[0]?.hours ?? 0
  const high = data.at(-1)?.hours ?? 0
  // A reading ten times too big would flatten the line: it is drawn at the chart's edge.
  const ceiling = high + Math.max((high - low) * 0.25, 5)
  const doubtful = doubts
    .filter((doubt) => Date.parse(doubt.at) >= start)
    .map((doubt) => ({ time: Date.parse(doubt.at), hours: Math.min(Math.max(doubt.value, low), ceiling) }))
  const first = data[0]?.time ?? end
  const ticks = niceTicks(low, doubtful.length > 0 ? ceiling : high)
  const sentence = `Hours from ${showNumber(Math.round(low))} to ${showNumber(Math.round(high))} ${unit} since ${showDay(isoDay(first), today)}, ${data.length} readings${
    doubtful.length > 0 ? `, ${doubtful.length} in doubt` : ''
  }.`
  return (
    <figure aria-label={sentence} role="img">
      <ResponsiveContainer width="100%" height={188} initialDimension={{ width: 424, height: 188 }}>
        <ComposedChart
          data={data}
          margin={{ top: 12, right: 12, bottom: 0, left: 0 }}
          accessibilityLayer={false}
        >
          <CartesianGrid vertical={false} stroke="var(--line)" />
          <XAxis
            dataKey="time"
            type="number"
            scale="time"
            domain={[first, end]}
            tickFormatter={(time: number) => showDay(isoDay(time), today).replace('\u00a0', ' ')}
            tick={tick}
            stroke="var(--edge)"
            minTickGap={36}
          />
          <YAxis
            domain={[ticks[0] ?? 0, ticks.at(-1) ?? 1]}
            ticks={ticks}
            tickFormatter={(value: number) => showNumber(Math.round(value))}
            tick={tick}
            stroke="none"
            width={52}
          />
          {events.map((event) => (
            <ReferenceLine
              key={event.at}
              x={Date.parse(event.at)}
              stroke="var(--ink)"
              strokeWidth={2}
              ifOverflow="hidden"
              label={{
                value: event.kind === 'change' ? 'new meter' : 'through zero',
                position: 'insideTopLeft',
                fontSize: 11,
                fill: 'var(--ink)',
              }}
            />
          ))}
          <Tooltip
            formatter={(value) => [`${showNumber(Number(value), 1)} ${unit}`, 'cumulative']}
            labelFormatter={(time) => showDay(isoDay(Number(time)), today)}
            contentStyle={{
              background: 'var(--panel)',
              border: '1px solid var(--edge)',
              borderRadius: 4,
              color: 'var(--ink)',
              fontSize: 12,
            }}
          />
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
          {doubtful.length > 0 && (
            <Scatter data={doubtful} dataKey="hours" isAnimationActive={false} shape={<DoubtMark />} />
          )}
        </ComposedChart>
      </ResponsiveContainer>
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

/** Three to five round values that span from low to high. */
function niceTicks(low: number, high: number): number[] {
  const rough = Math.max(high - low, 1) / 3
  const power = 10 ** Math.floor(Math.log10(rough))
  const step = [1, 2, 5, 10].map((factor) => factor * power).find((candidate) => candidate >= rough) ?? power
  const start = Math.floor(low / step) * step
  return Array.from({ length: Math.ceil((high - start) / step) + 1 }, (_, index) => start + index * step)
}

const tick = { fontSize: 11, fill: 'var(--muted)' }

const isoDay = (time: number) => new Date(time).toISOString().slice(0, 10)

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
