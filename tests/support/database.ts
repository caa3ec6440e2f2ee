import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { v7 as uuid } from 'uuid'
import { metricUnits } from '@/core/units'
import { closeDatabase, migrate } from '@/db'
import type { Actor } from '@/services/actor'
import { listPeople } from '@/services/people'
import { setUp, setUpCode } from '@/services/setUp'
import { listYards } from '@/services/yards'

/** A fresh company in a temporary database: every service test starts from one. */
export async function freshCompany(): Promise<{ coordinator: Actor; yardId: string }> {
  await freshDatabase()
  const coordinatorId = uuid()
  await setUp(
    {
      code: setUpCode(),
      company: { name: 'Test company', timeZone: 'Europe/London', currency: 'EUR', units: metricUnits },
      yard: { id: uuid(), name: 'Harbour yard' },
      coordinator: {
        id: coordinatorId,
        name: 'H. Lindqvist',
        signInName: 'coordinator',
        password: 'a long enough one',
      },
    },
    'test',
  )
  const coordinator: Actor = { id: coordinatorId, name: 'H. Lindqvist', role: 'coordinator' }
  const [yard] = await listYards(coordinator)
  expect(await listPeople(coordinator)).toHaveLength(1)
  return { coordinator, yardId: yard!.id }
}

let folder: string | undefined

export async function freshDatabase(): Promise<string> {
  await removeDatabase()
  folder = mkdtempSync(path.join(tmpdir(), 'atelier-test-'))
  process.env.ATELIER_DATA = folder
  await migrate()
  return folder
}

export async function removeDatabase(): Promise<void> {
  await closeDatabase()
  if (folder) rmSync(folder, { recursive: true, force: true })
  folder = undefined
}

/** The kind and fields of the problem that some work ends in. */
export async function problemIn(
  work: Promise<unknown>,
): Promise<{ kind: string; fields?: Record<string, string>; message: string }> {
  try {
    await work
  } catch (error) {
    const problem = (error as { problem?: { kind: string; message: string } }).problem
    if (problem) return problem
    throw error
  }
  throw new Error('Nothing was refused.')
}
