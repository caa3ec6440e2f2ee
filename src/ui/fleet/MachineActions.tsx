'use client'

import type { RetireInput } from '@/core/fleet'
import type { Outcome } from '@/core/problem'
import { Button } from '../frame/Button'
import { useConfirm } from '../forms/Confirm'
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

type Meter = { id: string; name: string; version: number; retiredOn: string | null }

/** Takes a meter out of service, or back into it. */
export function MeterRetirement({
  meter,
  retire,
  bringBack,
}: { meter: Meter } & Pick<Props, 'retire' | 'bringBack'>) {
  const confirm = useConfirm()
  const toast = useToast()
  const goBack = async (version: number) => {
    const outcome = await bringBack({ id: meter.id, version })
    toast(outcome.ok ? `${meter.name} is read again.` : outcome.problem.message)
  }
  if (meter.retiredOn)
    return (
      <Button variant="text" onClick={() => void goBack(meter.version)}>
        Bring meter back
      </Button>
    )
  return (
    <Button
      variant="text"
      onClick={() =>
        confirm({
          title: `Retire ${meter.name}?`,
          consequence:
            'It is asked for no more, on rounds and on sheets. What it counted stays, and it can be brought back.',
          action: 'Retire this meter',
          reason: 'Why is it retired?',
          run: async (reason) => {
            const outcome = await retire({ id: meter.id, version: meter.version, reason })
            if (!outcome.ok) return outcome.problem.message
            toast(`${meter.name} is retired.`, () => goBack(meter.version + 1))
            return undefined
          },
        })
      }
    >
      Retire meter
    </Button>
  )
}
