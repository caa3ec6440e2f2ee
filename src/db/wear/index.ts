export { type LifeRow, lives, newLife } from './lives'
export { type DutyRow, type LimitOverrideRow, duties, limitOverrides } from './wearRules'
