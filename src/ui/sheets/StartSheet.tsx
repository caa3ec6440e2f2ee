'use client'

import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { v7 as uuid } from 'uuid'
import type { Outcome } from '@/core/problem'
import type { StartSheetInput } from '@/core/sheets'
import { Button } from '../frame/Button'
import { useToast } from '../feedback/Toasts'

type Props = { visitId: string; start: (input: StartSheetInput) => Promise<Outcome<{ id: string }>> }

/** Opens the sheet of a visit and goes to the bench with it. */
export function StartSheet({ visitId, start }: Props) {
  const [busy, setBusy] = useState(false)
  const [id] = useState(() => uuid())
  const router = useRouter()
  const toast = useToast()
  const open = async () => {
    setBusy(true)
    const outcome = await start({ id, visitId }).catch(() => null)
    if (outcome?.ok) {
      router.push(`/sheets/${outcome.data.id}`)
      return
    }
    setBusy(false)
    toast(outcome ? outcome.problem.message : 'Atelier could not be reached. Try again in a moment.')
  }
  return (
    <Button variant="contained" disabled={busy} onClick={() => void open()}>
      Start the sheet
    </Button>
  )
}
