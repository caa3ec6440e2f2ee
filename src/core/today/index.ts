export { type MorningItem, type MorningKind, firstOfEach, inMorningOrder, morningKinds } from './morning'
export type { BareRow, DuePump, NextVisitView, TodayRow, TodayView } from './views'
export { morningList, mostAtOnce, type Morning } from './rows'
