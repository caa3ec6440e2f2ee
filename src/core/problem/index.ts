export { Joi } from './joi'
export { check, checkOptions, fieldMessages } from './check'
export {
  type Reference,
  day,
  id,
  idSchema,
  line,
  note,
  optionalDay,
  optionalLine,
  referenceSchema,
  timeOfDay,
  version,
} from './fields'
export { problemWords, type Outcome } from './outcome'
export { ownPath } from './ownPath'
export {
  type Problem,
  type ProblemError,
  type StaleEdit,
  conflict,
  invalid,
  notAllowed,
  notFound,
  problemOf,
  slowDown,
} from './problem'
