import { QueryTypes, type QueryInterface } from 'sequelize'
import type { RunnableMigration } from 'umzug'
import { json, optionalRef, optionalText, text, whole } from './columns'

/**
 * What an act needs to be taken back whole, and who else had a hand in it: the reading that told of a
 * change of meter, the sheet that settled a sign or ended an early check, whoever took an entry in for
 * its author, and what a row of Today was about when it was put off.
 */
export const wholeActs: RunnableMigration<QueryInterface> = {
  name: '0015-whole-acts',
  up: async ({ context: tables }) => {
    // No reference: a corrected reading takes the event over before it is written itself.
    await tables.addColumn('meter_events', 'readingId', optionalText(36))
    await tables.addColumn('readings', 'outvoted', whole)
    await tables.addColumn('meter_events', 'assumed', whole)
    await tables.addColumn('meter_events', 'digitsTold', whole)
    await tables.addColumn('sheet_entries', 'takenInById', optionalRef('people'))
    await tables.addColumn('sheet_entries', 'takenInByName', text(60))
    await tables.addColumn('sheet_entries', 'takenInWhy', text(300))
    await tables.addColumn('signs', 'settledSheetId', optionalRef('sheets'))
    await tables.addColumn('early_checks', 'endSheetId', optionalRef('sheets'))
    await tables.addColumn('marks', 'about', json)
    await nameReadings(tables)
  },
  down: async ({ context: tables }) => {
    for (const [name, columns] of Object.entries({
      readings: ['outvoted'],
      meter_events: ['readingId', 'assumed', 'digitsTold'],
      sheet_entries: ['takenInById', 'takenInByName', 'takenInWhy'],
      signs: ['settledSheetId'],
      early_checks: ['endSheetId'],
      marks: ['about'],
    }))
      for (const column of columns) await tables.removeColumn(name, column)
  },
}

type Told = { id: string; meterId: string; at: string; recordedAt: string }

/** A change told before: its reading is the first from then on, settled as the change was written down. */
async function nameReadings(tables: QueryInterface): Promise<void> {
  const { sequelize } = tables
  const select = { type: QueryTypes.SELECT } as const
  const events = await sequelize.query<Told>(
    `SELECT id, "meterId", at, "recordedAt" FROM meter_events WHERE status = 'active'`,
    select,
  )
  for (const event of events) {
    const [reading] = await sequelize.query<{ id: string; settledAt: string | null }>(
      `SELECT id, "settledAt" FROM readings
       WHERE "meterId" = :meterId AND status = 'accepted' AND at >= :at ORDER BY at LIMIT 1`,
      { ...select, replacements: { meterId: event.meterId, at: event.at } },
    )
    const late = reading?.settledAt ? Date.parse(reading.settledAt) - Date.parse(event.recordedAt) : null
    if (late === null || late < 0 || late > 5000) continue
    await sequelize.query(`UPDATE meter_events SET "readingId" = :readingId WHERE id = :id`, {
      replacements: { readingId: reading!.id, id: event.id },
    })
  }
}
