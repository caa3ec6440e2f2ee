export type * from './types'
export { parsePumpModel, pumpModelFaults, stepLists } from './parse'
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
