import { DataTypes, type QueryInterface } from 'sequelize'
import type { RunnableMigration } from 'umzug'

/** What each commit touched, by which other processes learn of it. Nothing here is a record. */
export const touches: RunnableMigration<QueryInterface> = {
  name: '0017-touches',
  up: async ({ context: tables }) => {
    await tables.createTable('touches', {
      topic: { type: DataTypes.STRING(120), primaryKey: true },
      sequence: { type: DataTypes.INTEGER, allowNull: false },
    })
    await tables.addIndex('touches', ['sequence'])
  },
  down: async ({ context: tables }) => {
    await tables.dropTable('touches')
  },
}
