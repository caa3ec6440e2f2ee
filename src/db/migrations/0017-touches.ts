import { DataTypes, type QueryInterface } from 'sequelize'
import type { RunnableMigration } from 'umzug'

/**
 * What each commit touched, by which other processes learn of it, and what was learned from each meter's
 * history, so that a start need not learn it again. Nothing here is a record.
 */
export const touches: RunnableMigration<QueryInterface> = {
  name: '0017-touches',
  up: async ({ context: tables }) => {
    await tables.createTable('touches', {
      topic: { type: DataTypes.STRING(120), primaryKey: true },
      sequence: { type: DataTypes.INTEGER, allowNull: false },
    })
    await tables.addIndex('touches', ['sequence'])
    await tables.createTable('usage_fits', {
      meterId: { type: DataTypes.STRING(36), primaryKey: true },
      from: { type: DataTypes.STRING(40), allowNull: false },
      fit: { type: DataTypes.TEXT, allowNull: false },
    })
  },
  down: async ({ context: tables }) => {
    await tables.dropTable('usage_fits')
    await tables.dropTable('touches')
  },
}
