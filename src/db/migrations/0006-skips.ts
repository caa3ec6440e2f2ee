import type { QueryInterface } from 'sequelize'
import type { RunnableMigration } from 'umzug'
import { id, instant, ref, text } from './columns'

/** Meters that a round could not read, and why. */
export const skips: RunnableMigration<QueryInterface> = {
  name: '0006-skips',
  up: async ({ context: tables }) => {
    await tables.createTable('meter_skips', {
      id,
      meterId: ref('meters'),
      day: text(10),
      reason: text(200),
      status: text(12),
      recordedAt: instant,
      recordedById: ref('people'),
    })
    await tables.addIndex('meter_skips', ['day'])
  },
  down: async ({ context: tables }) => {
    await tables.dropTable('meter_skips')
  },
}
