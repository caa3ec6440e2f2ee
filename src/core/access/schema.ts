import { Joi, id, line, version } from '../problem'
import { roles, type Role } from './permissions'

const signInName = () =>
  Joi.string()
    .trim()
    .lowercase()
    .min(2)
    .max(30)
    .pattern(/^[a-z0-9][a-z0-9._-]*$/)
    .messages({ 'string.pattern.base': 'Use letters, digits, points and hyphens.' })

const password = () =>
  Joi.string()
    .min(10)
    .max(200)
    // Whoever guesses tries the name first.
    .insensitive()
    .invalid(Joi.ref('signInName'), Joi.ref('name'))
    .messages({
      'string.min': 'Use at least 10 characters. A short sentence works well.',
      'any.invalid': 'Use something else than a name.',
    })

export type PersonInput = {
  id: string
  version?: number
  name: string
  signInName: string
  role: Role
  password: string
}

/** A person who signs in. The password is asked for once; left blank on an edit it stays as it is. */
export const newPersonSchema = Joi.object<PersonInput>({
  id: id().required(),
  name: line(60).required(),
  signInName: signInName().required(),
  role: Joi.string()
    .valid(...roles)
    .required(),
  password: password().required(),
})

export const personSchema = Joi.object<PersonInput>({
  id: id().required(),
  version: version().required(),
  name: line(60).required(),
  signInName: signInName().required(),
  role: Joi.string()
    .valid(...roles)
    .required(),
  password: password().allow('').default(''),
})

/** Somebody leaves the company, or comes back. */
export const leavingSchema = Joi.object<{ id: string; version: number; left: boolean }>({
  id: id().required(),
  version: version().required(),
  left: Joi.boolean().required(),
})
  .prefs({ stripUnknown: true })
  .required()

export type SignInInput = { signInName: string; password: string }
export const signInSchema = Joi.object<SignInInput>({
  signInName: Joi.string()
    .trim()
    .lowercase()
    .max(30)
    .required()
    .messages({ 'string.empty': 'Enter your sign-in name.' }),
  password: Joi.string().max(200).required().messages({ 'string.empty': 'Enter your password.' }),
})

export type PasswordChangeInput = { current: string; next: string }
export const passwordChangeSchema = Joi.object<PasswordChangeInput>({
  current: Joi.string().max(200).required(),
  next: password().required(),
})

export { password as passwordField, signInName as signInNameField }
