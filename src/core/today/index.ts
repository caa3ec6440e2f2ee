export {
  type MorningItem,
  type MorningKind,
  firstOfEach,
  inMorningOrder,
  mostAtOnce,
  morningKinds,
} from './morning'
export type { BareRow, DuePump, NextVisitView, TodayRow, TodayView } from './views'
export { morningList, type Morning } from './rows'
