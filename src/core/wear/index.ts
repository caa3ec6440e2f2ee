export { clockOf, stateRank, worseClock, type Clock, type ClockState } from './clock'
export { dueOf, type ComingUse, type Due } from './due'
export {
  dutyFactors,
  dutyFloor,
  noRules,
  ruledLimit,
  type Duty,
  type DutyKey,
  type LimitOverride,
  type RuledLimit,
  type WearRules,
} from './rules'
export {
  positionsOf,
  sortsOf,
  taskClocks,
  whereWords,
  type Since,
  type TaskClock,
  type WearRecord,
} from './tasks'
export {
  clearLimitSchema,
  clockStartSchema,
  dutiesSchema,
  limitSchema,
  movePartSchema,
  positionSchema,
  takeOverSchema,
  type MovePartInput,
  type TakeOverInput,
  renewalSchema,
  type ClockStartInput,
  type DutiesInput,
  type LimitInput,
  type EndReason,
  type RenewalInput,
} from './schema'
export { endReasons } from './choices'
export { limitsAhead, type LimitAhead } from './limits'
export { broughtForward, signsOn, type ForwardSign } from './signs'
export {
  bareDueStates,
  dueStates,
  withLeadTime,
  type BareDueState,
  type DueState,
  type PartsLeadTime,
  type Terms,
  type Wearing,
} from './states'
export { chanceBy } from './chance'
export { likelyWords, renewalChance, takeAlong, type Renewals } from './likelihood'
export type {
  ClockView,
  DueLine,
  LifeLine,
  PositionLives,
  PositionView,
  RuleMove,
  RulesView,
  StartingLife,
  WearView,
} from './views'
