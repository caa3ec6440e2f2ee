import { methodNames, zoneNames, type Reach, type Zone } from '@/core/winter'

/** Zones along the water, as the line draws them. */
const along: Zone[] = ['tanks', 'pump', 'bypass', 'coil', 'hose', 'chemical']
const size = 14
const gap = 6

/**
 * How far what is put in goes, from tank to nozzle: filled where fluid stands, three dashes for air, an outline
 * where it is drained, a cross where it is left. Solid has been done and proved, outlined is still to do.
 */
export function ReachLine({ reach }: { reach: Reach }) {
  const shown = along.filter((zone) => reach.some((each) => each.zone === zone))
  const width = shown.length * (size + gap) - gap
  const says = shown
    .map((zone) => {
      const { method, state } = reach.find((each) => each.zone === zone)!
      return `${zoneNames[zone].toLowerCase()} ${methodNames[method].toLowerCase()}${state === 'protected' ? ', done' : ''}`
    })
    .join('; ')
  return (
    <svg
      width={width + 8}
      height="22"
      viewBox={`-4 0 ${width + 8} 22`}
      role="img"
      aria-label={says}
      className="reach"
    >
      <line x1="0" x2={width} y1="11" y2="11" stroke="var(--edge)" strokeWidth="1.2" />
      {shown.map((zone, at) => {
        const { method, state } = reach.find((each) => each.zone === zone)!
        const x = at * (size + gap)
        const done = state === 'protected'
        const fluid = method === 'through' || method === 'toNozzle' || method === 'protector'
        const bad = state === 'void' || state === 'failed' || state === 'exposed'
        return (
          <g key={zone}>
            <title>{`${zoneNames[zone]}: ${methodNames[method].toLowerCase()}`}</title>
            <rect
              x={x}
              y="4"
              width={size}
              height={size}
              fill={fluid ? (done ? 'var(--frost)' : 'var(--frost-f3)') : 'var(--panel)'}
              stroke={bad ? 'var(--oxide)' : fluid ? 'var(--frost)' : 'var(--edge)'}
              strokeWidth={bad ? 2 : 1.3}
            />
            {method === 'blowOut' &&
              [8, 11, 14].map((y) => (
                <line
                  key={y}
                  x1={x + 3}
                  x2={x + size - 3}
                  y1={y}
                  y2={y}
                  stroke="var(--ink)"
                  strokeWidth="1.3"
                />
              ))}
            {method === 'leave' && (
              <path d={`M${x + 3} 7l8 8M${x + 11} 7l-8 8`} stroke="var(--muted)" strokeWidth="1.3" />
            )}
            {method === 'drain' && done && (
              <path d={`M${x + 3} 11l3 3 5-6`} fill="none" stroke="var(--moss)" strokeWidth="1.8" />
            )}
          </g>
        )
      })}
    </svg>
  )
}
