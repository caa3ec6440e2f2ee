export { type FieldChange, changesBetween } from './changes'
export { type CompanyInput, type SetUpInput, timeZones } from './company'
export { companySchema, setUpSchema } from './companySchema'
