import 'server-only'
import { documentSchema } from '@/core/fleet'
import { conflict, invalid, notFound, check } from '@/core/problem'
import type { Payloads } from '@/core/sheets'
import { people } from '@/db/access'
import { sheetPhotos, sheets } from '@/db/sheets'
import {
  requirePermission,
  type Actor,
  now,
  asPhoto,
  bytesOf,
  fileIn,
  keepFile,
  readKept,
  requireKind,
  type Bytes,
} from '../../house'

/**
 * Keeps a photo taken at the bench, before the entry that speaks of it comes in. Sent twice, it is kept
 * once. What its camera put into it, place and device among it, is not kept. It belongs to whoever took
 * it; a coordinator takes in what an author cannot send any more.
 *
 * @throws `invalid` for a file that is too large or no photo, `notFound` for an unknown sheet
 */
export async function addSheetPhoto(
  actor: Actor,
  sheetId: string,
  input: { id: string; name: string; authorId?: string },
  given: Bytes,
): Promise<void> {
  requirePermission(actor, 'sheets.work')
  const { authorId = actor.id, ...file } = input
  if (authorId !== actor.id) {
    requirePermission(actor, 'sheets.takeIn')
    if (!(await people.byId(authorId))) throw notFound('Whoever took this photo')
  }
  const { id, name } = check(documentSchema, { ...file, machineId: sheetId })
  if (!(await sheets.byId(sheetId))) throw notFound('This sheet')
  const bytes = await bytesOf(given)
  if (requireKind(name, bytes) !== 'photo') throw invalid({ file: `“${name}” is a PDF, not a photo.` })
  if (await isKept(id, sheetId)) return
  const kept = await asPhoto(name, bytes)
  await keepFile(fileIn('photos', id), kept, async () => {
    if (await isKept(id, sheetId)) return false
    await sheetPhotos.insert({
      id,
      sheetId,
      name,
      bytes: kept.length,
      recordedAt: now(),
      recordedById: authorId,
    })
    return true
  })
}

/** Whether this very photo came in before. @throws `conflict` where the id belongs to another sheet's */
async function isKept(id: string, sheetId: string): Promise<boolean> {
  const row = await sheetPhotos.byId(id)
  if (row && row.sheetId !== sheetId) throw conflict('This photo belongs to another sheet: take it again.')
  return row !== null
}

/** A photo's file. @throws `notFound` */
export async function readSheetPhoto(_actor: Actor, id: string): Promise<{ name: string; bytes: Buffer }> {
  const row = await sheetPhotos.byId(id)
  const bytes = row ? await readKept(fileIn('photos', row.id)) : null
  if (!row || !bytes) throw notFound('This photo')
  return { name: row.name, bytes }
}

/** An entry speaks only of a photo that has come in. Called inside `write()`. */
export async function requirePhoto(sheetId: string, { photoId }: Payloads['photo']): Promise<void> {
  const row = await sheetPhotos.byId(photoId)
  if (row?.sheetId !== sheetId) throw conflict('This photo has not come in: take it again.')
}
