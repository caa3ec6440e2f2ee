'use client'

import { useCallback, useEffect, useRef, useState } from 'react'
import type { Fleet, FleetChange, PlannerAnswers, PlannerAsks, PlanProgress, WhatIfAnswer } from '@/core/plan'

type Planned = Extract<PlannerAnswers, { kind: 'planned' }>
export type PlannerState =
  | { kind: 'idle' }
  | { kind: 'running'; progress: PlanProgress | null }
  | { kind: 'planned'; planned: Planned }
  | { kind: 'tried'; change: FleetChange; answer: WhatIfAnswer }
  | { kind: 'failed'; says: string }

/** A planner that is silent for so long, in milliseconds, is gone: it tells its progress every second or so. */
const silentFor = 45_000

/** Plans in a worker of the browser: its progress, its answer, and a way to stop it with the best so far. */
export function usePlanner() {
  const [state, setState] = useState<PlannerState>({ kind: 'idle' })
  const worker = useRef<Worker | null>(null)
  const watch = useRef<ReturnType<typeof setTimeout>>(undefined)
  const end = useCallback(() => {
    clearTimeout(watch.current)
    worker.current?.terminate()
    worker.current = null
  }, [])
  useEffect(() => end, [end])
  const ask = (message: PlannerAsks) => worker.current?.postMessage(message)
  const begin = (message: PlannerAsks) => {
    end()
    setState({ kind: 'running', progress: null })
    const lost = () => {
      setState({
        kind: 'failed',
        says: 'The planner stopped unexpectedly. Nothing was changed: propose again.',
      })
      end()
    }
    // A worker that the browser takes away says nothing any more.
    const heard = () => {
      clearTimeout(watch.current)
      watch.current = setTimeout(lost, silentFor)
    }
    heard()
    const own = new Worker(new URL('../../../workers/planner.ts', import.meta.url), { type: 'module' })
    worker.current = own
    own.onmessage = ({ data }: MessageEvent<PlannerAnswers>) => {
      heard()
      if (data.kind === 'progress') setState({ kind: 'running', progress: data.progress })
      else if (data.kind === 'planned') setState({ kind: 'planned', planned: data })
      else setState(data)
      if (data.kind !== 'progress') end()
    }
    own.onerror = lost
    ask(message)
  }
  return {
    state,
    plan: (fleet: Fleet, currency: string) => begin({ kind: 'plan', fleet, currency, seed: 1 }),
    whatIf: (fleet: Fleet, currency: string, change: FleetChange) =>
      begin({ kind: 'whatIf', fleet, currency, change }),
    stop: () => ask({ kind: 'stop' }),
    clear: () => {
      end()
      setState({ kind: 'idle' })
    },
  }
}
