export { type FieldChange, changesBetween } from './changes'
export { type CompanyInput, type SetUpInput, companySchema, setUpSchema, timeZones } from './company'
