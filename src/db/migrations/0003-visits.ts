import { DataTypes, type QueryInterface } from 'sequelize'
import type { RunnableMigration } from 'umzug'
import { id, instant, json, longText, optionalRef, optionalText, ref, text, version, whole } from './columns'

/** Visits: dated bundles of tasks on one machine, or on one shelved assembly, for one technician. */
export const visits: RunnableMigration<QueryInterface> = {
  name: '0003-visits',
  up: async ({ context: tables }) => {
    await tables.createTable('visits', {
      id,
      number: { type: DataTypes.INTEGER, allowNull: false, unique: true },
      machineId: optionalRef('machines'),
      assemblyId: optionalRef('assemblies'),
      day: { type: DataTypes.DATEONLY, allowNull: false },
      startTime: optionalText(5),
      minutes: whole,
      leadId: ref('people'),
      state: text(12),
      items: json,
      note: longText,
      endReason: text(300),
      createdAt: instant,
      version,
    })
    await tables.addIndex('visits', ['day'])
    await tables.addIndex('visits', ['machineId'])
  },
  down: async ({ context: tables }) => {
    await tables.dropTable('visits')
  },
}
