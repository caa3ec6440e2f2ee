import { inSentence } from '../units'
import type { ClockView } from './views'

/** A limit in hours that an assembly has not reached yet. */
export type LimitAhead = {
  key: string
  /** "P-12 renew high-pressure seals, cylinder 3" */
  label: string
  /** Hours (or strokes) of the counting meter until it is reached. */
  meterLeft: number
  /** The same of the assembly itself. */
  left: number
}

/**
 * The hour limits an assembly will come to, nearest first; those it has passed are left out.
 * @param share the part of the meter's time the assembly is loaded: at a half, 10 h of its own take 20 of the meter's
 * @example limitsAhead(clocks, 0.5, 'P-31') // [{ label: 'P-31 change oil', left: 10, meterLeft: 20, … }]
 */
export function limitsAhead(
  clocks: Pick<ClockView, 'task' | 'name' | 'where' | 'positions' | 'hoursLimit' | 'hoursUsed'>[],
  share: number,
  number = '',
): LimitAhead[] {
  if (share <= 0) return []
  return clocks
    .flatMap((clock): LimitAhead[] => {
      const left = clock.hoursLimit === null ? 0 : clock.hoursLimit - clock.hoursUsed
      if (left <= 0) return []
      const name = number === '' ? clock.name : `${number} ${inSentence(clock.name)}`
      return [
        {
          key: [number, clock.task, ...clock.positions].join(' '),
          label: clock.where === '' ? name : `${name}, ${clock.where}`,
          meterLeft: left / share,
          left,
        },
      ]
    })
    .sort((a, b) => a.meterLeft - b.meterLeft)
}
