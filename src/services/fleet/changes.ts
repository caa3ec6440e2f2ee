import 'server-only'
import { changesAboutSchema, type ChangeLine, type ChangesAbout } from '@/core/fleet'
import { check } from '@/core/problem'
import { changesAround, ourCompany, type Actor } from '../house'

/** So many are told at most. */
const most = 2000

/** Every change around a machine or an assembly, newest first. */
export async function listChanges(_actor: Actor, about: ChangesAbout): Promise<ChangeLine[]> {
  const subject = check(changesAboutSchema, about)
  return changesAround(subject, (await ourCompany()).timeZone, most)
}
