'use client'

import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import { createContext, useCallback, useContext, useState, type ReactNode } from 'react'
import { Button } from '../frame/Button'
import { FieldFrame, TextInput } from './FieldFrame'
import { Note } from '../feedback/States'

type Question = {
  title: string
  /** What will happen, and what will not: a confirmation names its consequence. */
  consequence: ReactNode
  /** The verb of the act: "Retire T-04", never "OK". */
  action: string
  /** Asks for a reason that goes on the record. */
  reason?: string
  /** Does it; answers what went wrong, or nothing. */
  run: (reason: string) => Promise<string | undefined>
}

const ConfirmContext = createContext<(question: Question) => void>(() => undefined)

export function useConfirm() {
  return useContext(ConfirmContext)
}

export function ConfirmProvider({ children }: { children: ReactNode }) {
  const [question, setQuestion] = useState<Question | null>(null)
  const [reason, setReason] = useState('')
  const [error, setError] = useState('')
  const [busy, setBusy] = useState(false)
  const ask = useCallback((next: Question) => {
    setReason('')
    setError('')
    setQuestion(next)
  }, [])
  const run = async () => {
    if (!question) return
    if (question.reason && reason.trim() === '') {
      setError('Say why, for the record.')
      return
    }
    setBusy(true)
    const problem = await question.run(reason.trim())
    setBusy(false)
    if (problem) setError(problem)
    else setQuestion(null)
  }
  return (
    <ConfirmContext.Provider value={ask}>
      {children}
      <Dialog
        open={question !== null}
        onClose={() => !busy && setQuestion(null)}
        maxWidth="xs"
        fullWidth
        aria-labelledby="confirm-title"
      >
        <DialogTitle id="confirm-title">{question?.title}</DialogTitle>
        <DialogContent>
          <div className="prose">{question?.consequence}</div>
          {question?.reason ? (
            <FieldFrame id="confirm-reason" label={question.reason} error={error}>
              <TextInput
                id="confirm-reason"
                value={reason}
                onChange={(event) => setReason(event.target.value)}
                autoFocus
                error={error !== ''}
              />
            </FieldFrame>
          ) : (
            error && <Note tone="oxide">{error}</Note>
          )}
        </DialogContent>
        <DialogActions>
          <Button variant="outlined" onClick={() => setQuestion(null)} disabled={busy}>
            Leave it as it is
          </Button>
          <Button variant="contained" onClick={run} disabled={busy}>
            {question?.action}
          </Button>
        </DialogActions>
      </Dialog>
    </ConfirmContext.Provider>
  )
}
