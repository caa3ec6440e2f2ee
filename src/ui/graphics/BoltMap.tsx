type Props = {
  /** Places in millimetres from the plate's middle, y upwards, in the maker's numbering. */
  layout: { x: number; y: number }[]
  /** Bolt numbers in the order in which they are tightened. */
  order: string[]
  stages: number
  /** Maker's numbers of the bolts whose places guide pins take: drawn dashed. */
  pinned?: number[]
  name: string
  /** At the bench: which pass is pulled, which of its places are done, and which is now. */
  work?: { stage: number; done: number[]; now: number | null }
}

const radius = 23

/**
 * The bolts of a plate, drawn to scale, each with its place in the order. Rings count the stages: one arc
 * for each full pass. The order begins at 1, whatever the maker's own numbers are.
 */
export function BoltMap({ layout, order, stages, pinned = [], name, work }: Props) {
  const [first] = layout
  if (!first) return null
  const xs = layout.map(({ x }) => x)
  const ys = layout.map(({ y }) => y)
  const [left, right] = [Math.min(...xs), Math.max(...xs)]
  const [low, high] = [Math.min(...ys), Math.max(...ys)]
  const near = nearest(layout)
  // Two hexagons never touch: the nearest pair of bolts is three radii apart, at the bench a frame's width.
  const scale = near === 0 ? 1 : (radius * (work ? 4 : 3)) / near
  const at = ({ x, y }: { x: number; y: number }) => ({
    x: (x - left) * scale + 48,
    y: (high - y) * scale + 48,
  })
  const width = (right - left) * scale + 96
  const height = (high - low) * scale + 96
  const place = (index: number) => order.indexOf(String(index + 1)) + 1
  const again = order.length > layout.length ? order.at(-1) : null
  /** How far a bolt is in one pass: done, the one to pull now, or still open. */
  const standOf = (index: number, stage: number): 'done' | 'now' | 'open' => {
    if (!work || stage > work.stage) return 'open'
    if (stage < work.stage) return 'done'
    const places = order.flatMap((bolt, at) => (bolt === String(index + 1) ? [at + 1] : []))
    if (work.now !== null && places.includes(work.now)) return 'now'
    return places.every((each) => work.done.includes(each)) ? 'done' : 'open'
  }
  const stage = work ? Math.min(work.stage, Math.max(stages, 1)) : 1
  const boltAt = (each: number | null) => {
    const index = each === null ? NaN : Number(order[each - 1]) - 1
    return layout[index] ? { index, ...at(layout[index]) } : null
  }
  const current = boltAt(work?.now ?? null)
  const following = current && boltAt(work!.now! + 1)
  return (
    <svg
      className="bolt-map"
      viewBox={`0 0 ${width} ${height}`}
      style={{ maxWidth: work ? Math.min(width, 460) : Math.min(width * 0.6, 420) }}
      role="img"
      aria-label={`${name}, tightened in this order by the maker’s numbers: ${order.join(', ')}${
        work ? `; ${work.done.length} of ${order.length} done in pass ${work.stage}` : ''
      }`}
    >
      {work && (
        <defs>
          <marker
            id="bolt-arrow"
            viewBox="0 0 8 8"
            refX="7"
            refY="4"
            markerWidth="8"
            markerHeight="8"
            orient="auto"
          >
            <path d="M0 0 8 4 0 8Z" fill="var(--petrol)" />
          </marker>
        </defs>
      )}
      <rect x="6" y="6" width={width - 12} height={height - 12} rx="10" className="bolt-plate" />
      {layout.map((bolt, index) => {
        const { x, y } = at(bolt)
        const stand = standOf(index, stage)
        return (
          <g key={`${bolt.x} ${bolt.y}`}>
            {stand === 'now' && work && (
              <rect x={x - 40} y={y - 40} width="80" height="80" className="bolt-frame" />
            )}
            {stages <= 1 && (
              <circle cx={x} cy={y} r={radius + 8} className={`bolt-ring ring-${standOf(index, 1)}`} />
            )}
            {stages > 1 &&
              Array.from({ length: stages }, (_, pass) => (
                <path
                  key={pass}
                  d={arc(x, y, radius + 8, pass, stages)}
                  className={`bolt-ring ring-${standOf(index, pass + 1)}`}
                />
              ))}
            <polygon
              points={hexagon(x, y)}
              className={`bolt${pinned.includes(index + 1) ? ' bolt-pinned' : ''}${work ? ` bolt-${stand}` : ''}`}
            />
            {work && stand === 'done' && (
              <g aria-hidden>
                <circle cx={x + 25} cy={y + 25} r="10" fill="var(--moss)" />
                <path d={`m${x + 20} ${y + 25} 4 4 7-8`} fill="none" stroke="var(--panel)" strokeWidth="2" />
              </g>
            )}
            <text
              x={x}
              y={y + 7}
              className={`bolt-number${work && stand === 'now' ? ' bolt-number-now' : ''}`}
            >
              {place(index) || ''}
              {again === String(index + 1) && `, ${order.length}`}
            </text>
          </g>
        )
      })}
      {current && following && following.index !== current.index && (
        <line {...between(current, following)} className="bolt-arrow" markerEnd="url(#bolt-arrow)" />
      )}
    </svg>
  )
}

/** From the rim of one bolt's frame to the ring of the next. */
function between(from: { x: number; y: number }, to: { x: number; y: number }) {
  const length = Math.hypot(to.x - from.x, to.y - from.y)
  const [dx, dy] = [(to.x - from.x) / length, (to.y - from.y) / length]
  return {
    x1: from.x + dx * 42,
    y1: from.y + dy * 42,
    x2: to.x - dx * (radius + 12),
    y2: to.y - dy * (radius + 12),
  }
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
