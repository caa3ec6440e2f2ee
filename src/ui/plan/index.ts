export { ServiceChoice } from './ServiceChoice'
export { serviceWords } from './VisitList'
export type { BookableClock } from './bookable'
