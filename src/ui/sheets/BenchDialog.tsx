'use client'

import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import type { ReactNode } from 'react'

type Props = {
  title: string
  /** What a screen reader calls it, where the title is not it. */
  label?: string
  size?: 'xs' | 'sm' | 'md'
  onClose: () => void
  actions: ReactNode
  /** What stands in the way, in one sentence; blank for nothing. */
  error?: string
  children: ReactNode
}

/** A dialog at the bench: fields and buttons large enough for gloves, what is wrong at its foot. */
export function BenchDialog({ title, label = title, size = 'xs', onClose, actions, error, children }: Props) {
  return (
    <Dialog open onClose={onClose} maxWidth={size} fullWidth aria-label={label} className="bench-dialog">
      <DialogTitle>{title}</DialogTitle>
      <DialogContent>
        <div className="stack-tight">
          {children}
          {error && (
            <p role="alert" className="note note-oxide">
              {error}
            </p>
          )}
        </div>
      </DialogContent>
      <DialogActions>{actions}</DialogActions>
    </Dialog>
  )
}
