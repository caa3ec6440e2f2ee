import { orientationWords, type Orientation } from '@/core/models'

type Frame = { left: string; right: string; target: 'left' | 'right' | 'both' | 'none' }

/**
 * The frame survives the bench: it names what lies at each side of the part as it sits in the pump,
 * never "up". The face that matters points to its target.
 */
const frames: Record<Orientation['towards'], Frame> = {
  pressure: { left: 'crankcase', right: 'pressure', target: 'right' },
  crankcase: { left: 'crankcase', right: 'pressure', target: 'left' },
  motor: { left: 'motor', right: 'pump', target: 'left' },
  pump: { left: 'line', right: 'pump', target: 'right' },
  cap: { left: 'bore', right: 'cap', target: 'right' },
  slot: { left: 'part', right: 'its slot', target: 'right' },
  flow: { left: 'from', right: 'flow', target: 'right' },
  againstFlow: { left: 'from', right: 'flow', target: 'left' },
  eitherWay: { left: '', right: '', target: 'both' },
  asItCameOut: { left: '', right: '', target: 'none' },
}

/** Which way round a part goes, drawn between what lies at its sides. */
export function OrientationPicture({ orientation }: { orientation: Orientation }) {
  const frame = frames[orientation.towards]
  const flip = frame.target === 'left'
  return (
    <svg
      className="orientation-picture"
      width="264"
      height="76"
      viewBox="0 0 264 76"
      role="img"
      aria-label={`Which way round: ${orientationWords(orientation)}`}
    >
      {frame.left && <Side x={0} words={frame.left} strong={flip} />}
      {frame.right && <Side x={200} words={frame.right} strong={frame.target === 'right'} />}
      {/* The bore it sits in. */}
      <path d="M66 10H198M66 66H198" stroke="var(--edge)" strokeWidth="1.5" />
      <g transform={flip ? 'translate(264 0) scale(-1 1)' : undefined}>
        <Part face={orientation.face} plain={frame.target === 'both' || frame.target === 'none'} />
        {(frame.target === 'right' || frame.target === 'left') && (
          <path d="M170 38h22m-7-6 7 6-7 6" fill="none" stroke="var(--petrol)" strokeWidth="2" />
        )}
      </g>
      {frame.target === 'both' && (
        <path
          d="M76 38H98m-15-6-7 6 7 6M166 38h22m-7-6 7 6-7 6"
          fill="none"
          stroke="var(--petrol)"
          strokeWidth="2"
        />
      )}
      {frame.target === 'none' && (
        <path
          d="M172 28h6l3-5h10l3 5h6v20h-28Zm14 4a6 6 0 1 0 .01 0"
          fill="none"
          stroke="var(--petrol)"
          strokeWidth="1.8"
        />
      )}
    </svg>
  )
}

function Side({ x, words, strong }: { x: number; words: string; strong: boolean }) {
  return (
    <g>
      <rect
        x={x + 0.75}
        y="8.75"
        width="62.5"
        height="58.5"
        fill={strong ? 'var(--petrol-tint)' : 'none'}
        stroke={strong ? 'var(--petrol)' : 'var(--edge)'}
        strokeWidth="1.5"
      />
      <text x={x + 32} y="42" className={strong ? 'orientation-side strong' : 'orientation-side'}>
        {words}
      </text>
    </g>
  )
}

/** The part in section, the face in question on its right. */
function Part({ face, plain }: { face: Orientation['face']; plain: boolean }) {
  const body = { fill: 'var(--ground)', stroke: 'var(--ink)', strokeWidth: 1.8 }
  const mark = { fill: 'none', stroke: 'var(--ink)', strokeWidth: 2.2 }
  if (plain) return <rect x="106" y="14" width="52" height="48" {...body} />
  switch (face) {
    case 'lip':
      return <path d="M106 14H150L160 20V26L134 38L160 50V56L150 62H106Z" {...body} />
    case 'cup':
      return <path d="M106 14H158V22H126V54H158V62H106Z" {...body} />
    case 'spring':
      return (
        <g>
          <rect x="106" y="14" width="24" height="48" {...body} />
          <path d="M130 22l10 32 6-32 6 32 6-32" {...mark} />
        </g>
      )
    case 'groove':
      return <path d="M106 14H142V22H150V14H158V62H150V54H142V62H106Z" {...body} />
    case 'taper':
      return <path d="M106 14H136L160 28V48L136 62H106Z" {...body} />
    case 'concave':
      return <path d="M106 14H160Q136 38 160 62H106Z" {...body} />
    case 'tab':
      return <path d="M106 14H144V30H162V46H144V62H106Z" {...body} />
    case 'ball':
      return (
        <g>
          <path d="M106 14H138V62H106Z" {...body} />
          <circle cx="148" cy="38" r="13" {...body} />
        </g>
      )
    case 'tip':
      return <path d="M106 22H140L164 38L140 54H106Z" {...body} />
    case 'label':
    case 'letter':
      return (
        <g>
          <rect x="106" y="14" width="52" height="48" {...body} />
          <path d="M158 18V58" stroke="var(--petrol)" strokeWidth="4" />
          <text x="140" y="44" className="orientation-letter">
            {face === 'letter' ? 'A' : 'abc'}
          </text>
        </g>
      )
    default:
      return (
        <g>
          <rect x="106" y="14" width="48" height="48" {...body} />
          <path d="M158 14V62" {...mark} strokeWidth="4" />
        </g>
      )
  }
}
