export type * from './types'
export { qualifications } from './types'
export { completeModel, mostSteps, parsePumpModel, pumpModelFaults } from './parse'
export { checkModel, type ModelCheck } from './checks'
export { changesBetween, type ModelChange } from './changes'
export { modelForSize } from './sizes'
export { foundTorque, withTorque, type FoundTorque } from './found'
export { eachStep, stepLists } from './steps'
export { accessPath, indicesFor, outerOf, type NodeInstance } from './path'
export { titleOf } from './title'
export { fittedIn, hasOwnClock, mayRenew, renewsWhere } from './taskKinds'
export {
  hoursOrMinutes,
  orientationWords,
  patternWords,
  phaseNames,
  qualificationNames,
  stepFacts,
  taskKindNames,
  treatmentNames,
  treatmentWords,
} from './words'
export {
  allPositions,
  indicesOf,
  instanceKey,
  instancesOf,
  positionName,
  repeatName,
  splitInstance,
  type PositionKey,
} from './instances'
export { pumpModelJsonSchema } from './jsonSchema'
export type { CheckView, PublishPreview } from './views'
