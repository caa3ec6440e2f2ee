'use client'

import Dialog from '@mui/material/Dialog'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import { useState } from 'react'
import type { ClockView } from '@/core/wear'
import { inSentence } from '@/core/units'
import { Button } from '../frame/Button'
import { figuresOf } from './figures'
import { RowHead, Table, TableBody, TableCell, TableRow } from '../table/Table'

type Props = { clock: ClockView; unit: string; pump: string; today: string; children: React.ReactNode }

/** A figure that opens what it was made from. */
export function DueFigures({ clock, unit, pump, today, children }: Props) {
  const [open, setOpen] = useState(false)
  const title = [`${pump}: ${inSentence(clock.name)}`, clock.where].filter(Boolean).join(', ')
  return (
    <>
      <button
        type="button"
        className="figure-button"
        title={`How this was worked out: ${title}`}
        onClick={() => setOpen(true)}
      >
        {children}
      </button>
      {open && (
        <Dialog
          open
          onClose={() => setOpen(false)}
          maxWidth="sm"
          fullWidth
          aria-label={`Worked out: ${title}`}
        >
          <DialogTitle>{title}</DialogTitle>
          <DialogContent>
            <Table className="plain worked-out">
              <caption className="visually-hidden">How it was worked out</caption>
              <TableBody>
                {figuresOf(clock, unit, today).map(({ term, value, from }) => (
                  <TableRow key={term}>
                    <RowHead>{term}</RowHead>
                    <TableCell>
                      <span className="strong">{value}</span>
                      {from && <span className="second block">{from}</span>}
                    </TableCell>
                  </TableRow>
                ))}
              </TableBody>
            </Table>
            <div className="actions">
              <Button variant="outlined" onClick={() => setOpen(false)}>
                Close
              </Button>
            </div>
          </DialogContent>
        </Dialog>
      )}
    </>
  )
}
