import { DataTypes, type ModelAttributeColumnOptions } from 'sequelize'

/** A column of a table, by what stands in it outside the database. */
export type Column<Value> = ModelAttributeColumnOptions & {
  /** Text in the database, a value outside. */
  isJson?: true
  /** Nothing at run time: says the type only. */
  holds?: Value
}

/** Column types of the tables; lengths, keys and references are the migrations' business. */
export const id: Column<string> = { type: DataTypes.STRING(36), primaryKey: true }
export const text = <Value extends string = string>(): Column<Value> => ({ type: DataTypes.STRING })
export const longText = (): Column<string> => ({ type: DataTypes.TEXT })
export const json = <Value>(): Column<Value> => ({ type: DataTypes.TEXT, isJson: true })
export const day = (): Column<string> => ({ type: DataTypes.DATEONLY })
export const whole = <Value extends number = number>(): Column<Value> => ({ type: DataTypes.INTEGER })
export const real = (): Column<number> => ({ type: DataTypes.DOUBLE })
/** The same, or nothing. */
export const orNull = <Value>(column: Column<Value>): Column<Value | null> => column as Column<Value | null>

/** Who wrote a row down, and when. */
export const recorded = { recordedAt: text(), recordedById: text() }
/** What people edit and take out of use without losing it. */
export const retirable = {
  retiredOn: orNull(day()),
  retiredReason: text(),
  createdAt: text(),
  version: whole(),
}
