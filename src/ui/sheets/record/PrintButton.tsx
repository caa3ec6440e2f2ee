'use client'

import { Button } from '../../frame/Button'

/** Prints the page; what is on screen only is left out by the print styles. */
export function PrintButton() {
  return (
    <Button variant="outlined" onClick={() => window.print()}>
      Print
    </Button>
  )
}
