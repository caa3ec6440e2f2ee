export { getRound, recordInRound, recordReplaced, skipInRound, undoInRound } from './round'
