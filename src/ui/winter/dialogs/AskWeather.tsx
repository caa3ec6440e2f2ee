'use client'

import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { problemWords, type Outcome } from '@/core/problem'
import { Button } from '../../frame/Button'
import { useToast } from '../../feedback/Toasts'

/** Asks the weather service now. */
export function AskWeather({ ask }: { ask: () => Promise<Outcome<{ asked: number; troubles: string[] }>> }) {
  const router = useRouter()
  const toast = useToast()
  const [busy, setBusy] = useState(false)
  return (
    <Button
      variant="outlined"
      disabled={busy}
      onClick={async () => {
        setBusy(true)
        const outcome = await ask().catch(() => null)
        setBusy(false)
        if (!outcome) return toast('Atelier could not be reached.')
        if (!outcome.ok) return toast(problemWords(outcome.problem))
        toast(outcome.data.troubles.length === 0 ? 'The outlook is fresh.' : outcome.data.troubles.join(' '))
        router.refresh()
      }}
    >
      {busy ? 'Asking …' : 'Ask for the outlook'}
    </Button>
  )
}
