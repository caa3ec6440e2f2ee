import { DataTypes, type QueryInterface } from 'sequelize'
import type { RunnableMigration } from 'umzug'
import { id, instant, optionalRef, ref, text } from './columns'

const optionalReal = { type: DataTypes.DOUBLE, allowNull: true }

/** What single assemblies go by instead of their model, hard duty, and the notice a crew needs. */
export const rules: RunnableMigration<QueryInterface> = {
  name: '0008-rules',
  up: async ({ context: tables }) => {
    const recorded = { status: text(12), recordedAt: instant, recordedById: ref('people') }
    await tables.createTable('limit_overrides', {
      id,
      assemblyId: ref('assemblies'),
      task: text(40),
      hours: optionalReal,
      days: optionalReal,
      firstHours: optionalReal,
      firstDays: optionalReal,
      early: { type: DataTypes.DOUBLE, allowNull: false },
      late: { type: DataTypes.DOUBLE, allowNull: false },
      reason: text(300),
      supersedesId: optionalRef('limit_overrides'),
      ...recorded,
    })
    await tables.addIndex('limit_overrides', ['assemblyId'])
    await tables.createTable('duties', {
      id,
      assemblyId: ref('assemblies'),
      key: text(20),
      factor: { type: DataTypes.DOUBLE, allowNull: false },
      reason: text(300),
      ...recorded,
    })
    await tables.addIndex('duties', ['assemblyId'])
    await tables.addColumn('companies', 'noticeDays', {
      type: DataTypes.INTEGER,
      allowNull: false,
      defaultValue: 2,
    })
  },
  down: async ({ context: tables }) => {
    await tables.removeColumn('companies', 'noticeDays')
    await tables.dropTable('duties')
    await tables.dropTable('limit_overrides')
  },
}
