export { pumpModelVersions, pumpModels, settledDoubts } from './pumpModels'
