import type { QueryInterface } from 'sequelize'
import type { RunnableMigration } from 'umzug'
import { id, instant, ref } from './columns'

/** Sessions that somebody signed out of: a copy of their cookie counts no more. */
export const endedSessions: RunnableMigration<QueryInterface> = {
  name: '0016-ended-sessions',
  up: async ({ context: tables }) => {
    await tables.createTable('ended_sessions', { id, personId: ref('people'), endedAt: instant })
    await tables.addIndex('ended_sessions', ['endedAt'])
  },
  down: async ({ context: tables }) => {
    await tables.dropTable('ended_sessions')
  },
}
