export { clockOf, worseClock, type Clock, type ClockState } from './clock'
export { positionsOf, taskClocks, whereWords, type Since, type TaskClock, type WearRecord } from './tasks'
export {
  clockStartSchema,
  endReasons,
  renewalSchema,
  type ClockStartInput,
  type EndReason,
  type RenewalInput,
} from './schema'
export { limitsAhead, type LimitAhead } from './limits'
