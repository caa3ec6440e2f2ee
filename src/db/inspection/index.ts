export { type EarlyCheckRow, type SignRow, earlyChecks, signs } from './signs'
