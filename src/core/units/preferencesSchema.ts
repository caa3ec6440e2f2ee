import { Joi } from '../problem'
import type { UnitPreferences } from './preferences'
import { type Dimension, unitsOf } from './quantity'

const oneOf = (dimension: Dimension) =>
  Joi.string()
    .valid(...unitsOf(dimension))
    .required()

export const unitPreferencesSchema = Joi.object<UnitPreferences>({
  pressure: oneOf('pressure'),
  flow: oneOf('flow'),
  volume: oneOf('volume'),
  length: oneOf('length'),
  temperature: Joi.string().valid('°C', '°F').required(),
})
