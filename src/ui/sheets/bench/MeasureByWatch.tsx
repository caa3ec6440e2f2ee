'use client'

import { useState } from 'react'
import { bucketFlow, dripRate, timersOf, timerStand } from '@/core/sheets'
import { parseNumber, showNumber } from '@/core/units'
import { Button } from '../../frame/Button'
import { FieldFrame, TextInput } from '../../forms/FieldFrame'
import { useTick } from './useTick'
import type { SheetHandle } from './useSheet'

type Props = {
  bench: SheetHandle
  stepKey: string | null
  /** Takes the value that came out, and how it was measured. */
  take: (value: string, how: string) => void
}

/** Flow from a bucket and a watch. */
export function BucketAndWatch({ bench, stepKey, take }: Props) {
  const watch = useWatch(bench, stepKey, 'bucket')
  const [litres, setLitres] = useState('20')
  const [error, setError] = useState('')
  const stop = async () => {
    const parsed = parseNumber(litres)
    if (!parsed.ok || parsed.value <= 0) {
      setError(parsed.ok ? 'A bucket holds more than 0 litres.' : parsed.reason)
      return
    }
    setError('')
    const seconds = await watch.stop((gone) => `${parsed.value} L in ${gone.toFixed(1)} s`)
    if (seconds > 0) take(showNumber(bucketFlow(parsed.value, seconds)), 'bucket and watch')
  }
  return (
    <div className="bucket">
      <FieldFrame id="bucket" label="Bucket" error={error}>
        <TextInput
          id="bucket"
          value={litres}
          onChange={(event) => setLitres(event.target.value)}
          inputProps={{ inputMode: 'decimal' }}
          endAdornment={<span className="unit">L</span>}
        />
      </FieldFrame>
      {watch.runs ? (
        <Button variant="outlined" onClick={() => void stop()}>
          Full: stop at {watch.gone.toFixed(0)} s
        </Button>
      ) : (
        <Button variant="outlined" onClick={watch.start}>
          Start the watch
        </Button>
      )}
    </div>
  )
}

/** Drips counted by a tap each, against a watch. */
export function DripsAndWatch({ bench, stepKey, take }: Props) {
  const watch = useWatch(bench, stepKey, 'drips')
  const [count, setCount] = useState('0')
  const [error, setError] = useState('')
  const parsed = parseNumber(count)
  const drips = parsed.ok ? parsed.value : 0
  const stop = async () => {
    if (!parsed.ok || !Number.isInteger(drips) || drips < 0) {
      setError('Drips are counted whole.')
      return
    }
    setError('')
    const seconds = await watch.stop((gone) => `${drips} drips in ${gone.toFixed(1)} s`)
    if (seconds > 0) take(showNumber(dripRate(drips, seconds)), 'counted by the watch')
    setCount('0')
  }
  return (
    <div className="bucket">
      {watch.runs ? (
        <>
          <FieldFrame id="drips" label="Drips counted" error={error}>
            <TextInput
              id="drips"
              value={count}
              onChange={(event) => setCount(event.target.value)}
              inputProps={{ inputMode: 'numeric' }}
            />
          </FieldFrame>
          <Button variant="contained" onClick={() => setCount(String(drips + 1))}>
            One drip
          </Button>
          <Button variant="outlined" onClick={() => void stop()}>
            Stop at {watch.gone.toFixed(0)} s
          </Button>
        </>
      ) : (
        <>
          <Button variant="outlined" onClick={watch.start}>
            Count by the watch
          </Button>
          <p className="second watch-hint">a tap for each drip, over a minute or longer</p>
        </>
      )}
    </div>
  )
}

/** A watch of the sheet: it is an entry, and so survives a reload. */
function useWatch(bench: SheetHandle, stepKey: string | null, name: string) {
  const watch = timersOf(bench.state).find(
    (timer) => timer.kind === 'watch' && timer.stepKey === stepKey && timer.name === name,
  )
  useTick(watch !== undefined)
  const seconds = () => (watch ? timerStand(watch, bench.now()).ms / 1000 : 0)
  return {
    runs: watch !== undefined,
    gone: seconds(),
    start: () => void bench.write('timer', { kind: 'watch', name, minutes: null }, stepKey),
    /** Ends it and answers with the seconds gone by. */
    stop: async (words: (gone: number) => string): Promise<number> => {
      const gone = seconds()
      await bench.write('timerEnd', { of: watch!.id, reason: words(gone) }, stepKey)
      return gone
    },
  }
}
