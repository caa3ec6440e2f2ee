type Props = {
  /** Places in millimetres from the plate's middle, y upwards, in the maker's numbering. */
  layout: { x: number; y: number }[]
  /** Bolt numbers in the order in which they are tightened. */
  order: string[]
  stages: number
  /** Maker's numbers of the bolts whose places guide pins take: drawn dashed. */
  pinned?: number[]
  name: string
}

const radius = 23

/**
 * The bolts of a plate, drawn to scale, each with its place in the order. Rings count the stages: one arc
 * for each full pass. The order begins at 1, whatever the maker's own numbers are.
 */
export function BoltMap({ layout, order, stages, pinned = [], name }: Props) {
  const [first] = layout
  if (!first) return null
  const xs = layout.map(({ x }) => x)
  const ys = layout.map(({ y }) => y)
  const [left, right] = [Math.min(...xs), Math.max(...xs)]
  const [low, high] = [Math.min(...ys), Math.max(...ys)]
  const near = nearest(layout)
  // Two hexagons never touch: the nearest pair of bolts is three radii apart.
  const scale = near === 0 ? 1 : (radius * 3) / near
  const at = ({ x, y }: { x: number; y: number }) => ({
    x: (x - left) * scale + 48,
    y: (high - y) * scale + 48,
  })
  const width = (right - left) * scale + 96
  const height = (high - low) * scale + 96
  const place = (index: number) => order.indexOf(String(index + 1)) + 1
  const again = order.length > layout.length ? order.at(-1) : null
  return (
    <svg
      className="bolt-map"
      viewBox={`0 0 ${width} ${height}`}
      style={{ maxWidth: Math.min(width * 0.6, 420) }}
      role="img"
      aria-label={`${name}, tightened in this order by the maker’s numbers: ${order.join(', ')}`}
    >
      <rect x="6" y="6" width={width - 12} height={height - 12} rx="10" className="bolt-plate" />
      {layout.map((bolt, index) => {
        const { x, y } = at(bolt)
        return (
          <g key={`${bolt.x} ${bolt.y}`}>
            {stages <= 1 && <circle cx={x} cy={y} r={radius + 8} className="bolt-ring" />}
            {stages > 1 &&
              Array.from({ length: stages }, (_, stage) => (
                <path key={stage} d={arc(x, y, radius + 8, stage, stages)} className="bolt-ring" />
              ))}
            <polygon
              points={hexagon(x, y)}
              className={pinned.includes(index + 1) ? 'bolt bolt-pinned' : 'bolt'}
            />
            <text x={x} y={y + 7} className="bolt-number">
              {place(index) || ''}
              {again === String(index + 1) && `, ${order.length}`}
            </text>
          </g>
        )
      })}
    </svg>
  )
}

function nearest(layout: { x: number; y: number }[]): number {
  let near = Infinity
  layout.forEach((a, index) =>
    layout.slice(index + 1).forEach((b) => (near = Math.min(near, Math.hypot(a.x - b.x, a.y - b.y)))),
  )
  return Number.isFinite(near) ? near : 0
}

function hexagon(x: number, y: number): string {
  return Array.from({ length: 6 }, (_, corner) => {
    const angle = (Math.PI / 3) * corner
    return `${(x + radius * Math.cos(angle)).toFixed(1)},${(y + radius * Math.sin(angle)).toFixed(1)}`
  }).join(' ')
}

/** One of n arcs round a bolt; stage 1 is on the left. */
function arc(x: number, y: number, r: number, stage: number, of: number): string {
  const gap = 0.16
  const span = (2 * Math.PI) / of
  const from = Math.PI / 2 + stage * span + gap / 2
  const to = from + span - gap
  const point = (angle: number) =>
    `${(x + r * Math.cos(angle)).toFixed(1)} ${(y + r * Math.sin(angle)).toFixed(1)}`
  return `M${point(from)}A${r} ${r} 0 ${to - from > Math.PI ? 1 : 0} 1 ${point(to)}`
}
