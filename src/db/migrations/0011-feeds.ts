import type { QueryInterface } from 'sequelize'
import type { RunnableMigration } from 'umzug'
import { id, instant, optionalInstant, optionalRef, ref, text, uniqueText } from './columns'

/** Private calendar links; only a hash of each is kept. */
export const feeds: RunnableMigration<QueryInterface> = {
  name: '0011-feeds',
  up: async ({ context: tables }) => {
    await tables.createTable('feeds', {
      id,
      name: text(80),
      tokenHash: uniqueText(64),
      yardId: optionalRef('yards'),
      personId: optionalRef('people'),
      readAt: optionalInstant,
      revokedAt: optionalInstant,
      revokedById: optionalRef('people'),
      recordedAt: instant,
      recordedById: ref('people'),
    })
  },
  down: async ({ context: tables }) => {
    await tables.dropTable('feeds')
  },
}
