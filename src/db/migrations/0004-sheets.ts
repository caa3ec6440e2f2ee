import { DataTypes, type QueryInterface } from 'sequelize'
import type { RunnableMigration } from 'umzug'
import {
  id,
  instant,
  json,
  optionalInstant,
  optionalRef,
  optionalText,
  ref,
  text,
  version,
  whole,
} from './columns'

/** Sheets and their entries; what a sheet did to lives, and when looking tasks were done. */
export const sheets: RunnableMigration<QueryInterface> = {
  name: '0004-sheets',
  up: async ({ context: tables }) => {
    await tables.createTable('sheets', {
      id,
      number: { type: DataTypes.INTEGER, allowNull: false, unique: true },
      visitId: optionalRef('visits'),
      machineId: optionalRef('machines'),
      assemblyId: optionalRef('assemblies'),
      assemblyIds: json,
      state: text(12),
      trigger: text(12),
      trouble: text(300),
      startedAt: instant,
      startedById: ref('people'),
      /** The reading that lives end and begin at. */
      workedAt: optionalInstant,
      signedAt: optionalInstant,
      signedById: optionalRef('people'),
      endReason: text(300),
      version,
    })
    await tables.addIndex('sheets', ['state'])
    await tables.addIndex('sheets', ['machineId'])
    await tables.addIndex('sheets', ['visitId'])
    await tables.createTable('sheet_entries', {
      id,
      sheetId: ref('sheets'),
      sequence: whole,
      deviceId: text(36),
      deviceSeq: whole,
      seenUpTo: whole,
      deviceTime: text(40),
      at: instant,
      receivedAt: instant,
      stepKey: optionalText(300),
      kind: text(12),
      payload: json,
      byId: ref('people'),
      byName: text(60),
      late: whole,
    })
    await tables.addIndex('sheet_entries', ['sheetId', 'sequence'], { unique: true })
    await tables.createTable('task_records', {
      id,
      sheetId: optionalRef('sheets'),
      assemblyId: ref('assemblies'),
      task: text(40),
      position: text(60),
      at: instant,
      status: text(12),
      recordedAt: instant,
      recordedById: ref('people'),
    })
    await tables.addIndex('task_records', ['assemblyId', 'task'])
    await tables.addColumn('lives', 'sheetId', optionalRef('sheets'))
    await tables.addColumn('lives', 'endSheetId', optionalRef('sheets'))
    await tables.addColumn('lives', 'seenFailingOn', { type: DataTypes.DATEONLY, allowNull: true })
  },
  down: async ({ context: tables }) => {
    for (const column of ['sheetId', 'endSheetId', 'seenFailingOn'])
      await tables.removeColumn('lives', column)
    await tables.dropTable('task_records')
    await tables.dropTable('sheet_entries')
    await tables.dropTable('sheets')
  },
}
