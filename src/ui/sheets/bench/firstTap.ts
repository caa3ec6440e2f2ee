import type { MouseEvent } from 'react'

/**
 * Takes a tap, but not the second one of a double tap: the next step has come up under the finger by
 * then, and nobody has read it.
 */
export const firstTap = (act: () => void) => (event: MouseEvent) => {
  if (event.detail < 2) act()
}
