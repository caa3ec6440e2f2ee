export { type PumpModelVersionRow, pumpModelVersions, pumpModels, settledDoubts } from './pumpModels'
