import { Joi, id } from '../problem'
import type { Fact } from '../models'

/** Something that is found out once on a unit, with what is known. */
export type UnitFact = Fact & {
  answer: string | null
  /** Who says so: the unit itself, or the machine it is on. */
  from: 'unit' | 'machine' | null
}

export type UnitFactInput = {
  assemblyId: string
  fact: string
  answer: string
  /** What it was when the page was drawn; blank for nothing. */
  before: string
}

export const unitFactSchema = Joi.object<UnitFactInput>({
  assemblyId: id().required(),
  fact: Joi.string().max(40).required(),
  answer: Joi.string().max(80).required().messages({
    'any.required': 'Choose what it is.',
    'string.empty': 'Choose what it is.',
  }),
  before: Joi.string().max(80).allow('').default(''),
})
