'use client'

import { Button } from '../frame/Button'

export function PrintButton({ label }: { label: string }) {
  return (
    <Button variant="outlined" className="no-print" onClick={() => window.print()}>
      {label}
    </Button>
  )
}
