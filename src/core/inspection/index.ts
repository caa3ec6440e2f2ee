export { dripLimits, firstChecks, type Likely, type Seen, type Triage } from './firstChecks'
export { symptomKeys, symptoms, type FirstCheck, type Symptom, type SymptomKey } from './symptoms'
export {
  earlyCheckSchema,
  settleSignSchema,
  signSchema,
  type EarlyCheckInput,
  type SettleSignInput,
  type SignInput,
  type SignOutcome,
} from './schema'
export { signOutcomes } from './choices'
export {
  causes,
  probableCauses,
  type CauseKey,
  type Evidence,
  type ProbableCause,
  type SeenDamage,
} from './causes'
export {
  damageKeys,
  damages,
  damagesOf,
  dispositionKeys,
  dispositionRefusal,
  dispositions,
  extents,
  findingSortKeys,
  findingSorts,
  findingWords,
  matesOf,
  usualDisposition,
  type Damage,
  type Disposition,
  type Extent,
  type FindingSort,
} from './damage'
export type { EarlyCheckView, FindingLine, SignView } from './views'
