import 'server-only'
import {
  leavingSchema,
  newPersonSchema,
  passwordChangeSchema,
  personSchema,
  type PasswordChangeInput,
  type PersonInput,
  type Role,
} from '@/core/access'
import { conflict, invalid, notFound, check, idSchema } from '@/core/problem'
import { write } from '@/db/house'
import { people, type PersonRow } from '@/db/access'
import {
  requirePermission,
  type Actor,
  recordChange,
  now,
  ourCompany,
  present,
  editRow,
  requireUnique,
} from '../house'
import { hashPassword, isPassword } from './passwords'
import { revokeSessions } from './sessions'

export type Person = {
  id: string
  name: string
  signInName: string
  role: Role
  retiredOn: string | null
  version: number
}

export async function listPeople(_actor: Actor): Promise<Person[]> {
  return (await people.all({}, [['name', 'ASC']])).map(asPerson)
}

export async function addPerson(actor: Actor, input: PersonInput): Promise<void> {
  requirePermission(actor, 'people.edit')
  const { password, ...person } = check(newPersonSchema, input)
  const passwordHash = await hashPassword(password)
  await write(async () => {
    await requireUnique(
      people,
      { signInName: person.signInName },
      person.id,
      'signInName',
      'Somebody signs in with this name already.',
    )
    if (await people.byId(person.id)) return
    await insertPerson(actor, { ...person, passwordHash })
  })
}

/** Called inside `write()`; also for the first coordinator, whom nobody adds. */
export async function insertPerson(
  actor: Actor | null,
  person: { id: string; name: string; signInName: string; role: Role; passwordHash: string },
): Promise<void> {
  const row: PersonRow = { ...person, sessionEpoch: 1, retiredOn: null, createdAt: now(), version: 1 }
  await people.insert(row)
  await recordChange(actor, {
    entity: 'person',
    entityId: row.id,
    entityVersion: 1,
    action: 'added',
    summary: `${row.name} may sign in as ${row.role}`,
    after: row,
  })
}

export async function savePerson(actor: Actor, input: PersonInput): Promise<void> {
  requirePermission(actor, 'people.edit')
  const { id, version, password, ...values } = check(personSchema, input)
  const passwordHash = password ? await hashPassword(password) : undefined
  await write(async () => {
    await requireUnique(
      people,
      { signInName: values.signInName },
      id,
      'signInName',
      'Somebody signs in with this name already.',
    )
    if (values.role !== 'coordinator') await requireAnotherCoordinator(id)
    await editRow(actor, people, { entity: 'person', name: values.name }, { id, version: version! }, values, {
      action: 'changed',
      summary: `${values.name} changed`,
    })
    if (!passwordHash) return
    await people.update({ id }, { passwordHash })
    await revokeSessions(id)
    await recordChange(actor, {
      entity: 'person',
      entityId: id,
      action: 'password',
      summary: `${values.name} was given a new password`,
    })
  })
}

/** Ends a person's sessions on every device: a lost phone, a shared tablet. */
export async function revokePerson(actor: Actor, asked: string): Promise<void> {
  requirePermission(actor, 'people.edit')
  const personId = check(idSchema, asked)
  await write(async () => {
    const person = await people.byId(personId)
    if (!person) throw notFound('This person')
    await revokeSessions(personId)
    await recordChange(actor, {
      entity: 'person',
      entityId: personId,
      action: 'revoked',
      summary: `${person.name} was signed out on every device`,
    })
  })
}

/** A person who has left can no longer sign in; what they did keeps their name. */
export async function setPersonLeft(
  actor: Actor,
  asked: { id: string; version: number; left: boolean },
): Promise<void> {
  requirePermission(actor, 'people.edit')
  const input = check(leavingSchema, asked)
  await write(async () => {
    const person = await people.byId(input.id)
    if (!person) throw notFound('This person')
    if (input.left) await requireAnotherCoordinator(input.id)
    const retiredOn = input.left ? present(await ourCompany()).today : null
    await editRow(
      actor,
      people,
      { entity: 'person', name: person.name },
      input,
      { retiredOn },
      {
        action: input.left ? 'left' : 'returned',
        summary: input.left ? `${person.name} can no longer sign in` : `${person.name} may sign in again`,
      },
    )
    if (input.left) await revokeSessions(input.id)
  })
}

export async function changeOwnPassword(
  actor: Actor,
  input: PasswordChangeInput,
): Promise<{ epoch: number }> {
  const { current, next } = check(passwordChangeSchema, input)
  const person = await people.byId(actor.id)
  if (!person || !(await isPassword(current, person.passwordHash))) {
    throw invalid({ current: 'This is not your present password.' })
  }
  if ([person.name, person.signInName].some((name) => name.toLowerCase() === next.toLowerCase()))
    throw invalid({ next: 'Use something else than a name.' })
  const passwordHash = await hashPassword(next)
  return write(async () => {
    await people.update({ id: actor.id }, { passwordHash })
    const epoch = await revokeSessions(actor.id)
    await recordChange(actor, {
      entity: 'person',
      entityId: actor.id,
      action: 'password',
      summary: `${actor.name} changed the password`,
    })
    return { epoch }
  })
}

async function requireAnotherCoordinator(exceptId: string): Promise<void> {
  const coordinators = await people.all({ role: 'coordinator', retiredOn: null })
  if (coordinators.some((person) => person.id !== exceptId)) return
  throw conflict(
    'This is the only coordinator. Make somebody else a coordinator first, or nobody could run the company.',
  )
}

function asPerson({ id, name, signInName, role, retiredOn, version }: PersonRow): Person {
  return { id, name, signInName, role, retiredOn, version }
}
