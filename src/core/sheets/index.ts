export type * from './types'
export { pieceFates, timerKinds } from './types'
export {
  currentStep,
  sheetState,
  inspected,
  ofKind,
  phasesOf,
  seenBy,
  unfinished,
  type PositionState,
  type SheetState,
  type StepState,
} from './state'
export {
  alwaysRenewed,
  blockedBy,
  mayBeSkipped,
  opens,
  proofRefusal,
  refusal,
  wantsSafety,
  type Writing,
} from './bench/rules'
export {
  boltPlaces,
  fastenerNotes,
  fastenerOf,
  lookedUp,
  needAt,
  looksUpFirst,
  nextBolt,
  pulledOff,
  pulledTo,
  statedTorque,
  torqueRefusal,
  wantsLookingUp,
  wrenchAdvice,
  type BoltPlace,
} from './bench/bolts'
export {
  borePieces,
  fateWords,
  keptSettings,
  notCounted,
  partsOpen,
  stopped,
  temporaryTools,
  toRenew,
  toSeeTo,
  unseen,
  valvesBack,
  wentBack,
  type BorePieces,
} from './bench/counts'
export { openedPlaces, sheetPositions } from './content'
export { lockless, locksOf, locksOn, type Lock } from './bench/locks'
export {
  benchMeasures,
  bucketFlow,
  comparable,
  converted,
  dripRate,
  offLimits,
  unitsFor,
  unlikeBefore,
  type EarlierMeasure,
} from './bench/measures'
export { findingOf, openStretch, placeWords, positionPlace, stretchName, type PositionPlace } from './places'
export { usesFor, type Expected } from './bench/taking'
export {
  clockWords,
  timersOf,
  timerStand,
  treatmentAt,
  type SheetTimer,
  type TimerStand,
} from './bench/timers'
export { conditionOutcomes, outcomeWords } from './record/onCondition'
export { foundFacts } from './signing/facts'
export { proofStops, stoppedBy } from './signing/proof'
export { notReady, partName, presumedEndReason } from './signing/sign'
export { causesOn, isLook, matesToLookAt, seenOn, sortAt, soundFinding, wayBegun } from './bench/looking'
export {
  abandonSchema,
  correctionSchema,
  moreWorkSchema,
  payloadSchemas,
  sentEntriesSchema,
  sentEntrySchema,
  signatureSchema,
  startSheetSchema,
  takeInReasonSchema,
  unplannedSheetSchema,
  type AbandonInput,
  type CorrectionInput,
  type MoreWorkInput,
  type SignatureInput,
  type StartSheetInput,
  type UnplannedSheetInput,
} from './schema'
export { mostEntriesAtOnce } from './choices'
export { endReasonAfterCorrections, isTakenBack, usedAfterCorrections } from './record/corrections'
export { recordLines } from './record/lines'
export { authorWords, recordKinds, type RecordKind, type RecordLine } from './record/teller'
export { positionLines, workersOf, type PositionLine } from './record/positions'
export type {
  BenchMeter,
  BenchPart,
  EndingLife,
  MoreWork,
  SettledTorque,
  SheetLine,
  SheetPage,
  SigningView,
} from './views'
export { correctableIn, type Correctable } from './record/correctable'
export { safeAnew, whereWorkStands, type Place } from './bench/standing'
export { recordOf, type WorkDone } from './record/serviceRecord'
export { foldColumns, mostColumns, numberSpans } from './bench/columns'
export { digestOf, type SheetDigest } from './record/digest'
export { anySheet, isLookedFor, type FoundBy, type SheetQuery } from './record/looking'
