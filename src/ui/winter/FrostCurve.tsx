import { dayNumber, daysBetween, showDay } from '@/core/calendar'
import type { WinterYard } from '@/core/winter'
import { hatch } from '../graphics/Hatches'

const width = 528
const left = 24
const top = 26
const high = 148
const bottom = top + high
const perDay = (width - left) / 63

/**
 * The chance that frost has come, by day, with the day on which the crew is done: what lies hatched before it
 * is what is still exposed. One mark below for each machine on its day.
 */
export function FrostCurve({ yard, today }: { yard: WinterYard; today: string }) {
  const points = yard.curve.slice(0, 64)
  if (points.length === 0) return null
  const x = (day: string) => left + daysBetween(today, day) * perDay
  const y = (chance: number) => bottom - chance * high
  const line = points.map(({ day, chance }) => `${x(day).toFixed(1)},${y(chance).toFixed(1)}`).join(' ')
  const { finish, finishRisk } = yard
  const done = finish && finishRisk !== null && x(finish) <= width ? { x: x(finish), risk: finishRisk } : null
  const exposed = points.filter(({ day }) => finish && day <= finish)
  const weeks = points.filter(({ day }, at) => at % 7 === 0 && at > 0 && dayNumber(day) > 0)
  const marked = yard.rows.filter(({ day }) => day !== null && x(day) <= width)
  const perMark = new Map<string, number>()
  const says = [
    ...yard.odds.flatMap(({ chance, day }) =>
      day ? [`${Math.round(chance * 100)} % by ${showDay(day, today)}`] : [],
    ),
    finish && finishRisk !== null
      ? `the crew is done on ${showDay(finish, today)} at ${percent(finishRisk)}`
      : 'the crew does not get to every machine',
  ].join(', ')
  return (
    <svg
      className="frost-curve"
      viewBox={`0 0 ${width} ${bottom + 66}`}
      role="img"
      aria-label={`Chance that frost has come to ${yard.name}: ${says}.`}
    >
      {[0, 50, 100].map((share) => (
        <g key={share}>
          <line x1={left} x2={width} y1={y(share / 100)} y2={y(share / 100)} stroke="var(--line)" />
          <text x={left - 4} y={y(share / 100) + 4} textAnchor="end" className="axis">
            {share}
          </text>
        </g>
      ))}
      <polygon
        points={`${left},${bottom} ${line} ${x(points.at(-1)!.day)},${bottom}`}
        fill="var(--frost-f2)"
      />
      {done && exposed.length > 1 && (
        <polygon
          points={`${left},${bottom} ${exposed.map(({ day, chance }) => `${x(day)},${y(chance)}`).join(' ')} ${done.x},${bottom}`}
          fill={hatch('frost')}
        />
      )}
      <polyline points={line} fill="none" stroke="var(--frost)" strokeWidth="2" />
      {yard.odds.map(({ chance, day }) =>
        day && x(day) < width - 8 ? (
          <g key={chance}>
            <circle
              cx={x(day)}
              cy={y(chance)}
              r="4"
              fill="var(--panel)"
              stroke="var(--frost)"
              strokeWidth="1.5"
            />
            {chance !== 0.1 && (
              <text
                x={x(day) > width - 120 ? x(day) - 8 : x(day) + 9}
                y={y(chance) + (chance > 0.7 ? 16 : 12)}
                textAnchor={x(day) > width - 120 ? 'end' : 'start'}
                className="curve-word frost-word"
              >
                {chance === 0.5 ? 'even odds' : '90 % by'} {showDay(day, today)}
              </text>
            )}
          </g>
        ) : null,
      )}
      <line x1={left} x2={left} y1={top} y2={bottom + 4} stroke="var(--oxide)" strokeWidth="1.5" />
      {done && (
        <g>
          <line
            x1={done.x}
            x2={done.x}
            y1={top - 8}
            y2={bottom + 22}
            stroke="var(--petrol)"
            strokeWidth="2"
          />
          <rect x={done.x} y={top - 8} width="10" height="8" fill="var(--petrol)" />
          <text
            x={done.x > width - 130 ? done.x - 6 : done.x + 14}
            y={top}
            textAnchor={done.x > width - 130 ? 'end' : 'start'}
            className="curve-word strong"
          >
            crew done {showDay(finish!, today)}
          </text>
          <line
            x1={done.x - 5}
            x2={done.x + 5}
            y1={y(done.risk)}
            y2={y(done.risk)}
            stroke="var(--petrol)"
            strokeWidth="2.5"
          />
          <text
            x={done.x < left + 46 ? done.x + 9 : done.x - 9}
            y={y(done.risk) - 7}
            textAnchor={done.x < left + 46 ? 'start' : 'end'}
            className="curve-word strong"
          >
            {percent(done.risk)}
          </text>
        </g>
      )}
      <text x={left} y={bottom + 16} className="axis">
        {showDay(today, today)}
      </text>
      {weeks.map(({ day }, at) =>
        at % 2 === 1 ? (
          <text key={day} x={x(day)} y={bottom + 16} textAnchor="middle" className="axis">
            {showDay(day, today)}
          </text>
        ) : null,
      )}
      {marked.map((row) => {
        const stack = perMark.get(row.day!) ?? 0
        perMark.set(row.day!, stack + 1)
        if (stack > 2) return null
        const bad = row.state === 'void' || row.state === 'failed' || row.state === 'exposed'
        const at = { x: x(row.day!) - 4, y: bottom + 24 + stack * 13 }
        return bad ? (
          <path key={row.machineId} d={`M${at.x + 4} ${at.y}l5.5 9.5h-11z`} fill="var(--oxide)" />
        ) : (
          <rect
            key={row.machineId}
            x={at.x}
            y={at.y}
            width="8"
            height="9"
            fill={row.booked ? 'var(--petrol)' : 'none'}
            stroke="var(--petrol)"
            strokeWidth="1.5"
          />
        )
      })}
    </svg>
  )
}

const percent = (chance: number) => (chance < 0.01 ? 'under 1 %' : `${Math.round(chance * 100)} %`)
