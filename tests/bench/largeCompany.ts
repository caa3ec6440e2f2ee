import { mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { v7 as uuid } from 'uuid'
import { allPositions, parsePumpModel } from '@/core/models'
import { metricUnits } from '@/core/units'
import { migrate } from '@/db/house'
import { assemblies, dutyShares, fittings } from '@/db/fleet'
import { lives, newLife } from '@/db/wear'
import { machines } from '@/db/fleet'
import { meters } from '@/db/hours'
import { readings } from '@/db/hours'
import type { Actor } from '@/services/house'
import { publishPumpModel } from '@/services/models'
import { newestVersionId, savePumpModel } from '@/services/models'
import { setUp, setUpCode } from '@/services/access'
import { saveClimate, saveProduct } from '@/services/winter'

/** A fleet as large as Atelier is meant for: 400 machines, 600 assemblies, five years of weekly readings. */
export const size = { machines: 400, assemblies: 600, positions: 9000, weeks: 260 }
export const password = 'only for measuring'

/** Makes that company in a new folder, which `ATELIER_DATA` names from then on. */
export async function largeCompany(): Promise<{ actor: Actor; folder: string; meterIds: string[] }> {
  const folder = mkdtempSync(path.join(tmpdir(), 'atelier-bench-'))
  process.env.ATELIER_DATA = folder
  await migrate()
  const actor: Actor = { id: uuid(), name: 'Bench', role: 'coordinator' }
  const yardId = uuid()
  await setUp(
    {
      code: setUpCode(),
      company: { name: 'Bench', timeZone: 'UTC', currency: 'EUR', units: metricUnits },
      yard: { id: yardId, name: 'Yard' },
      coordinator: { id: actor.id, name: actor.name, signInName: 'bench', password },
    },
    'bench',
  )
  const meterIds = await fill(actor, yardId)
  await winter(actor, yardId)
  console.log(
    `${size.machines} machines, ${size.assemblies} pumps, ${size.positions} positions, ${size.machines * size.weeks} readings`,
  )
  return { actor, folder, meterIds }
}

/** What a campaign for all of them takes: when frost comes, and what is poured. */
async function winter(actor: Actor, yardId: string): Promise<void> {
  const blank = { heatedStandsC: '', heatedReason: '', hallStandsC: '', hallReason: '', outdoorsReason: '' }
  await saveClimate(actor, {
    ...{ yardId, ...blank, heatedSpace: false, outdoorsStandsC: '0', designLowC: '-14' },
    ...{ firstFrost: '2026-11-05', firstSpreadDays: '10', lastFrost: '2026-04-02', lastSpreadDays: '9' },
  } as never)
  await saveProduct(actor, {
    ...{ id: uuid(), name: 'Frostfest', fluid: 'propylene', sold: 'concentrate', contentPercent: '95' },
    ...{ freezesAtC: '', burstsAtC: '', packLitres: '20', price: '98.00', partId: '', note: '' },
  } as never)
}

async function fill(actor: Actor, yardId: string): Promise<string[]> {
  const begin = Date.now() - size.weeks * 7 * 86_400_000
  const iso = (week: number) => new Date(begin + week * 7 * 86_400_000).toISOString()
  const recorded = { recordedAt: iso(0), recordedById: actor.id }
  const numbers = Array.from({ length: size.machines }, (_, index) => index)
  const machineRows = numbers.map((index) => ({
    id: uuid(),
    number: `M-${index}`,
    name: 'machine',
    kind: 'trailer' as const,
    yardId,
    bay: '',
    crew: '',
    storage: 'outdoors' as const,
    inServiceSince: null,
    drive: 'diesel' as const,
    driveName: '',
    drivePower: null,
    workingPressure: null,
    flow: null,
    hoseLength: null,
    hoseBore: null,
    tankVolume: null,
    bypass: 'tank' as const,
    note: '',
    retiredOn: null,
    retiredReason: '',
    createdAt: iso(0),
    version: 1,
  }))
  await machines.insertMany(machineRows)
  const meterRows = machineRows.map((machine) => ({
    id: uuid(),
    machineId: machine.id,
    name: 'Engine hours',
    kind: 'engine' as const,
    digits: 5,
    decimals: 1,
    readingIntervalDays: 7,
    retiredOn: null,
    createdAt: iso(0),
    version: 1,
  }))
  await meters.insertMany(meterRows)
  for (const [index, meter] of meterRows.entries()) {
    await readings.insertMany(
      Array.from({ length: size.weeks }, (_, week) => ({
        id: uuid(),
        meterId: meter.id,
        at: iso(week),
        raw: 1000 + week * (150 + (index % 7) * 20),
        decimals: 1,
        typed: '',
        status: 'accepted' as const,
        verdict: 'fits' as const,
        reason: '',
        vouchedReason: '',
        source: 'typed' as const,
        readBy: '',
        note: '',
        outvoted: 0,
        supersedesId: null,
        ...recorded,
        settledAt: null,
        settledById: null,
      })),
    )
  }
  const modelId = uuid()
  await savePumpModel(actor, { id: modelId, maker: 'Ostrel', name: 'P3-200', design: '', note: '' })
  const text = readFileSync('src/demo/models/ostrel-p3-200.json', 'utf8')
  await publishPumpModel(actor, { text })
  const modelVersionId = await newestVersionId(modelId)
  const positions = allPositions(parsePumpModel(JSON.parse(text))).slice(0, size.positions / size.assemblies)
  const assemblyRows = Array.from({ length: size.assemblies }, (_, index) => ({
    id: uuid(),
    number: `P-${index}`,
    kind: 'pump' as const,
    modelId,
    name: '',
    serial: '',
    usageScale: 'h' as const,
    openingKind: 'new' as const,
    openingUsage: 0,
    facts: {},
    takenOverAt: iso(0),
    modelVersionId,
    note: '',
    retiredOn: null,
    retiredReason: '',
    createdAt: iso(0),
    version: 1,
  }))
  await assemblies.insertMany(assemblyRows)
  const active = { status: 'active' as const, ...recorded }
  await fittings.insertMany(
    assemblyRows.map((row, index) => ({
      id: uuid(),
      assemblyId: row.id,
      machineId: machineRows[index % size.machines]!.id,
      yardId: null,
      slot: '',
      at: iso(0),
      reason: '',
      supersedesId: null,
      ...active,
    })),
  )
  await dutyShares.insertMany(
    assemblyRows.map((row, index) => ({
      id: uuid(),
      assemblyId: row.id,
      meterId: meterRows[index % size.machines]!.id,
      share: 0.8,
      basis: 'assumed' as const,
      at: iso(0),
      ...active,
    })),
  )
  for (const [index, row] of assemblyRows.entries()) {
    await lives.insertMany(
      positions.map((position, each) =>
        newLife({
          id: uuid(),
          assemblyId: row.id,
          position,
          // Serviced as a fleet is: nothing older than 44 weeks, some of it past its limit.
          startedAt: iso(size.weeks - 1 - ((index * 7 + each * 3) % 44)),
          ...active,
        }),
      ),
    )
  }
  return meterRows.map((meter) => meter.id)
}

/** Runs it once and prints how long it took. */
export async function measure(what: string, work: () => Promise<unknown>): Promise<void> {
  const started = performance.now()
  await work()
  console.log(`${(performance.now() - started).toFixed(0).padStart(8)} ms  ${what}`)
}
