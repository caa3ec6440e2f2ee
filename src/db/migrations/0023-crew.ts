import type { QueryInterface } from 'sequelize'
import type { RunnableMigration } from 'umzug'
import { id, instant, json, version } from './columns'

/** When each technician works and what for, and what planning goes by. */
export const crew: RunnableMigration<QueryInterface> = {
  name: '0023-crew',
  up: async ({ context: tables }) => {
    await tables.createTable('crew_terms', { id, values: json, recordedAt: instant, version })
    await tables.createTable('plan_terms', { id, values: json, recordedAt: instant, version })
  },
  down: async ({ context: tables }) => {
    await tables.dropTable('plan_terms')
    await tables.dropTable('crew_terms')
  },
}
