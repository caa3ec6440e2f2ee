export { composeItems, composeOrRefuse, jobsOf, modelsOf, placeAndItems } from './composing'
