import { DataTypes } from 'sequelize'

/** Column kinds every table uses. Ids are UUID text: a UUID column would get numeric affinity in SQLite. */
export const id = { type: DataTypes.STRING(36), primaryKey: true, allowNull: false }
export const ref = (table: string) => ({
  type: DataTypes.STRING(36),
  allowNull: false,
  references: { model: table, key: 'id' },
})
export const optionalRef = (table: string) => ({ ...ref(table), allowNull: true })
export const text = (length: number) => ({
  type: DataTypes.STRING(length),
  allowNull: false,
  defaultValue: '',
})
export const optionalText = (length: number) => ({ type: DataTypes.STRING(length), allowNull: true })
export const uniqueText = (length: number) => ({
  type: DataTypes.STRING(length),
  allowNull: false,
  unique: true,
})
export const longText = { type: DataTypes.TEXT, allowNull: false, defaultValue: '' }
/** A JSON value as text: the same in every database. */
export const json = { type: DataTypes.TEXT, allowNull: true }
/** An instant, ISO 8601 in UTC with milliseconds: it sorts as text. */
export const instant = { type: DataTypes.STRING(24), allowNull: false }
export const optionalInstant = { type: DataTypes.STRING(24), allowNull: true }
export const day = { type: DataTypes.DATEONLY, allowNull: true }
export const whole = { type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 }
export const optionalWhole = { type: DataTypes.INTEGER, allowNull: true }
export const real = { type: DataTypes.DOUBLE, allowNull: false, defaultValue: 0 }
/** Rows that people edit: a write names the version it read. */
export const version = { type: DataTypes.INTEGER, allowNull: false, defaultValue: 1 }
