import { DataTypes, type QueryInterface } from 'sequelize'
import type { RunnableMigration } from 'umzug'

/** What is found out once on a unit, and the product that a practice puts on a thread. */
export const factsAndProducts: RunnableMigration<QueryInterface> = {
  name: '0020-facts-products',
  up: async ({ context: tables }) => {
    await tables.addColumn('assemblies', 'facts', {
      type: DataTypes.TEXT,
      allowNull: false,
      defaultValue: '{}',
    })
    await tables.addColumn('practice_choices', 'product', { type: DataTypes.TEXT, allowNull: true })
  },
  down: async ({ context: tables }) => {
    await tables.removeColumn('practice_choices', 'product')
    await tables.removeColumn('assemblies', 'facts')
  },
}
