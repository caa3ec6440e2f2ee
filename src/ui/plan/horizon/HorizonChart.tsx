'use client'

import { addDays, dayNumber, daysBetween, showDay } from '@/core/calendar'
import { type BenchLoad, type Fleet, type HorizonYard, type Proposal } from '@/core/plan'
import { Row } from './HorizonMarks'
import type { Selected } from './selected'

/** Days by which frost has come in a yard, with these chances. */
export type YardFrostDays = { yardId: string; odds: { chance: number; day: string }[] }

type Props = {
  fleet: Fleet
  yards: HorizonYard[]
  frost: YardFrostDays[]
  load: { free: number; booked: number }[]
  benches: BenchLoad[]
  perDay: number
  width: number
  proposals: Proposal[]
  selected: Selected | null
  select: (selected: Selected) => void
  movable: boolean
}

/** The drawn horizon: a band for each yard, a row for each machine, and the crew's weeks beneath. */
export function HorizonChart(props: Props) {
  const { fleet, yards, frost, load, benches, perDay, width } = props
  const weekWidth = perDay * 7
  const monday = (8 - (((dayNumber(fleet.today) + 3) % 7) + 1)) % 7
  const marks = Array.from({ length: fleet.weeks }, (_, week) => monday + week * 7)
  const every = Math.max(1, Math.ceil(52 / weekWidth))
  const end = fleet.weeks * 7 - 1
  const closed = fleet.terms.closed.flatMap((span) => {
    const from = Math.max(0, daysBetween(fleet.today, span.from))
    const to = Math.min(end, daysBetween(fleet.today, span.to))
    return to >= from ? [{ from, to }] : []
  })
  const heaviest = Math.max(1, ...load.map(({ free, booked }) => Math.max(free, booked)))
  return (
    <div
      className="horizon-chart"
      style={{ ['--weeks-at' as string]: `${monday * perDay}px`, ['--week' as string]: `${weekWidth}px` }}
    >
      <div className="horizon-head">
        <span />
        <div className="horizon-axis" style={{ width }}>
          {marks
            .filter((day, at) => at % every === 0 && day < fleet.weeks * 7 - 3)
            .map((day) => (
              <span key={day} style={{ left: day * perDay }}>
                {showDay(addDays(fleet.today, day), fleet.today).replace(/ \d{4}$/, '')}
              </span>
            ))}
        </div>
      </div>
      {yards.map((yard) => {
        const odds = (frost.find(({ yardId }) => yardId === yard.id)?.odds ?? [])
          .map(({ chance, day }) => ({ chance, at: daysBetween(fleet.today, day) }))
          .filter(({ at }) => at < fleet.weeks * 7)
        return (
          <section key={yard.id} className="horizon-yard" aria-label={yard.name}>
            <div className="horizon-band">
              <strong>{yard.name}</strong>
              <div style={{ width }}>
                {odds
                  .filter(
                    ({ chance, at }, index) =>
                      chance >= 0.5 &&
                      at >= 0 &&
                      !odds.some((later, place) => place > index && (later.at - at) * perDay < 96),
                  )
                  .map(({ chance, at }) => (
                    <span key={chance} style={{ left: at * perDay }}>
                      {chance >= 0.9 ? 'frost 90 % likely' : 'even odds'}{' '}
                      {showDay(addDays(fleet.today, at), fleet.today)}
                    </span>
                  ))}
              </div>
            </div>
            <div className="horizon-rows">
              {odds.map(({ chance, at }) => (
                <span
                  key={chance}
                  className={`horizon-frost frost-${Math.round(chance * 10)}`}
                  style={{ left: 160 + Math.max(0, at) * perDay, width: width - Math.max(0, at) * perDay }}
                />
              ))}
              {closed.map(({ from, to }) => (
                <span
                  key={from}
                  className="horizon-closed"
                  title="closed"
                  style={{ left: 160 + from * perDay, width: Math.max(2, (to - from + 1) * perDay) }}
                />
              ))}
              {yard.rows.map((row) => (
                <Row key={row.machineId} row={row} {...props} />
              ))}
            </div>
          </section>
        )
      })}
      <div className="horizon-load">
        <div>
          <strong>Crew load</strong>
          <span className="second">booked of free hours, {fleet.crew.length} technicians</span>
        </div>
        <div className="horizon-weeks" style={{ width }}>
          {load.map(({ free, booked }, week) => {
            const tall = (minutes: number) => (44 * minutes) / heaviest
            const isOver = booked > free
            return (
              <div
                key={week}
                style={{ width: weekWidth }}
                role="img"
                aria-label={`Week of ${showDay(addDays(fleet.today, week * 7), fleet.today)}: ${Math.round(booked / 60)} of ${Math.round(free / 60)} hours`}
              >
                <svg width={Math.max(3, weekWidth - 6)} height="48" aria-hidden="true">
                  <rect
                    x="0.5"
                    y={47 - tall(free)}
                    width={Math.max(2, weekWidth - 7)}
                    height={tall(free)}
                    fill="var(--panel)"
                    stroke="var(--edge)"
                  />
                  <rect
                    x="0.5"
                    y={47 - tall(booked)}
                    width={Math.max(2, weekWidth - 7)}
                    height={tall(booked)}
                    fill={isOver ? 'var(--oxide)' : 'var(--petrol)'}
                  />
                  <line
                    x1="0"
                    x2={Math.max(3, weekWidth - 6)}
                    y1={47 - tall(free)}
                    y2={47 - tall(free)}
                    stroke="var(--ink)"
                    strokeWidth="2"
                  />
                </svg>
                {weekWidth >= 40 && (
                  <span className={isOver ? 'oxide strong' : 'second'}>
                    {Math.round(booked / 60)}/{Math.round(free / 60)}
                  </span>
                )}
              </div>
            )
          })}
        </div>
      </div>
      {benches.map(({ yardId, name, places, weeks }) => (
        <div key={yardId} className="horizon-load bench">
          <div>
            <strong>Benches, {name}</strong>
            <span className="second">most visits on a day, {places} places</span>
          </div>
          <div className="horizon-weeks" style={{ width }}>
            {weeks.map((most, week) => (
              <div
                key={week}
                style={{ width: weekWidth }}
                role="img"
                aria-label={`Week of ${showDay(addDays(fleet.today, week * 7), fleet.today)}: at most ${most} visits a day for ${places} places`}
              >
                <span className={most > places ? 'oxide strong' : most === places ? 'brass' : 'second'}>
                  {weekWidth >= 40 ? `${most}/${places}` : most > places ? '!' : ''}
                </span>
              </div>
            ))}
          </div>
        </div>
      ))}
    </div>
  )
}
