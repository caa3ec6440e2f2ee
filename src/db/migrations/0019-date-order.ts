import { DataTypes, type QueryInterface } from 'sequelize'
import type { RunnableMigration } from 'umzug'

/** In which order the company writes the parts of a day. */
export const dateOrder: RunnableMigration<QueryInterface> = {
  name: '0019-date-order',
  up: async ({ context: tables }) => {
    await tables.addColumn('companies', 'dateOrder', {
      type: DataTypes.STRING(3),
      allowNull: false,
      defaultValue: 'dmy',
    })
  },
  down: async ({ context: tables }) => {
    await tables.removeColumn('companies', 'dateOrder')
  },
}
