'use client'

import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import type { ReactNode } from 'react'
import { Button } from '../../frame/Button'
import { Note } from '../../feedback/States'

type Props = {
  title: string
  /** What a screen reader calls it, where the title is not it. */
  label?: string
  size?: 'xs' | 'sm' | 'md'
  onClose: () => void
  /** What finishes it, with a Cancel beside it; or buttons of its own. */
  submit?: { words: string; run: () => Promise<unknown>; disabled?: boolean }
  actions?: ReactNode
  /** What stands in the way, in one sentence; blank for nothing. */
  error?: string
  children: ReactNode
}

/** A dialog at the bench: fields and buttons large enough for gloves, what is wrong at its foot. */
export function BenchDialog(props: Props) {
  const { title, label = title, size = 'xs', onClose, submit, actions, error, children } = props
  return (
    <Dialog open onClose={onClose} maxWidth={size} fullWidth aria-label={label} className="bench-dialog">
      <DialogTitle>{title}</DialogTitle>
      <DialogContent>
        <div className="stack-tight">
          {children}
          {error && <Note tone="oxide">{error}</Note>}
        </div>
      </DialogContent>
      <DialogActions>
        {actions}
        {submit && (
          <>
            <Button variant="outlined" onClick={onClose}>
              Cancel
            </Button>
            <Button variant="contained" disabled={submit.disabled} onClick={() => void submit.run()}>
              {submit.words}
            </Button>
          </>
        )}
      </DialogActions>
    </Dialog>
  )
}
