import { hatch } from './Hatches'

export type PostMarkState =
  | 'overdue'
  | 'dueSoon'
  | 'healthy'
  | 'done'
  | 'planned'
  | 'proposed'
  | 'open'
  | 'notRead'
  | 'waiting'
  | 'atRisk'
  | 'doubted'
  | 'frost'

/** The words that always stand beside the shape, or in it for screen readers. */
export const postMarkWords: Record<PostMarkState, string> = {
  overdue: 'Overdue',
  dueSoon: 'Due soon',
  healthy: 'Healthy',
  done: 'Done',
  planned: 'Planned',
  proposed: 'Proposed',
  open: 'To do',
  notRead: 'Not read',
  waiting: 'Waiting',
  atRisk: 'At risk',
  doubted: 'In doubt',
  frost: 'Frost',
}

/**
 * A status as a shape against its limit, the ink post: solid has happened, outline is open, hatch is
 * expected or not available, dashed is proposed or missing. Colour only repeats what the shape says.
 */
export function PostMark({
  state,
  size = 18,
  silent = false,
}: {
  state: PostMarkState
  size?: number
  silent?: boolean
}) {
  const name = silent ? { 'aria-hidden': true as const } : { role: 'img', 'aria-label': postMarkWords[state] }
  return (
    <svg width={size} height={size} viewBox="0 0 20 20" {...name}>
      {shapes[state]}
    </svg>
  )
}

const post = <line x1="13" x2="13" y1="2" y2="18" stroke="var(--ink)" strokeWidth="2" />

const shapes: Record<PostMarkState, React.ReactNode> = {
  overdue: (
    <>
      <rect x="0" y="7" width="12" height="6" fill="var(--oxide)" />
      <rect x="14" y="4" width="6" height="12" fill="var(--oxide)" />
      {post}
    </>
  ),
  dueSoon: (
    <>
      <rect x="0" y="7" width="6" height="6" fill="var(--brass)" />
      <rect x="6" y="7" width="6" height="6" fill={hatch('brass')} stroke="var(--brass)" />
      {post}
    </>
  ),
  healthy: (
    <>
      <rect x="0.5" y="7.5" width="10" height="5" fill="none" stroke="var(--edge)" />
      <rect x="0" y="7" width="4.5" height="6" fill="var(--moss)" />
      {post}
    </>
  ),
  done: <path d="M3 10.5 8 15.5 17 5" fill="none" stroke="var(--moss)" strokeWidth="2.4" />,
  planned: <rect x="3" y="5" width="14" height="10" fill="var(--petrol)" />,
  proposed: (
    <rect
      x="3.5"
      y="5.5"
      width="13"
      height="9"
      fill="none"
      stroke="var(--petrol)"
      strokeWidth="1.6"
      strokeDasharray="3 2"
    />
  ),
  open: <rect x="3.5" y="5.5" width="13" height="9" fill="none" stroke="var(--edge)" strokeWidth="1.4" />,
  notRead: (
    <rect
      x="1.5"
      y="7.5"
      width="17"
      height="6"
      fill="none"
      stroke="var(--ink)"
      strokeWidth="1.3"
      strokeDasharray="3 2"
    />
  ),
  waiting: (
    <rect
      x="3.5"
      y="5.5"
      width="13"
      height="9"
      fill={hatch('brass')}
      stroke="var(--brass)"
      strokeWidth="1.4"
    />
  ),
  atRisk: <path d="M10 3 18 17H2Z" fill="none" stroke="var(--brass)" strokeWidth="2" />,
  doubted: (
    <>
      <rect
        x="3.5"
        y="5.5"
        width="13"
        height="9"
        fill={hatch('oxide')}
        stroke="var(--oxide)"
        strokeWidth="1.4"
      />
      <path d="m2 3 16 14" stroke="var(--oxide)" strokeWidth="1.6" />
    </>
  ),
  frost: (
    <path
      d="M10 2v16M3 6l14 8M17 6 3 14M8 3.5l2 2 2-2M8 16.5l2-2 2 2"
      fill="none"
      stroke="var(--frost)"
      strokeWidth="1.6"
    />
  ),
}

/** A status in shape and words, side by side. */
export function Status({ state, children }: { state: PostMarkState; children?: React.ReactNode }) {
  return (
    <span className="mark-line">
      <PostMark state={state} size={16} silent />
      <span>{children ?? postMarkWords[state]}</span>
    </span>
  )
}
