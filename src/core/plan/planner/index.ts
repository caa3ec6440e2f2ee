export { checkPlan } from './check'
export { planCost } from './cost'
export { planVisits } from './plan'
export type * from './types'
