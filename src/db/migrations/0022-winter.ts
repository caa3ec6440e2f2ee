import type { QueryInterface } from 'sequelize'
import type { RunnableMigration } from 'umzug'
import { day, id, instant, json, longText, optionalRef, real, ref, text, version, whole } from './columns'

const optionalReal = { ...real, allowNull: true, defaultValue: undefined }

/**
 * Frost of each yard, the wet circuit of each machine, antifreezes, what happened to a machine in winter, and
 * visits that make one safe or bring it back.
 */
export const winter: RunnableMigration<QueryInterface> = {
  name: '0022-winter',
  up: async ({ context: tables }) => {
    await tables.createTable('yard_climates', {
      id,
      minima: json,
      fileName: text(120),
      entered: json,
      stands: json,
      heatedSpace: whole,
      recordedAt: instant,
      recordedById: optionalRef('people'),
      version,
    })
    await tables.createTable('yard_outlooks', {
      id,
      source: text(80),
      issuedAt: text(24),
      fetchedAt: instant,
      days: json,
      /** Why the last asking brought nothing; blank where it did. */
      trouble: text(300),
    })
    await tables.createTable('winter_terms', { id, values: json, recordedAt: instant, version })
    await tables.createTable('antifreezes', {
      id,
      name: text(60),
      fluid: text(12),
      sold: text(12),
      contentPercent: optionalReal,
      freezesAtC: optionalReal,
      burstsAtC: optionalReal,
      packLitres: real,
      packCents: whole,
      partId: optionalRef('parts'),
      note: longText,
      retiredOn: day,
      retiredReason: text(300),
      createdAt: instant,
      version,
    })
    await tables.createTable('wet_circuits', {
      id,
      elements: json,
      methods: json,
      turning: text(12),
      fuelTankLitres: optionalReal,
      evening: text(12),
      eveningReason: text(200),
      recordedAt: instant,
      recordedById: optionalRef('people'),
      version,
    })
    await tables.createTable('winter_events', {
      id,
      machineId: ref('machines'),
      at: instant,
      event: json,
      sheetId: optionalRef('sheets'),
      recordedAt: instant,
      recordedById: optionalRef('people'),
    })
    await tables.addIndex('winter_events', ['machineId', 'at'])
    await tables.addColumn('visits', 'winter', text(12))
    /** Parts that it takes besides what its services need: what is poured. */
    await tables.addColumn('visits', 'extraParts', json)
  },
  down: async ({ context: tables }) => {
    await tables.removeColumn('visits', 'extraParts')
    await tables.removeColumn('visits', 'winter')
    for (const table of [
      'winter_events',
      'wet_circuits',
      'antifreezes',
      'winter_terms',
      'yard_outlooks',
      'yard_climates',
    ])
      await tables.dropTable(table)
  },
}
