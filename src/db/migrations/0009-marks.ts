import type { QueryInterface } from 'sequelize'
import type { RunnableMigration } from 'umzug'
import { day, id, instant, optionalRef, ref, text } from './columns'

/** Rows of Today that were put off or handed to somebody. */
export const marks: RunnableMigration<QueryInterface> = {
  name: '0009-marks',
  up: async ({ context: tables }) => {
    await tables.createTable('marks', {
      id,
      subject: text(200),
      label: text(200),
      kind: text(8),
      until: day,
      reason: text(300),
      toId: optionalRef('people'),
      status: text(12),
      recordedAt: instant,
      recordedById: ref('people'),
    })
    await tables.addIndex('marks', ['status'])
  },
  down: async ({ context: tables }) => {
    await tables.dropTable('marks')
  },
}
