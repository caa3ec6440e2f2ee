export {
  composeItems,
  composeOrRefuse,
  jobsOf,
  modelsOf,
  placeAndItems,
  unitsOf,
  type Units,
} from './composing'
export { composedServiceOf } from './service'
export { factsOf, learnFact, sayFact, unitFacts } from './unitFacts'
