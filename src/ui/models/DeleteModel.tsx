'use client'

import { useRouter } from 'next/navigation'
import type { Outcome } from '@/core/problem'
import { Button } from '../frame/Button'
import { useConfirm } from '../forms/Confirm'
import { useToast } from '../feedback/Toasts'

type Props = {
  model: { id: string; version: number; title: string }
  remove: (input: { id: string; version: number }) => Promise<Outcome>
}

/** Deletes a model that no pump is of; one in use is refused with the pumps that are of it. */
export function DeleteModel({ model, remove }: Props) {
  const confirm = useConfirm()
  const toast = useToast()
  const router = useRouter()
  return (
    <Button
      variant="outlined"
      onClick={() =>
        confirm({
          title: `Delete ${model.title}?`,
          consequence:
            'Its versions go with it, and cannot be brought back here. Download its JSON first if you may want it again.',
          action: `Delete ${model.title}`,
          run: async () => {
            const outcome = await remove({ id: model.id, version: model.version })
            if (!outcome.ok) return outcome.problem.message
            toast(`${model.title} is deleted.`)
            router.push('/models')
            return undefined
          },
        })
      }
    >
      Delete
    </Button>
  )
}
