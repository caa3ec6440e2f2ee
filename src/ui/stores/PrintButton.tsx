'use client'

import Button from '@mui/material/Button'

export function PrintButton({ label }: { label: string }) {
  return (
    <Button variant="outlined" className="no-print" onClick={() => window.print()}>
      {label}
    </Button>
  )
}
