import { DataTypes } from 'sequelize'

/** Column types of the models; lengths, keys and references are the migrations' business. */
export const id = { type: DataTypes.STRING(36), primaryKey: true }
export const text = { type: DataTypes.STRING }
export const longText = { type: DataTypes.TEXT }
export const json = { type: DataTypes.TEXT }
export const day = { type: DataTypes.DATEONLY }
export const whole = { type: DataTypes.INTEGER }
export const real = { type: DataTypes.DOUBLE }
