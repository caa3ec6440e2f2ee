export {
  choiceName,
  practiceKeys,
  practiceOf,
  practices,
  type Practice,
  type PracticeChoice,
  type PracticeKey,
  type Treats,
} from './catalogue'
export {
  noPractices,
  resolvePractice,
  type Choice,
  type CompanyPractices,
  type ManualWord,
  type Product,
  type ResolvedPractice,
} from './resolve'
export { type PracticeInput, practiceSchema } from './schema'
export type { ChosenView, PracticeView, PracticesPage } from './views'
