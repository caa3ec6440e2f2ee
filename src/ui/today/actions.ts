import type { EarlyCheckInput, SettleSignInput } from '@/core/inspection'
import type { Outcome } from '@/core/problem'
import type { MarkActions } from './LaterDialog'

/** What can be done from a row of Today. */
export type TodayActions = MarkActions & {
  settleSign: (input: SettleSignInput) => Promise<Outcome>
  recordEarlyCheck: (input: EarlyCheckInput) => Promise<Outcome>
}
