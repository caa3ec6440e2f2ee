/** The five colours of a hatch, by what it stands on or says. */
export type HatchColour = 'edge' | 'panel' | 'brass' | 'oxide' | 'frost'

/** What fills a shape with it. */
export const hatch = (colour: HatchColour) => `url(#hatch-${colour})`

/**
 * The hatches of the whole document, once: 45 degrees, 4 px apart; tolerance, expectation, or not
 * available. A list of forty marks would otherwise carry a hundred and twenty.
 */
export function Hatches() {
  return (
    <svg className="hatches" width="0" height="0" aria-hidden="true">
      <defs>
        {(['edge', 'panel', 'brass', 'oxide', 'frost'] as const).map((colour) => (
          <pattern
            key={colour}
            id={`hatch-${colour}`}
            width="4"
            height="4"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <line x1="0" y1="0" x2="0" y2="4" stroke={`var(--${colour})`} strokeWidth="1.4" />
          </pattern>
        ))}
      </defs>
    </svg>
  )
}
