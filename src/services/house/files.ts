import 'server-only'
import { mkdir, readdir, readFile, rename, rm, writeFile } from 'node:fs/promises'
import path from 'node:path'
import { v7 as uuid } from 'uuid'
import { kindOfFile, largestDocument } from '@/core/fleet'
import { invalid } from '@/core/problem'
import { dataFolder, write } from '@/db/house'

/** The longer side of a photo as it is kept, in pixels. */
const photoSide = 1600

/** Where a file lies in the data folder. */
export function fileIn(folder: 'documents' | 'photos', id: string): string {
  return path.join(/* turbopackIgnore: true */ dataFolder(), folder, id)
}

/**
 * Keeps a file and the row that names it, together: the bytes lie ready under a name of their own, and
 * get the file's name inside the write that inserts the row. So a row always has its file, and of several
 * that send the same at once each ends well and the first is kept.
 *
 * @param insert inserts the row; answers with false where it is there already, and this copy is let go
 */
export async function keepFile(
  file: string,
  bytes: Uint8Array,
  insert: () => Promise<boolean>,
): Promise<void> {
  await mkdir(path.dirname(file), { recursive: true, mode: 0o700 })
  const ready = `${file}.${uuid()}.part`
  await writeFile(ready, bytes, { mode: 0o600, flush: true })
  try {
    await write(async () => {
      // Before the commit: cut off in between, there is a file without a row, which nothing shows.
      if (await insert()) await rename(ready, file)
    })
  } finally {
    await rm(ready, { force: true })
  }
}

/** Removes what was being written when the process was cut off: no row names it. For the start. */
export async function dropUnfinished(): Promise<void> {
  for (const folder of ['documents', 'photos']) {
    const where = path.join(/* turbopackIgnore: true */ dataFolder(), folder)
    const names = await readdir(where).catch(() => [])
    for (const name of names) if (name.endsWith('.part')) await rm(path.join(where, name), { force: true })
  }
}

export const readKept = (file: string) => readFile(file).catch(() => null)

/** A file's bytes, or how to read them: they are read only once everything else allows it. */
export type Bytes = Uint8Array | (() => Promise<Uint8Array>)
export const bytesOf = (bytes: Bytes) => (typeof bytes === 'function' ? bytes() : bytes)

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
  // Large, and not needed before the first photo comes.
  const { default: sharp } = await import('sharp')
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
