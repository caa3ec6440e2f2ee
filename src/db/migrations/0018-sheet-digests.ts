import { DataTypes, type QueryInterface } from 'sequelize'
import type { RunnableMigration } from 'umzug'

/** What lists tell of each sheet and find it by, made from its entries; nothing here is a record. */
export const sheetDigests: RunnableMigration<QueryInterface> = {
  name: '0018-sheet-digests',
  up: async ({ context: tables }) => {
    await tables.createTable('sheet_digests', {
      id: { type: DataTypes.STRING(36), primaryKey: true },
      digest: { type: DataTypes.TEXT, allowNull: false },
    })
  },
  down: async ({ context: tables }) => {
    await tables.dropTable('sheet_digests')
  },
}
