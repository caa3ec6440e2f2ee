export { BookVisit } from './BookVisit'
export { ServiceChoice } from './ServiceChoice'
export { serviceWords, visitMarks } from './VisitList'
export { PlanTabs } from './PlanTabs'
