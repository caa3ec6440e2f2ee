export { FrostWatch } from './FrostWatch'
export { LaidUpNote } from './LaidUpNote'
