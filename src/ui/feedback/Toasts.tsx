'use client'

import { usePathname } from 'next/navigation'
import Snackbar from '@mui/material/Snackbar'
import { createContext, useCallback, useContext, useState, type ReactNode } from 'react'
import { Button } from '../frame/Button'

type Toast = { id: number; message: string; undo?: () => Promise<void> | void }

const ToastContext = createContext<(message: string, undo?: Toast['undo']) => void>(() => undefined)

/** Says what was just done, and offers to take it back where that can be. */
export function useToast() {
  return useContext(ToastContext)
}

export function ToastProvider({ children }: { children: ReactNode }) {
  const [toast, setToast] = useState<Toast | null>(null)
  const [open, setOpen] = useState(false)
  const show = useCallback((message: string, undo?: Toast['undo']) => {
    setToast({ id: Date.now(), message, undo })
    setOpen(true)
  }, [])
  const atBench = /^\/sheets\/[^/]+$/.test(usePathname())
  const takeBack = async () => {
    setOpen(false)
    await toast?.undo?.()
  }
  return (
    <ToastContext.Provider value={show}>
      {children}
      <Snackbar
        key={toast?.id}
        open={open}
        message={toast?.message}
        autoHideDuration={toast?.undo ? 12_000 : 5000}
        onClose={(_event, reason) => reason !== 'clickaway' && setOpen(false)}
        anchorOrigin={{ vertical: 'bottom', horizontal: atBench ? 'left' : 'center' }}
        // At the bench the middle holds the step's buttons and cautions: it stands over the list of steps.
        className={atBench ? 'toast-at-bench' : undefined}
        action={
          toast?.undo ? (
            <Button
              variant="text"
              style={{ color: 'inherit', textDecoration: 'underline' }}
              onClick={takeBack}
            >
              Undo
            </Button>
          ) : undefined
        }
      />
    </ToastContext.Provider>
  )
}
