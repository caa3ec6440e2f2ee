import {
  elementKinds,
  elementLitres,
  zoneNames,
  zoneOf,
  type CircuitElement,
  type Zone,
  type ZoneState,
} from '@/core/winter'
import { showLitres } from './words'

const cell = 74
const perRow = 12

/**
 * The water side drawn as one line from tank to nozzle: what each piece holds, whether it drains by itself
 * (open at the foot) or keeps its water (a trap), and how its zone stands.
 */
export function CircuitLine({
  circuit,
  states,
}: {
  circuit: CircuitElement[]
  states: Partial<Record<Zone, ZoneState>>
}) {
  if (circuit.length === 0) return <p className="second">Nothing of it holds water.</p>
  const rows = Math.ceil(circuit.length / perRow)
  const columns = Math.min(perRow, circuit.length)
  const known = circuit.filter((element) => elementLitres(element) !== null).length
  return (
    <div className="circuit-line">
      <svg
        width={columns * cell + 8}
        height={rows * 96}
        role="img"
        aria-label={`${circuit.length} pieces from ${elementKinds[circuit[0]!.kind].toLowerCase()} to ${elementKinds[circuit.at(-1)!.kind].toLowerCase()}, ${known} with a known volume.`}
      >
        {circuit.map((element, at) => {
          const x = (at % perRow) * cell
          const y = Math.floor(at / perRow) * 96
          const zone = zoneOf[element.kind]
          const state = states[zone] ?? 'inUse'
          const litres = elementLitres(element)
          const safe = state === 'protected'
          const bad = state === 'void' || state === 'failed' || state === 'exposed'
          const first = at === 0 || zoneOf[circuit[at - 1]!.kind] !== zone
          return (
            <g key={element.id} transform={`translate(${x} ${y})`}>
              {at > 0 && at % perRow !== 0 && (
                <line x1={-14} x2={10} y1="38" y2="38" stroke="var(--edge)" strokeWidth="1.5" />
              )}
              {first && (
                <text x="10" y="14" fontSize="11" fill="var(--muted)" style={{ fontStretch: '80%' }}>
                  {zoneNames[zone]}
                </text>
              )}
              <rect
                x="10"
                y="22"
                width={cell - 24}
                height="32"
                fill={safe ? 'var(--frost)' : 'var(--panel)'}
                stroke={bad ? 'var(--oxide)' : 'var(--edge)'}
                strokeWidth={bad ? 2 : 1.3}
              />
              {element.drains === false || (element.traps ?? '') !== '' ? (
                <path
                  d={`M14 51q${(cell - 32) / 2} 8 ${cell - 32} 0`}
                  fill="none"
                  stroke="var(--frost)"
                  strokeWidth="2"
                />
              ) : (
                <path
                  d={`M${10 + (cell - 24) / 2} 54v7m-3 -3l3 3 3 -3`}
                  fill="none"
                  stroke="var(--muted)"
                  strokeWidth="1.3"
                />
              )}
              <text
                x={10 + (cell - 24) / 2}
                y="42"
                textAnchor="middle"
                fontSize="12"
                fontWeight="620"
                fill={safe ? 'var(--panel)' : litres === null ? 'var(--oxide-ink)' : 'var(--ink)'}
              >
                {litres === null ? '?' : showLitres(litres)}
              </text>
              {words(element).map((word, line) => (
                <text
                  key={line}
                  x={10 + (cell - 24) / 2}
                  y={74 + line * 12}
                  textAnchor="middle"
                  fontSize="11"
                  fill="var(--muted)"
                  style={{ fontStretch: '75%' }}
                >
                  {word}
                </text>
              ))}
            </g>
          )
        })}
      </svg>
    </div>
  )
}

/** Its name on two short lines. */
function words(element: CircuitElement): string[] {
  const name = element.name || elementKinds[element.kind].replace(' or proportioner', '')
  const parts = name.split(' ')
  if (name.length < 12 || parts.length === 1) return [name.slice(0, 14)]
  const half = Math.ceil(parts.length / 2)
  return [parts.slice(0, half).join(' '), parts.slice(half).join(' ')]
}
