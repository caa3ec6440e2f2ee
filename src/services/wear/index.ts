export { loadAssemblies, loadCounting, pumpsByMachine } from './assemblyLoading'
export {
  checkPumps,
  checksOf,
  linkFailures,
  listOpenChecks,
  recordEarlyCheck,
  reviseEarlyChecks,
  setEarlyChecks,
} from './earlyChecks'
export { movePart, startingLives, takeOverLives } from './lifeMoves'
export { livesAt } from './lives'
export { recordRenewal, startClocks } from './renewals'
export { clearLimit, previewDuties, previewLimit, rulesOf, saveDuties, saveLimit } from './rules'
export { loadRules } from './rulesLoading'
export { getWear, listWear, listWearOf } from './wear'
export { renewalRates } from './renewalRates'
export { forgetFits, keepFits } from './forecasts'
