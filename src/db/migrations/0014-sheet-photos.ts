import type { QueryInterface } from 'sequelize'
import type { RunnableMigration } from 'umzug'
import { id, instant, ref, text, whole } from './columns'

/** Photos taken at the bench; the files lie beside the database. */
export const sheetPhotos: RunnableMigration<QueryInterface> = {
  name: '0014-sheet-photos',
  up: async ({ context: tables }) => {
    await tables.createTable('sheet_photos', {
      id,
      sheetId: ref('sheets'),
      name: text(120),
      bytes: whole,
      recordedAt: instant,
      recordedById: ref('people'),
    })
    await tables.addIndex('sheet_photos', ['sheetId'])
    await tables.addIndex('sheet_entries', ['kind'])
  },
  down: async ({ context: tables }) => {
    await tables.removeIndex('sheet_entries', ['kind'])
    await tables.dropTable('sheet_photos')
  },
}
