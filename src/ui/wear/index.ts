export { markOf } from './ClockList'
export { DueFigures } from './DueFigures'
export { PositionChoice } from './PositionChoice'
export {
  actInk,
  actWords,
  bandWords,
  inkOf,
  leftWords,
  limitWords,
  missingWords,
  stateWords,
  usedWords,
} from './words'
