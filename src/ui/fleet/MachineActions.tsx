'use client'

import Button from '@mui/material/Button'
import type { RetireInput } from '@/core/fleet'
import type { Outcome } from '@/core/problem/outcome'
import { useConfirm } from '../feedback/Confirm'
import { useToast } from '../feedback/Toasts'

type Thing = { id: string; number: string; version: number; retiredOn: string | null }
type Props = {
  thing: Thing
  /** What retiring it does, and does not do. */
  consequence: string
  retire: (input: RetireInput) => Promise<Outcome>
  bringBack: (input: { id: string; version: number }) => Promise<Outcome>
}

/** Retires a machine or an assembly, or brings it back; the record stays either way. */
export function RetireButton({ thing, consequence, retire, bringBack }: Props) {
  const confirm = useConfirm()
  const toast = useToast()
  const goBack = async (version: number) => {
    const outcome = await bringBack({ id: thing.id, version })
    toast(outcome.ok ? `${thing.number} is back in service.` : outcome.problem.message)
  }
  if (thing.retiredOn) {
    return (
      <Button variant="contained" onClick={() => void goBack(thing.version)}>
        Bring {thing.number} back into service
      </Button>
    )
  }
  return (
    <Button
      variant="outlined"
      onClick={() =>
        confirm({
          title: `Retire ${thing.number}?`,
          consequence,
          action: `Retire ${thing.number}`,
          reason: 'Why is it retired?',
          run: async (reason) => {
            const outcome = await retire({ id: thing.id, version: thing.version, reason })
            if (!outcome.ok) return outcome.problem.message
            toast(`${thing.number} is retired.`, () => goBack(thing.version + 1))
            return undefined
          },
        })
      }
    >
      Retire
    </Button>
  )
}
