import { Joi } from '../problem'
import { quantity, unitsOf, type Dimension, type Quantity } from './quantity'
import { parseNumber } from './parseNumber'

/**
 * Schema of a typed quantity: `{value: '200', unit: 'bar'}` in, `Quantity` or null (left blank) out.
 *
 * @param dimension what is measured
 * @param limits the least and greatest sensible amount, in SI; `says` names them in words
 */
export function quantitySchema(dimension: Dimension, limits: { min: number; max: number; says: string }) {
  return Joi.any<Quantity | null>()
    .custom((input: unknown, helpers) => {
      if (input == null) return null
      const { value, unit } = input as { value?: unknown; unit?: unknown }
      const text = value == null ? '' : String(value).trim()
      if (text === '') return null
      if (typeof unit !== 'string' || !unitsOf(dimension).includes(unit)) {
        return helpers.message({ custom: `Choose a unit of ${dimension}.` })
      }
      const parsed = parseNumber(text)
      if (!parsed.ok) return helpers.message({ custom: parsed.reason })
      const amount = quantity(dimension, parsed.value, unit)
      if (amount.si < limits.min || amount.si > limits.max) {
        return helpers.message({ custom: `Enter ${limits.says}.` })
      }
      return amount
    })
    .default(null)
}
