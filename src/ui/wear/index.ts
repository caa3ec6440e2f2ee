export { markOf } from './ClockList'
export { DueFigures } from './DueFigures'
export { PositionChoice } from './PositionChoice'
export { actInk, actWords, bandWords, inkOf, leftWords, limitWords, stateWords, usedWords } from './words'
