import { signInNameField, passwordField } from '../access'
import { dateOrders } from '../calendar'
import { Joi, line, version, id } from '../problem'
import { unitPreferencesSchema } from '../units'
import type { CompanyInput, SetUpInput } from './company'

/** An IANA time zone this machine knows, such as `Europe/Dublin`. */
const timeZone = Joi.string().custom((value: string, helpers) => {
  try {
    new Intl.DateTimeFormat('en', { timeZone: value })
    return value
  } catch {
    return helpers.message({ custom: 'Choose a time zone from the list, such as Europe/Dublin.' })
  }
})

const companyFields = {
  name: line(80).required(),
  timeZone: timeZone.required(),
  currency: Joi.string()
    .uppercase()
    .pattern(/^[A-Z]{3}$/)
    .default('EUR')
    .messages({ 'string.pattern.base': 'Enter a currency code of three letters, such as EUR.' }),
  dateOrder: Joi.string()
    .valid(...Object.keys(dateOrders))
    .default('dmy'),
  units: unitPreferencesSchema.required(),
  noticeDays: Joi.number()
    .integer()
    .min(0)
    .max(60)
    .default(2)
    .messages({ 'number.min': 'Enter 0 to 60 days.', 'number.max': 'Enter 0 to 60 days.' }),
  earlyCheckHours: Joi.number()
    .min(1)
    .max(500)
    .default(20)
    .messages({ 'number.min': 'Enter 1 to 500 hours.', 'number.max': 'Enter 1 to 500 hours.' }),
}

export const companySchema = Joi.object<CompanyInput>({ version: version().required(), ...companyFields })

export const setUpSchema = Joi.object<SetUpInput>({
  code: Joi.string()
    .trim()
    .uppercase()
    .max(20)
    .required()
    .messages({ 'string.empty': 'Enter the code from the console.' }),
  company: Joi.object(companyFields).required(),
  yard: Joi.object({ id: id().required(), name: line(60).required() }).required(),
  coordinator: Joi.object({
    id: id().required(),
    name: line(60).required(),
    signInName: signInNameField().required(),
    password: passwordField().required(),
  }).required(),
})
