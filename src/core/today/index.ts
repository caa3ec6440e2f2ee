export {
  type MorningItem,
  type MorningKind,
  firstOfEach,
  inMorningOrder,
  mostAtOnce,
  morningKinds,
} from './morning'
export type { BookedVisit, Bundled, DuePump, DueRow, NextVisitView, TodayRow, TodayView } from './views'
export { standsFor, type Standing } from './standsFor'
export { morningList, type Morning } from './rows'
