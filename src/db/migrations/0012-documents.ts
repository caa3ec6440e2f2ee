import type { QueryInterface } from 'sequelize'
import type { RunnableMigration } from 'umzug'
import { id, instant, ref, text, version, whole } from './columns'

/** Photos and documents of machines; the files lie beside the database. */
export const documents: RunnableMigration<QueryInterface> = {
  name: '0012-documents',
  up: async ({ context: tables }) => {
    await tables.createTable('documents', {
      id,
      machineId: ref('machines'),
      name: text(120),
      type: text(40),
      bytes: whole,
      status: text(12),
      recordedAt: instant,
      recordedById: ref('people'),
      version,
    })
    await tables.addIndex('documents', ['machineId'])
  },
  down: async ({ context: tables }) => {
    await tables.dropTable('documents')
  },
}
