'use client'

import { useRouter } from 'next/navigation'
import { visitNumber } from '@/core/plan'
import type { Outcome } from '@/core/problem'
import type { AbandonInput, SheetLine } from '@/core/sheets'
import { Button } from '../../frame/Button'
import { useConfirm } from '../../forms/Confirm'

type Props = {
  sheet: Pick<SheetLine, 'id' | 'number' | 'version'>
  abandon: (input: AbandonInput) => Promise<Outcome>
}

/** Closes a sheet that was opened by mistake. */
export function AbandonSheet({ sheet, abandon }: Props) {
  const confirm = useConfirm()
  const router = useRouter()
  const name = `sheet ${visitNumber(sheet.number)}`
  return (
    <Button
      variant="text"
      onClick={() =>
        confirm({
          title: `Give up ${name}?`,
          consequence:
            'Nothing on it will count: no part is renewed, no stock moves. Its meter reading stays, and its visit stands again. It cannot be taken up again.',
          action: `Give up ${name}`,
          reason: 'Why is it given up?',
          run: async (reason) => {
            const outcome = await abandon({ id: sheet.id, version: sheet.version, reason })
            if (!outcome.ok) return outcome.problem.message
            router.push('/sheets')
            return undefined
          },
        })
      }
    >
      Give up
    </Button>
  )
}
