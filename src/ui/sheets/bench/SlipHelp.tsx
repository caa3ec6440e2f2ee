'use client'

import { judgeTorque } from '@/core/torque'
import { parseNumber } from '@/core/units'
import { Button } from '../../frame/Button'
import type { SheetHandle } from './useSheet'

/** A torque that fits in another unit: typed so, or pulled so? Either is one tap. */
export function SlipHelp({
  bench,
  stated,
  torque,
  bolt,
  stepKey,
  setTyped,
  clear,
}: {
  bench: SheetHandle
  stated: { value: number; unit: string }
  torque: { value: string; unit: string }
  bolt: number | null
  stepKey: string
  setTyped: (next: { value: string; unit: string }) => void
  clear: () => void
}) {
  const parsed = parseNumber(torque.value)
  if (!parsed.ok || parsed.value <= 0) return null
  const verdict = judgeTorque(stated, { value: parsed.value, unit: torque.unit })
  if (verdict.fits) return null
  return (
    <div className="actions">
      {verdict.slip && (
        <Button
          variant="outlined"
          onClick={() => {
            clear()
            setTyped({ value: torque.value, unit: verdict.slip! })
          }}
        >
          It was {torque.value} {verdict.slip}
        </Button>
      )}
      <Button
        variant="outlined"
        onClick={() => {
          const what = bolt === null ? 'It' : `Bolt ${bolt}`
          void bench.write(
            'remark',
            { text: `${what} was pulled wrong and is undone: ${verdict.words}` },
            stepKey,
          )
          clear()
        }}
      >
        Pulled so: undone, pull again
      </Button>
    </div>
  )
}
