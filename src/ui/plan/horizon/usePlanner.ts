'use client'

import { useCallback, useEffect, useRef, useState } from 'react'
import type { Fleet, PlannerAnswers, PlannerAsks, PlanProgress } from '@/core/plan'

type Planned = Extract<PlannerAnswers, { kind: 'planned' }>
export type PlannerState =
  | { kind: 'idle' }
  | { kind: 'running'; progress: PlanProgress | null }
  | { kind: 'planned'; planned: Planned }
  | { kind: 'failed'; says: string }

/** Plans in a worker of the browser: its progress, its answer, and a way to stop it with the best so far. */
export function usePlanner() {
  const [state, setState] = useState<PlannerState>({ kind: 'idle' })
  const worker = useRef<Worker | null>(null)
  const end = useCallback(() => {
    worker.current?.terminate()
    worker.current = null
  }, [])
  useEffect(() => end, [end])
  const ask = (message: PlannerAsks) => worker.current?.postMessage(message)
  return {
    state,
    plan: (fleet: Fleet, currency: string) => {
      end()
      setState({ kind: 'running', progress: null })
      const own = new Worker(new URL('../../../workers/planner.ts', import.meta.url), { type: 'module' })
      worker.current = own
      own.onmessage = ({ data }: MessageEvent<PlannerAnswers>) => {
        if (data.kind === 'progress') setState({ kind: 'running', progress: data.progress })
        else if (data.kind === 'planned') setState({ kind: 'planned', planned: data })
        else setState({ kind: 'failed', says: data.says })
        if (data.kind !== 'progress') end()
      }
      own.onerror = () => {
        setState({
          kind: 'failed',
          says: 'The planner stopped unexpectedly. Nothing was changed: propose again.',
        })
        end()
      }
      ask({ kind: 'plan', fleet, currency, seed: 1 })
    },
    stop: () => ask({ kind: 'stop' }),
    clear: () => {
      end()
      setState({ kind: 'idle' })
    },
  }
}
