export { type Actor, requirePermission } from './actor'
export { breathe } from './breathe'
export { changesAround, changesOf, recordChange } from './audit'
export { now, realNow, runAt, startOffset } from './clock'
export { type Company, findCompany, getCompany, ourCompany, present, saveCompany } from './company'
export { dayOf, instantOf, timeOf } from './days'
export { editRow, requireFresh, requireUnique } from './edit'
export { isDiskFull, logFault } from './faults'
export {
  type Bytes,
  asPhoto,
  bytesOf,
  dropUnfinished,
  fileIn,
  keepFile,
  readKept,
  requireKind,
} from './files'
export { groupBy } from '@/core/lists'
export { connectionHeader, prepareRequests, requestsSoFar } from './requests'
