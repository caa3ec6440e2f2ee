export { dripLimits, firstChecks, type Likely, type Seen, type Triage } from './firstChecks'
export { symptomKeys, symptoms, type FirstCheck, type Symptom, type SymptomKey } from './symptoms'
export {
  earlyCheckSchema,
  settleSignSchema,
  signOutcomes,
  signSchema,
  type EarlyCheckInput,
  type SettleSignInput,
  type SignInput,
  type SignOutcome,
} from './schema'
