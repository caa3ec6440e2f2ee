import type { QueryInterface } from 'sequelize'
import type { RunnableMigration } from 'umzug'
import {
  day,
  id,
  instant,
  json,
  longText,
  optionalRef,
  optionalText,
  ref,
  text,
  version,
  whole,
} from './columns'
import { DataTypes } from 'sequelize'

/** The company's practices, its register of tools, settled doubts, and families of pump models. */
export const practicesAndTools: RunnableMigration<QueryInterface> = {
  name: '0013-practices-tools',
  up: async ({ context: tables }) => {
    await tables.createTable('practice_choices', {
      id,
      practice: text(40),
      modelId: optionalRef('pump_models'),
      choice: text(40),
      reason: text(300),
      decidedAt: instant,
      decidedById: ref('people'),
      version,
    })
    await tables.createTable('tools', {
      id,
      number: text(20),
      name: text(80),
      kind: text(20),
      count: whole,
      rangeFrom: { type: DataTypes.DOUBLE, allowNull: true },
      rangeTo: { type: DataTypes.DOUBLE, allowNull: true },
      rangeUnit: text(10),
      leverMm: { type: DataTypes.DOUBLE, allowNull: true },
      calibrationDue: day,
      yardId: optionalRef('yards'),
      place: text(40),
      serves: json,
      note: longText,
      retiredOn: day,
      retiredReason: text(300),
      createdAt: instant,
      version,
    })
    await tables.createTable('settled_doubts', {
      id,
      modelId: ref('pump_models'),
      words: longText,
      answer: text(300),
      settledAt: instant,
      settledById: ref('people'),
    })
    await tables.addIndex('settled_doubts', ['modelId'])
    await tables.addColumn('pump_model_versions', 'source', json)
    await tables.addColumn('pump_model_versions', 'news', { ...optionalText(300) })
  },
  down: async ({ context: tables }) => {
    await tables.removeColumn('pump_model_versions', 'news')
    await tables.removeColumn('pump_model_versions', 'source')
    for (const table of ['settled_doubts', 'tools', 'practice_choices']) await tables.dropTable(table)
  },
}
