export { getComposePage } from './composePage'
export { exportDue, listDue } from './dueList'
export { listFeeds, makeFeed, readFeed, revokeFeed } from './feeds'
export { clearMark, handOn, listMarks, snooze } from './marks'
export { nextVisitTo } from './nextVisits'
export {
  bookVisit,
  cancelVisit,
  changeVisit,
  getVisit,
  listOpenVisits,
  listVisits,
  restoreVisit,
  visitsOfMachine,
} from './visits'
