export {
  composeItems,
  composeOrRefuse,
  jobsOf,
  modelsOf,
  placeAndItems,
  unitsOf,
  type Units,
} from './composing'
export { factsOf, learnFact, sayFact, unitFacts } from './unitFacts'
