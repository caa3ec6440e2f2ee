export {
  dimensions,
  inUnit,
  quantity,
  showNumber,
  showQuantity,
  unitsOf,
  type Dimension,
  type Quantity,
} from './quantity'
export { parseNumber, type ParsedNumber } from './parseNumber'
export { quantitySchema } from './quantitySchema'
export { readMoney, showMoney } from './money'
export { inSentence } from './sentence'
export { metricUnits, usUnits, type UnitPreferences } from './preferences'
export { unitPreferencesSchema } from './preferencesSchema'
