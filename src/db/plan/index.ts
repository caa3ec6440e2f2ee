export { crewTerms, planTerms } from './crew'
export { type FeedRow, feeds } from './feeds'
export { type MarkRow, marks } from './marks'
export { type VisitRow, visits } from './visits'
