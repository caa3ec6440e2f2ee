import { DataTypes, type QueryInterface } from 'sequelize'
import type { RunnableMigration } from 'umzug'
import { day, id, instant, ref, text, version } from './columns'

/** Lay-ups and booked jobs of machines; the crew a machine goes out with. */
export const spells: RunnableMigration<QueryInterface> = {
  name: '0007-spells',
  up: async ({ context: tables }) => {
    await tables.createTable('spells', {
      id,
      machineId: ref('machines'),
      kind: text(8),
      fromDay: day,
      toDay: day,
      hoursPerDay: { type: DataTypes.DOUBLE, allowNull: true },
      what: text(120),
      status: text(12),
      recordedAt: instant,
      recordedById: ref('people'),
      version,
    })
    await tables.addIndex('spells', ['machineId'])
    await tables.addColumn('machines', 'crew', text(40))
  },
  down: async ({ context: tables }) => {
    await tables.removeColumn('machines', 'crew')
    await tables.dropTable('spells')
  },
}
