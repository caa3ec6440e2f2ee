import type { QueryInterface } from 'sequelize'
import type { RunnableMigration } from 'umzug'
import { json, optionalInstant, optionalRef, whole } from './columns'

/** Visits are approved by somebody, held in place, and have helpers by name. */
export const approving: RunnableMigration<QueryInterface> = {
  name: '0024-approving',
  up: async ({ context: tables }) => {
    await tables.addColumn('visits', 'helperIds', json)
    await tables.addColumn('visits', 'pinned', whole)
    await tables.addColumn('visits', 'approvedById', optionalRef('people'))
    await tables.addColumn('visits', 'approvedAt', optionalInstant)
  },
  down: async ({ context: tables }) => {
    for (const column of ['helperIds', 'pinned', 'approvedById', 'approvedAt'])
      await tables.removeColumn('visits', column)
  },
}
