export {
  type MorningItem,
  type MorningKind,
  firstOfEach,
  inMorningOrder,
  mostAtOnce,
  morningKinds,
} from './morning'
export type {
  BookedVisit,
  Bundled,
  DuePump,
  DueRow,
  NextVisitView,
  Standing,
  TodayRow,
  TodayView,
} from './views'
export { standsFor } from './standsFor'
export { morningList, type Morning } from './rows'
