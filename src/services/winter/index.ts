export { askWeather, importMinima, keepOutlook, loadYards, recordFrost, saveClimate } from './climates'
export { winterNeeds } from './needs'
export { getWinter } from './page'
export { frostWatch } from './watch'
export { compareMethods, getMachineWinter, workOf } from './machine'
export { seasonReport } from './report'
export { loadMachines, saveCircuit } from './plans'
export { listProducts, saveProduct } from './products'
export {
  heldWords,
  laidUpMachines,
  loadStandings,
  recordMoved,
  recordWinter,
  winterStanding,
} from './standings'
export { getTerms, loadTerms, saveTerms } from './terms'
export { keepWinter, pouredOn, pumpsOn, winterMinutes, winterPart } from './sheet'
