export type * from './types'
export {
  currentStep,
  foldSheet,
  inspected,
  ofKind,
  phasesOf,
  unfinished,
  type PositionState,
  type SheetState,
  type StepState,
} from './fold'
export { blockedBy, fastenerOf, mayBeSkipped, offLimits, refusal, statedTorque } from './rules'
export { notReady, presumedEndReason } from './sign'
export {
  abandonSchema,
  correctionSchema,
  payloadSchemas,
  sentEntriesSchema,
  signSchema,
  startSheetSchema,
  unplannedSheetSchema,
  type AbandonInput,
  type CorrectionInput,
  type SignInput,
  type StartSheetInput,
  type UnplannedSheetInput,
} from './schema'
export {
  endReasonAfterCorrections,
  isTakenBack,
  recordKinds,
  recordLines,
  usedAfterCorrections,
  type RecordKind,
  type RecordLine,
} from './record'
