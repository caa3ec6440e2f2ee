'use client'

import {
  Area,
  CartesianGrid,
  ComposedChart,
  Line,
  ReferenceLine,
  ResponsiveContainer,
  XAxis,
  YAxis,
} from 'recharts'
import { showDay } from '@/core/calendar'
import { showAmount, type StockOnDay } from '@/core/stores'
import { niceTicks } from './ticks'

type Props = {
  weeks: StockOnDay[]
  unit: string
  /** The least to have; 0 where none is kept. */
  minimum: number
  /** The first day by which running short is likelier than is taken. */
  shortFrom: string | null
  today: string
}

const tick = { fontSize: 11, fill: 'var(--muted)' }

/**
 * A part's stock to come: the middle of it as a line that falls in steps, the band from 5 to 95 %, the ink
 * post of the least to have, and below nothing what would be missing.
 */
export function StockChart({ weeks, unit, minimum, shortFrom, today }: Props) {
  const points = weeks.map(({ day, low, median, high }) => ({
    time: Date.parse(day),
    band: [low, high] as [number, number],
    median,
  }))
  const lows = weeks.map(({ low }) => low)
  const highs = weeks.map(({ high }) => high)
  const ticks = niceTicks(Math.min(0, ...lows), Math.max(minimum, 3, ...highs))
  const last = weeks.at(-1)!
  return (
    <figure>
      {/* Told in words: what is drawn can be pointed at, and an image holds nothing that can. */}
      <figcaption className="visually-hidden">
        From {showAmount(weeks[0]!.median, unit)} today to {showAmount(last.median, unit)} by{' '}
        {showDay(last.day, today)}, with 5 to 95 % between {showAmount(last.low, unit)} and{' '}
        {showAmount(last.high, unit)}.
      </figcaption>
      <div aria-hidden>
        <ResponsiveContainer width="100%" height={212} initialDimension={{ width: 520, height: 212 }}>
          <ComposedChart
            data={points}
            margin={{ top: 12, right: 12, bottom: 0, left: 0 }}
            accessibilityLayer={false}
          >
            <CartesianGrid vertical={false} stroke="var(--line)" />
            <XAxis
              dataKey="time"
              type="number"
              scale="time"
              domain={['dataMin', 'dataMax']}
              ticks={points.filter((_, index) => index % 5 === 0).map(({ time }) => time)}
              tickFormatter={(time: number) =>
                showDay(new Date(time).toISOString().slice(0, 10), today).replace('\u00a0', ' ')
              }
              tick={tick}
              stroke="var(--edge)"
              minTickGap={24}
            />
            <YAxis
              domain={[ticks[0] ?? 0, ticks.at(-1) ?? 1]}
              ticks={ticks}
              tickFormatter={(value: number) => showAmount(value, unit)}
              tick={tick}
              stroke="none"
              width={52}
            />
            <Area
              dataKey="band"
              type="stepAfter"
              fill="var(--petrol-tint)"
              fillOpacity={1}
              stroke="var(--petrol)"
              strokeOpacity={0.5}
              isAnimationActive={false}
              activeDot={false}
            />
            <ReferenceLine y={0} stroke="var(--ink)" strokeWidth={1.5} />
            {minimum > 0 && (
              <ReferenceLine
                y={minimum}
                stroke="var(--ink)"
                strokeDasharray="3 3"
                label={{
                  value: 'least to have',
                  position: 'insideTopRight',
                  fontSize: 11,
                  fill: 'var(--ink)',
                }}
              />
            )}
            {shortFrom !== null && (
              <ReferenceLine
                x={Date.parse(shortFrom)}
                stroke="var(--oxide)"
                strokeWidth={1.5}
                ifOverflow="hidden"
              />
            )}
            <Line
              dataKey="median"
              type="stepAfter"
              stroke="var(--petrol)"
              strokeWidth={2}
              dot={false}
              isAnimationActive={false}
            />
          </ComposedChart>
        </ResponsiveContainer>
      </div>
    </figure>
  )
}
