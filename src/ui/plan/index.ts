export { ServiceChoice } from './ServiceChoice'
export { serviceWords } from './VisitList'
