export { clockOf, worseClock, type Clock, type ClockState } from './clock'
export { positionsOf, taskClocks, whereWords, type Since, type TaskClock, type WearRecord } from './tasks'
