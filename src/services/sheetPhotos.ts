import 'server-only'
import { documentSchema } from '@/core/fleet'
import { conflict, invalid, notFound } from '@/core/problem'
import { check } from '@/core/problem/check'
import type { Payloads } from '@/core/sheet'
import { write } from '@/db'
import { sheetPhotos, sheets } from '@/db/sheets'
import { requirePermission, type Actor } from './actor'
import { now } from './clock'
import { asPhoto, dropFile, fileIn, keepFile, readKept, requireKind } from './files'

/**
 * Keeps a photo taken at the bench, before the entry that speaks of it comes in. Sent twice, it is kept
 * once. What its camera put into it, place and device among it, is not kept.
 *
 * @throws `invalid` for a file that is too large or no photo, `notFound` for an unknown sheet
 */
export async function addSheetPhoto(
  actor: Actor,
  sheetId: string,
  input: { id: string; name: string },
  bytes: Uint8Array,
): Promise<void> {
  requirePermission(actor, 'sheets.work')
  const { id, name } = check(documentSchema, { ...input, machineId: sheetId })
  if (requireKind(name, bytes) !== 'photo') throw invalid({ file: `“${name}” is a PDF, not a photo.` })
  if (await sheetPhotos.byId(id)) return
  if (!(await sheets.byId(sheetId))) throw notFound('This sheet')
  const kept = await asPhoto(name, bytes)
  const file = fileIn('photos', id)
  await keepFile(file, kept)
  try {
    await write(async () => {
      if (await sheetPhotos.byId(id)) return
      await sheetPhotos.insert({
        id,
        sheetId,
        name,
        bytes: kept.length,
        recordedAt: now(),
        recordedById: actor.id,
      })
    })
  } catch (error) {
    await dropFile(file)
    throw error
  }
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
