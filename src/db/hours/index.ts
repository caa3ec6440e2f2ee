export { type FitRow, loadFits, saveFits } from './fits'
export { type MeterEventRow, type MeterRow, meterEvents, meterSkips, meters } from './meters'
export { type ReadingRow, acceptedReadings, doubtedCounts, readings } from './readings'
export { type SpellRow, spells } from './spells'
