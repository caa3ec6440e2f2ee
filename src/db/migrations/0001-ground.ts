import type { QueryInterface } from 'sequelize'
import type { RunnableMigration } from 'umzug'
import {
  day,
  id,
  instant,
  json,
  longText,
  optionalInstant,
  optionalRef,
  optionalText,
  optionalWhole,
  real,
  ref,
  text,
  uniqueText,
  version,
  whole,
} from './columns'

/** Company, people, yards, machines, meters, readings, pump models, assemblies and the audit trail. */
export const ground: RunnableMigration<QueryInterface> = {
  name: '0001-ground',
  up: async ({ context: tables }) => {
    await tables.createTable('companies', {
      id,
      name: text(80),
      timeZone: text(60),
      currency: text(3),
      units: json,
      createdAt: instant,
      version,
    })
    await tables.createTable('people', {
      id,
      name: text(60),
      signInName: uniqueText(30),
      role: text(20),
      passwordHash: text(200),
      sessionEpoch: whole,
      retiredOn: day,
      createdAt: instant,
      version,
    })
    await tables.createTable('yards', {
      id,
      name: uniqueText(60),
      place: text(120),
      note: longText,
      createdAt: instant,
      version,
    })
    await tables.createTable('machines', {
      id,
      number: uniqueText(12),
      name: text(80),
      kind: text(20),
      yardId: ref('yards'),
      bay: text(40),
      storage: text(20),
      inServiceSince: day,
      drive: text(20),
      driveName: text(80),
      drivePower: json,
      workingPressure: json,
      flow: json,
      hoseLength: json,
      hoseBore: json,
      tankVolume: json,
      bypass: text(20),
      note: longText,
      retiredOn: day,
      retiredReason: text(300),
      createdAt: instant,
      version,
    })
    await tables.addIndex('machines', ['yardId'])
    await tables.createTable('meters', {
      id,
      machineId: ref('machines'),
      name: text(40),
      kind: text(20),
      digits: optionalWhole,
      decimals: whole,
      readingIntervalDays: whole,
      retiredOn: day,
      createdAt: instant,
      version,
    })
    await tables.addIndex('meters', ['machineId'])
    await tables.createTable('readings', {
      id,
      meterId: ref('meters'),
      at: instant,
      raw: whole,
      decimals: whole,
      typed: text(40),
      status: text(12),
      verdict: text(12),
      reason: text(300),
      vouchedReason: text(300),
      source: text(16),
      readBy: text(60),
      note: text(500),
      supersedesId: optionalRef('readings'),
      recordedAt: instant,
      recordedById: ref('people'),
      settledAt: optionalInstant,
      settledById: optionalRef('people'),
    })
    await tables.addIndex('readings', ['meterId', 'at'])
    await tables.addIndex('readings', ['status'])
    await tables.createTable('meter_events', {
      id,
      meterId: ref('meters'),
      kind: text(12),
      at: instant,
      lastRaw: optionalWhole,
      firstRaw: optionalWhole,
      span: optionalWhole,
      decimals: whole,
      note: text(300),
      status: text(12),
      supersedesId: optionalRef('meter_events'),
      recordedAt: instant,
      recordedById: ref('people'),
    })
    await tables.addIndex('meter_events', ['meterId', 'at'])
    await tables.createTable('pump_models', {
      id,
      maker: text(60),
      name: text(60),
      design: text(80),
      note: longText,
      createdAt: instant,
      version,
    })
    await tables.addIndex('pump_models', ['maker', 'name'], { unique: true })
    await tables.createTable('assemblies', {
      id,
      number: uniqueText(12),
      kind: text(20),
      modelId: optionalRef('pump_models'),
      name: text(80),
      serial: text(40),
      usageScale: text(8),
      openingKind: text(12),
      openingUsage: real,
      takenOverAt: instant,
      note: longText,
      retiredOn: day,
      retiredReason: text(300),
      createdAt: instant,
      version,
    })
    await tables.createTable('fittings', {
      id,
      assemblyId: ref('assemblies'),
      machineId: optionalRef('machines'),
      yardId: optionalRef('yards'),
      slot: text(40),
      at: instant,
      reason: text(300),
      status: text(12),
      supersedesId: optionalRef('fittings'),
      recordedAt: instant,
      recordedById: ref('people'),
    })
    await tables.addIndex('fittings', ['assemblyId', 'at'])
    await tables.addIndex('fittings', ['machineId'])
    await tables.createTable('duty_shares', {
      id,
      assemblyId: ref('assemblies'),
      meterId: ref('meters'),
      share: real,
      basis: text(12),
      at: instant,
      status: text(12),
      recordedAt: instant,
      recordedById: ref('people'),
    })
    await tables.addIndex('duty_shares', ['assemblyId', 'at'])
    await tables.createTable('audit_events', {
      id,
      at: instant,
      actorId: optionalRef('people'),
      actorName: text(60),
      entity: text(20),
      entityId: text(36),
      entityVersion: optionalWhole,
      machineId: optionalText(36),
      assemblyId: optionalText(36),
      action: text(24),
      summary: text(300),
      reason: text(300),
      before: json,
      after: json,
      sequence: whole,
    })
    await tables.addIndex('audit_events', ['entity', 'entityId'])
    await tables.addIndex('audit_events', ['machineId', 'at'])
    await tables.addIndex('audit_events', ['assemblyId', 'at'])
  },
  down: async ({ context: tables }) => {
    const all = [
      'audit_events',
      'duty_shares',
      'fittings',
      'assemblies',
      'pump_models',
      'meter_events',
      'readings',
    ]
    for (const table of [...all, 'meters', 'machines', 'yards', 'people', 'companies'])
      await tables.dropTable(table)
  },
}
