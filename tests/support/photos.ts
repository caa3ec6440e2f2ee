import { existsSync, readdirSync } from 'node:fs'
import path from 'node:path'
import sharp from 'sharp'
import { dataFolder } from '@/db/house'
import { sheetPhotos } from '@/db/sheets'

/** A small photo, as a camera hands it over. */
export async function aPhoto(): Promise<Uint8Array> {
  const plain = sharp({ create: { width: 64, height: 48, channels: 3, background: '#446677' } })
  return new Uint8Array(await plain.jpeg().toBuffer())
}

/** The photos of all sheets by their rows, whether each has its file, and what else lies in the folder. */
export async function listSheetPhotos() {
  const folder = path.join(dataFolder(), 'photos')
  const rows = await sheetPhotos.all()
  const leftovers = readdirSync(folder).length - rows.length
  return rows.map(({ id, recordedById }) => ({
    id,
    recordedById,
    file: existsSync(path.join(folder, id)),
    leftovers,
  }))
}
