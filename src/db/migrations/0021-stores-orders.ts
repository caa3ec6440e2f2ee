import { DataTypes, type QueryInterface } from 'sequelize'
import type { RunnableMigration } from 'umzug'
import {
  day,
  id,
  instant,
  json,
  longText,
  optionalText,
  optionalWhole,
  real,
  ref,
  text,
  uniqueText,
  version,
  whole,
} from './columns'

const retirable = { retiredOn: day, retiredReason: text(300), createdAt: instant, version }
const recorded = { recordedAt: instant, recordedById: ref('people') }

/**
 * Where stock lies and in what state, vans, kits of unlike pieces, shelf life, suppliers, orders, and old
 * parts that are kept. What the stores hold so far lies on the shelf of the first yard.
 */
export const storesAndOrders: RunnableMigration<QueryInterface> = {
  name: '0021-stores-orders',
  up: async ({ context: tables }) => {
    await tables.createTable('vans', { id, name: text(60), yardId: ref('yards'), ...retirable })
    await tables.createTable('suppliers', {
      id,
      name: uniqueText(80),
      leadDays: whole,
      leastCents: whole,
      contact: text(200),
      note: longText,
      ...retirable,
    })
    await tables.createTable('offers', {
      id,
      supplierId: ref('suppliers'),
      partId: ref('parts'),
      supplierNumber: text(40),
      unitCents: whole,
      packSize: { ...whole, defaultValue: 1 },
      minimumOrder: real,
      /** What the supplier says of this part; null where it says one for all. */
      leadDays: optionalWhole,
      endedOn: day,
      createdAt: instant,
      version,
    })
    await tables.addIndex('offers', ['partId'])
    await tables.createTable('orders', {
      id,
      number: { type: DataTypes.INTEGER, allowNull: false, unique: true },
      supplierId: ref('suppliers'),
      yardId: ref('yards'),
      state: text(12),
      sentOn: day,
      /** What was paid so that it comes earlier. */
      hurryCents: whole,
      note: longText,
      endReason: text(300),
      createdAt: instant,
      createdById: ref('people'),
      version,
    })
    await tables.createTable('order_lines', {
      id,
      orderId: ref('orders'),
      line: whole,
      partId: ref('parts'),
      supplierNumber: text(40),
      quantity: real,
      unitCents: whole,
      leadDays: whole,
      neededBy: day,
      /** It was too late already when it was sent. */
      late: whole,
      confirmed: { type: DataTypes.DOUBLE, allowNull: true },
      promisedOn: day,
      calledOff: real,
      answer: text(300),
    })
    await tables.addIndex('order_lines', ['orderId'])
    await tables.createTable('deliveries', {
      id,
      orderId: ref('orders'),
      noteNumber: text(40),
      receivedOn: { type: DataTypes.DATEONLY, allowNull: false },
      differences: text(1000),
      ...recorded,
    })
    await tables.createTable('old_parts', {
      id,
      /** Ours, counted up; written on the bag. */
      number: { type: DataTypes.INTEGER, allowNull: false, unique: true },
      sheetId: ref('sheets'),
      name: text(80),
      place: text(120),
      quantity: real,
      /** Until the job is closed, or until a claim is settled. */
      until: text(8),
      reason: text(300),
      endedOn: day,
      ending: text(300),
      ...recorded,
    })
    await tables.addColumn('parts', 'contents', json)
    await tables.addColumn('parts', 'material', text(60))
    await tables.addColumn('parts', 'shelfGroup', { ...text(8), defaultValue: 'none' })
    await tables.addColumn('parts', 'keepsMonths', whole)
    await tables.addColumn('parts', 'openedMonths', whole)
    await tables.addColumn('parts', 'insteadOf', json)
    await tables.addColumn('parts', 'means', text(80))
    await tables.addColumn('stock_lots', 'curedOn', day)
    await tables.addColumn('stock_lots', 'expiryAssumed', whole)
    await tables.addColumn('stock_lots', 'openedOn', day)
    /** The kit whose opening it came out of. */
    await tables.addColumn('stock_lots', 'kitLotId', optionalText(36))
    await tables.addColumn('stock_lots', 'orderLineId', optionalText(36))
    await tables.addColumn('stock_lots', 'deliveryId', optionalText(36))
    await tables.addColumn('stock_lots', 'receivedQuantity', real)
    await tables.sequelize.query(
      `UPDATE stock_lots SET receivedQuantity = COALESCE(
         (SELECT SUM(quantity) FROM stock_movements WHERE lotId = stock_lots.id AND kind = 'receipt'), 0)`,
    )
    await tables.addColumn('stock_movements', 'placeId', text(36))
    await tables.addColumn('stock_movements', 'state', { ...text(12), defaultValue: 'shelf' })
    await tables.addColumn('stock_movements', 'visitId', optionalText(36))
    /** What was done in one go bears one id. */
    await tables.addColumn('stock_movements', 'actId', optionalText(40))
    await tables.sequelize.query(
      "UPDATE stock_movements SET placeId = COALESCE((SELECT id FROM yards ORDER BY createdAt, id LIMIT 1), '')",
    )
    await tables.addIndex('stock_lots', ['orderLineId'])
    await tables.sequelize.query("UPDATE parts SET contents = '[]', insteadOf = '[]'")
  },
  down: async ({ context: tables }) => {
    for (const column of ['placeId', 'state', 'visitId', 'actId'])
      await tables.removeColumn('stock_movements', column)
    for (const column of [
      'curedOn',
      'expiryAssumed',
      'openedOn',
      'kitLotId',
      'orderLineId',
      'deliveryId',
      'receivedQuantity',
    ])
      await tables.removeColumn('stock_lots', column)
    for (const column of [
      'contents',
      'material',
      'shelfGroup',
      'keepsMonths',
      'openedMonths',
      'insteadOf',
      'means',
    ])
      await tables.removeColumn('parts', column)
    for (const name of ['old_parts', 'deliveries', 'order_lines', 'orders', 'offers', 'suppliers', 'vans'])
      await tables.dropTable(name)
  },
}
