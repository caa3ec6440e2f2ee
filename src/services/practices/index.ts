export { choosePractice, companyPractices, getPractices } from './practices'
