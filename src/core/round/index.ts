export { historyOf, inWalkingOrder, readMessage, usePerWeek } from './round'
export type { RoundMove, RoundRow, RoundSaved } from './views'
