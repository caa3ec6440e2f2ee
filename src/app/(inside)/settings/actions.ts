'use server'

import { redirect } from 'next/navigation'
import type { CompanyInput } from '@/core/house'
import type { YardInput } from '@/core/fleet'
import type { FeedInput } from '@/core/plan'
import type { PasswordChangeInput, PersonInput } from '@/core/access'
import * as backups from '@/services/backups'
import * as feeds from '@/services/plan'
import * as company from '@/services/house'
import * as people from '@/services/access'
import * as sessions from '@/services/access'
import * as yards from '@/services/fleet'
import { act } from '../../access/act'
import { closeSession, currentActor, renewSession } from '../../access/session'

export async function saveCompany(input: CompanyInput) {
  return act((actor) => company.saveCompany(actor, input))
}
export async function saveYard(input: YardInput) {
  return act((actor) => yards.saveYard(actor, input))
}
export async function removeYard(id: string) {
  return act((actor) => yards.removeYard(actor, id))
}
export async function addPerson(input: PersonInput) {
  return act((actor) => people.addPerson(actor, input))
}
export async function savePerson(input: PersonInput) {
  return act((actor) => people.savePerson(actor, input))
}
export async function revokePerson(id: string) {
  return act((actor) => people.revokePerson(actor, id))
}
export async function setPersonLeft(input: { id: string; version: number; left: boolean }) {
  return act((actor) => people.setPersonLeft(actor, input))
}
export async function makeFeed(input: FeedInput) {
  return act((actor) => feeds.makeFeed(actor, input))
}
export async function revokeFeed(id: string) {
  return act((actor) => feeds.revokeFeed(actor, id))
}
/** Ends the person's other sessions; this one goes on under the new epoch. */
export async function changeOwnPassword(input: PasswordChangeInput) {
  return act(async (actor) => {
    const { epoch } = await people.changeOwnPassword(actor, input)
    await renewSession(epoch)
  })
}
export async function signOutEverywhere(): Promise<void> {
  const actor = await currentActor()
  if (actor) await sessions.signOutEverywhere(actor)
  await closeSession()
  redirect('/sign-in')
}

/** The page that asked shows at once that one is being made; it looks again until it is. */
export async function startBackup() {
  return act((actor) => backups.startBackup(actor))
}
