import { DataTypes, type QueryInterface } from 'sequelize'
import type { RunnableMigration } from 'umzug'
import {
  day,
  id,
  instant,
  json,
  longText,
  optionalRef,
  optionalWhole,
  real,
  ref,
  text,
  uniqueText,
  version,
  whole,
} from './columns'

/** Stores: parts, the lots they came in, and every movement. What is on hand is always their sum. */
export const stores: RunnableMigration<QueryInterface> = {
  name: '0005-stores',
  up: async ({ context: tables }) => {
    await tables.createTable('parts', {
      id,
      number: uniqueText(20),
      name: text(80),
      makersNumber: text(40),
      unit: text(8),
      packSize: whole,
      priceCents: whole,
      leadDays: whole,
      minimum: real,
      bin: text(20),
      fits: json,
      note: longText,
      retiredOn: day,
      retiredReason: text(300),
      createdAt: instant,
      version,
    })
    await tables.createTable('stock_lots', {
      id,
      number: { type: DataTypes.INTEGER, allowNull: false, unique: true },
      partId: ref('parts'),
      code: text(40),
      receivedOn: { type: DataTypes.DATEONLY, allowNull: false },
      expiresOn: day,
      unitCents: optionalWhole,
      note: text(300),
      createdAt: instant,
    })
    await tables.addIndex('stock_lots', ['partId'])
    await tables.createTable('stock_movements', {
      id,
      partId: ref('parts'),
      lotId: optionalRef('stock_lots'),
      kind: text(12),
      quantity: real,
      at: instant,
      sheetId: optionalRef('sheets'),
      /** The entry it came from: a use is written once however often its sheet is signed. */
      entryId: optionalRef('sheet_entries'),
      reason: text(300),
      recordedAt: instant,
      recordedById: ref('people'),
    })
    await tables.addIndex('stock_movements', ['partId'])
    await tables.addIndex('stock_movements', ['sheetId'])
    await tables.addColumn('lives', 'lotId', optionalRef('stock_lots'))
  },
  down: async ({ context: tables }) => {
    await tables.removeColumn('lives', 'lotId')
    await tables.dropTable('stock_movements')
    await tables.dropTable('stock_lots')
    await tables.dropTable('parts')
  },
}
