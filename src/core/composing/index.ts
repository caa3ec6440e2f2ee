export {
  composeSheet,
  longestCure,
  savingOfBundling,
  composedService,
  type ComposedService,
  type Saving,
  type ServiceShape,
} from './compose'
export { usualPath, usualPositions } from './choosing'
export { notGivenNote, type UnitFacts } from './practised'
export { unitFactSchema, type UnitFact, type UnitFactInput } from './unitFact'
export { plainStep } from './plainStep'
export { offersFor, type Offer } from './offers'
export { newestRound, openStretches, visitRound, recomposeSheet, type Recomposed } from './recompose'
export type {
  ChosenTask,
  ComposedSheet,
  ComposeInput,
  ConsumableNeed,
  FastenerNeed,
  ImpliedTask,
  Job,
  PartNeed,
  SheetStep,
  StripOrder,
  ToolNeed,
  UsedPractice,
} from './types'
export type { ComposePage } from './views'
export { foldSteps, placesWords, type FoldedSteps } from './fold'
