export { eventToldBy } from './meterChanges'
export { asMeterEvent, asReading, faceOf, historyOf, linesOf } from './meterHistory'
export { insertMeter, retireMeter, returnMeter, saveMeter } from './meters'
export { pastInstant } from './readingInput'
export { keepReading, recordReading } from './readings'
export { settleAsReplaced, settleReading } from './settling'
export {
  endLayUp,
  layUp,
  loadKnown,
  saveSpell,
  spellToday,
  spellsByMachine,
  spellsOf,
  withdrawSpell,
} from './spells'
export { loadStanding } from './standing'
