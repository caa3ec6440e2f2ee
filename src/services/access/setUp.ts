import 'server-only'
import { randomInt } from 'node:crypto'
import { v7 as uuid } from 'uuid'
import { setUpSchema, type SetUpInput } from '@/core/house'
import { conflict, invalid, check } from '@/core/problem'
import { write, companies } from '@/db/house'
import { yards } from '@/db/fleet'
import { recordChange, now, findCompany } from '../house'
import { hashPassword } from './passwords'
import { insertPerson } from './people'
import { newSession, type SessionContent } from './sessions'
import { countSetUp } from './throttle'

// Start-up prints the code and a page asks for it; both live in one process, in copies of this module.
const globals = globalThis as unknown as { atelierSetUpCode?: string }
const letters = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789'

/** The code that start-up prints, so that only somebody who can see the console sets the company up. */
export function setUpCode(): string {
  globals.atelierSetUpCode ??= Array.from({ length: 8 }, () => letters[randomInt(letters.length)]).join('')
  return globals.atelierSetUpCode
}

export async function needsSetUp(): Promise<boolean> {
  return (await findCompany()) === null
}

/**
 * Sets an empty company up: the company, its first yard and its first coordinator, all or nothing.
 * @returns a session for the coordinator
 * @throws `invalid` for a wrong code, `conflict` where a company exists already
 */
export async function setUp(input: SetUpInput, address: string): Promise<SessionContent> {
  const { code, company, yard, coordinator } = check(setUpSchema, input)
  await countSetUp(address)
  if (code !== setUpCode()) throw invalid({ code: 'This is not the code that the console shows.' })
  const passwordHash = await hashPassword(coordinator.password)
  await write(async () => {
    if (await findCompany()) throw conflict('This company is set up already. Sign in instead.')
    const { password: _password, ...person } = coordinator
    await insertPerson(null, { ...person, role: 'coordinator', passwordHash })
    const actor = { id: person.id, name: person.name, role: 'coordinator' as const }
    const companyRow = {
      id: uuid(),
      noticeDays: 2,
      dateOrder: 'dmy' as const,
      earlyCheckHours: 20,
      ...company,
      createdAt: now(),
      version: 1,
    }
    await companies.insert(companyRow)
    await recordChange(actor, {
      entity: 'company',
      entityId: companyRow.id,
      entityVersion: 1,
      action: 'added',
      summary: `${company.name} set up`,
      after: companyRow,
    })
    const yardRow = { ...yard, place: '', note: '', createdAt: now(), version: 1 }
    await yards.insert(yardRow)
    await recordChange(actor, {
      entity: 'yard',
      entityId: yard.id,
      entityVersion: 1,
      action: 'added',
      summary: `${yard.name} added`,
      after: yardRow,
    })
  })
  return newSession(coordinator.id, 1)
}
