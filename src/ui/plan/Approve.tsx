'use client'

import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { ApproveInput, PinInput } from '@/core/plan'
import { problemWords, type Outcome } from '@/core/problem'
import { Button } from '../frame/Button'
import { useToast } from '../feedback/Toasts'
import { useConfirm } from '../forms/Confirm'

type Reference = { id: string; version: number }
type ApproveProps = {
  visits: Reference[]
  /** What speaks against it, in words; said before it is done. */
  doubts: string[]
  label: string
  approve: (input: ApproveInput) => Promise<Outcome<{ approved: number }>>
}

/** Approves visits: they stay where they are, their parts and special tools spoken for. */
export function ApproveVisits({ visits, doubts, label, approve }: ApproveProps) {
  const { send, busy } = useSending()
  const confirm = useConfirm()
  const one = visits.length === 1
  const back = () =>
    send(
      () =>
        approve({ visits: visits.map(({ id, version }) => ({ id, version: version + 1 })), approve: false }),
      one ? 'The approval is taken back.' : 'The approvals are taken back.',
    )
  const run = () =>
    send(
      () => approve({ visits, approve: true }),
      one ? 'The visit is approved.' : `${visits.length} visits are approved.`,
      back,
    )
  return (
    <Button
      variant="outlined"
      disabled={busy}
      onClick={() =>
        doubts.length === 0
          ? void run()
          : confirm({
              title: 'Approve all the same?',
              consequence: doubts.join(' '),
              action: 'Approve',
              run: async () => {
                await run()
                return undefined
              },
            })
      }
    >
      {label}
    </Button>
  )
}

type StandingProps = {
  visit: Reference & { approved: boolean; pinned: boolean }
  approve: ApproveProps['approve']
  pin: (input: PinInput) => Promise<Outcome>
}

/** Holds a visit where it is, or lets plans move it; takes an approval back. */
export function VisitStanding({ visit, approve, pin }: StandingProps) {
  const { send, busy } = useSending()
  const { id, version, approved, pinned } = visit
  if (approved)
    return (
      <Button
        variant="outlined"
        disabled={busy}
        onClick={() =>
          void send(
            () => approve({ visits: [{ id, version }], approve: false }),
            'The approval is taken back.',
          )
        }
      >
        Take approval back
      </Button>
    )
  return (
    <Button
      variant="outlined"
      disabled={busy}
      onClick={() =>
        void send(
          () => pin({ id, version, pinned: !pinned }),
          pinned ? 'Plans may move it again.' : 'It stays where it is, whatever is proposed.',
        )
      }
    >
      {pinned ? 'Let plans move it' : 'Hold it in place'}
    </Button>
  )
}

/** Sends once at a time; says what came of it. */
function useSending() {
  const [busy, setBusy] = useState(false)
  const router = useRouter()
  const toast = useToast()
  const send = async (act: () => Promise<Outcome<unknown>>, done: string, undo?: () => Promise<void>) => {
    setBusy(true)
    const outcome = await act().catch(() => null)
    setBusy(false)
    if (!outcome) return toast('Atelier could not be reached. Nothing was changed: try again in a moment.')
    if (outcome.ok) toast(done, undo)
    else toast(problemWords(outcome.problem))
    router.refresh()
  }
  return { send, busy }
}
