import 'server-only'
import { mkdir, readFile, rename, rm, writeFile } from 'node:fs/promises'
import path from 'node:path'
import sharp from 'sharp'
import { kindOfFile, largestDocument } from '@/core/fleet'
import { invalid } from '@/core/problem'
import { dataFolder } from '@/db'

/** The longer side of a photo as it is kept, in pixels. */
const photoSide = 1600

/** Where a file lies in the data folder. */
export function fileIn(folder: 'documents' | 'photos', id: string): string {
  return path.join(/* turbopackIgnore: true */ dataFolder(), folder, id)
}

/** Writes a file so that it is there in full or not at all. */
export async function keepFile(file: string, bytes: Uint8Array): Promise<void> {
  await mkdir(path.dirname(file), { recursive: true, mode: 0o700 })
  await writeFile(`${file}.part`, bytes, { mode: 0o600 })
  await rename(`${file}.part`, file)
}

export const dropFile = (file: string) => rm(file, { force: true })
export const readKept = (file: string) => readFile(file).catch(() => null)

/** What a file is, by its first bytes. @throws `invalid` for one that is too large, or neither photo nor PDF */
export function requireKind(name: string, bytes: Uint8Array): 'photo' | 'pdf' {
  if (bytes.length > largestDocument)
    throw invalid({
      file: `“${name}” has ${Math.round(bytes.length / 1e6)} MB; at most ${largestDocument / 1e6} MB.`,
    })
  const kind = kindOfFile(bytes)
  if (kind === null) throw invalid({ file: `“${name}” is neither a photo (JPEG, PNG, WebP) nor a PDF.` })
  return kind
}

/**
 * A photo turned upright, made smaller and written anew, so that nothing its camera put into it (place,
 * device) is kept. @throws `invalid` for one that cannot be read
 */
export async function asPhoto(name: string, bytes: Uint8Array): Promise<Buffer> {
  try {
    return await sharp(bytes, { limitInputPixels: 120_000_000 })
      .rotate()
      .resize({ width: photoSide, height: photoSide, fit: 'inside', withoutEnlargement: true })
      .jpeg({ quality: 82 })
      .toBuffer()
  } catch {
    throw invalid({ file: `“${name}” could not be read as a photo: it may be damaged.` })
  }
}
