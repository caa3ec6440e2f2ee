import type { QueryInterface } from 'sequelize'
import type { RunnableMigration } from 'umzug'
import { id, instant, json, optionalInstant, optionalRef, real, ref, text, whole } from './columns'

/** Versions of pump models, and the lives of the parts in their positions. */
export const wear: RunnableMigration<QueryInterface> = {
  name: '0002-wear',
  up: async ({ context: tables }) => {
    await tables.createTable('pump_model_versions', {
      id,
      modelId: ref('pump_models'),
      version: whole,
      data: json,
      publishedAt: instant,
      publishedById: ref('people'),
    })
    await tables.addIndex('pump_model_versions', ['modelId', 'version'], { unique: true })
    await tables.addColumn('assemblies', 'modelVersionId', optionalRef('pump_model_versions'))
    await tables.createTable('lives', {
      id,
      assemblyId: ref('assemblies'),
      position: text(60),
      startedAt: instant,
      carriedUsage: real,
      carriedFrom: optionalInstant,
      assumed: whole,
      first: whole,
      continuesLifeId: optionalRef('lives'),
      endedAt: optionalInstant,
      endReason: text(12),
      note: text(300),
      status: text(12),
      recordedAt: instant,
      recordedById: ref('people'),
    })
    await tables.addIndex('lives', ['assemblyId', 'position'])
  },
  down: async ({ context: tables }) => {
    await tables.dropTable('lives')
    await tables.removeColumn('assemblies', 'modelVersionId')
    await tables.dropTable('pump_model_versions')
  },
}
