import { DataTypes, type QueryInterface } from 'sequelize'
import type { RunnableMigration } from 'umzug'
import { day, id, instant, json, optionalInstant, optionalRef, ref, text, version } from './columns'

/** Signs that somebody saw, and the early checks that follow a service. */
export const signs: RunnableMigration<QueryInterface> = {
  name: '0010-signs',
  up: async ({ context: tables }) => {
    const recorded = { recordedAt: instant, recordedById: ref('people'), version }
    await tables.createTable('signs', {
      id,
      machineId: optionalRef('machines'),
      assemblyId: optionalRef('assemblies'),
      symptom: text(20),
      seenOn: day,
      words: text(300),
      dripsPerMinute: { type: DataTypes.DOUBLE, allowNull: true },
      flow: json,
      task: text(40),
      positions: json,
      by: day,
      sheetId: optionalRef('sheets'),
      status: text(12),
      outcome: text(12),
      settledWords: text(300),
      settledAt: optionalInstant,
      settledById: optionalRef('people'),
      ...recorded,
    })
    await tables.addIndex('signs', ['status'])
    await tables.addIndex('signs', ['assemblyId'])
    await tables.addIndex('signs', ['machineId'])
    await tables.createTable('early_checks', {
      id,
      sheetId: ref('sheets'),
      assemblyId: ref('assemblies'),
      at: instant,
      afterHours: { type: DataTypes.DOUBLE, allowNull: false },
      status: text(12),
      words: text(300),
      doneAt: optionalInstant,
      doneById: optionalRef('people'),
      ...recorded,
    })
    await tables.addIndex('early_checks', ['status'])
    await tables.addIndex('early_checks', ['assemblyId'])
    await tables.addColumn('companies', 'earlyCheckHours', {
      type: DataTypes.DOUBLE,
      allowNull: false,
      defaultValue: 20,
    })
  },
  down: async ({ context: tables }) => {
    await tables.removeColumn('companies', 'earlyCheckHours')
    await tables.dropTable('early_checks')
    await tables.dropTable('signs')
  },
}
