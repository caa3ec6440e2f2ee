import { cpSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { v7 as uuid } from 'uuid'
import { metricUnits } from '@/core/units'
import { closeDatabase, migrate } from '@/db/house'
import type { Actor } from '@/services/house'
import { listPeople } from '@/services/access'
import { setUp, setUpCode } from '@/services/access'
import { listYards } from '@/services/fleet'

let folder: string | undefined
/** What was made once in this file and is copied for every further test: the folder, and what making it gave. */
const made = new Map<string, { folder: string; value: unknown }>()

afterAll(() => {
  for (const { folder: copy } of made.values()) rmSync(copy, { recursive: true, force: true })
})

/**
 * A data folder of its own, in which `make` has been done: the first time in earnest, later as a copy.
 * @param what names it within this file
 */
export async function madeOnce<T>(what: string, make: () => Promise<T>): Promise<T> {
  await removeDatabase()
  const own = mkdtempSync(path.join(tmpdir(), 'atelier-test-'))
  const known = made.get(what)
  if (known) cpSync(known.folder, own, { recursive: true })
  folder = own
  process.env.ATELIER_DATA = own
  if (known) return structuredClone(known.value) as T
  const value = await make()
  await closeDatabase()
  const copy = mkdtempSync(path.join(tmpdir(), 'atelier-made-'))
  cpSync(own, copy, { recursive: true })
  made.set(what, { folder: copy, value: structuredClone(value) })
  return value
}

/** A fresh company in a temporary database: every service test starts from one. */
export function freshCompany(): Promise<Company> {
  return madeOnce('company', makeCompany)
}

export type Company = { coordinator: Actor; yardId: string }

/** The company itself, in whatever folder is in use. */
export async function makeCompany(): Promise<Company> {
  await migrate()
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

export async function freshDatabase(): Promise<string> {
  await madeOnce('database', async () => void (await migrate()))
  return folder!
}

export async function removeDatabase(): Promise<void> {
  await closeDatabase()
  if (folder) rmSync(folder, { recursive: true, force: true, maxRetries: 10, retryDelay: 100 })
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
