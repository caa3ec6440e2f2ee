import { orientationWords, type AccessNode, type StackItem } from '@/core/models'

type Props = {
  stack: StackItem[]
  partName: (key: string) => string
  name: string
  /** The part that is handled now. */
  now: string | null
  /** What the inner end is nearest to; without it the pieces are drawn without a way round. */
  innermost: AccessNode['innermost']
}

/** The same frame as a single part is drawn in: crankcase at the left, pressure at the right. */
const sides = { pressure: 'right', crankcase: 'left' } as const

/**
 * What lies in a bore, drawn as it lies: each piece with its number, innermost 1, and the face that
 * matters pointing where it belongs, in the frame of the pump. The piece in hand is filled. Where the
 * model does not say which end is which, no way round is drawn.
 */
export function BoreStack({ stack, partName, name, now, innermost }: Props) {
  const width = Math.max(56, Math.min(84, 320 / Math.max(stack.length, 1)))
  const length = stack.length * width
  const innerAtRight = innermost === 'pressure'
  const edge = innermost === null ? 8 : 58
  const placeOf = (index: number) => edge + 4 + (innerAtRight ? stack.length - 1 - index : index) * width
  return (
    <figure className="bore-stack">
      <svg
        width={length + edge * 2 + 8}
        height="72"
        viewBox={`0 0 ${length + edge * 2 + 8} 72`}
        role="img"
        aria-label={`${name}, innermost first: ${stack
          .map(
            ({ part, pieces, orientation }) =>
              `${pieces > 1 ? `${pieces} ` : ''}${partName(part)}${orientation ? `, ${orientationWords(orientation)}` : ''}`,
          )
          .join('; ')}`}
      >
        {/* The bore: closed at its inner end. */}
        <path
          d={
            innerAtRight
              ? `M${edge} 4H${length + edge + 4}V68H${edge}`
              : `M${length + edge + 4} 4H${edge}V68H${length + edge + 4}`
          }
          stroke="var(--edge)"
          strokeWidth="2"
          fill="none"
        />
        {innermost && (
          <>
            <text x="27" y="40" className={innerAtRight ? 'orientation-side' : 'orientation-side strong'}>
              crankcase
            </text>
            <text
              x={length + edge + 35}
              y="40"
              className={innerAtRight ? 'orientation-side strong' : 'orientation-side'}
            >
              pressure
            </text>
          </>
        )}
        {stack.map(({ part, pieces, orientation }, index) => {
          const x = placeOf(index)
          const towards = orientation?.towards
          const side = innermost && towards && towards in sides ? sides[towards as keyof typeof sides] : null
          const hot = part === now
          return (
            <g key={`${part} ${index}`}>
              {Array.from({ length: pieces }, (_, piece) => (
                <path
                  key={piece}
                  d={outline(x + (piece * (width - 6)) / pieces, (width - 6) / pieces, side)}
                  fill={hot ? 'var(--petrol-tint)' : 'var(--panel)'}
                  stroke={hot ? 'var(--petrol)' : 'var(--ink)'}
                  strokeWidth={hot ? 2.4 : 1.4}
                />
              ))}
              <text x={x + (width - 6) / 2} y="41" className={hot ? 'bore-number strong' : 'bore-number'}>
                {index + 1}
              </text>
            </g>
          )
        })}
      </svg>
      <ol>
        {stack.map(({ part, pieces, orientation, note }, index) => (
          <li key={`${part} ${index}`} className={part === now ? 'strong' : undefined}>
            {pieces > 1 && `${pieces} × `}
            {partName(part)}
            {orientation && <span className="second"> {orientationWords(orientation)}</span>}
            {note && <span className="second">, {note}</span>}
          </li>
        ))}
      </ol>
    </figure>
  )
}

/** A ring in section; the side it faces is drawn as a lip. */
function outline(x: number, w: number, side: 'left' | 'right' | null): string {
  const [l, r] = [x, x + w]
  if (side === 'right') return `M${l} 12H${r - 4}L${r} 18L${r - 9} 36L${r} 54L${r - 4} 60H${l}Z`
  if (side === 'left') return `M${r} 12H${l + 4}L${l} 18L${l + 9} 36L${l} 54L${l + 4} 60H${r}Z`
  return `M${l} 12H${r}V60H${l}Z`
}
