import 'server-only'
import { createHash } from 'node:crypto'
import { createReadStream, existsSync, readdirSync } from 'node:fs'
import {
  chmod,
  link,
  mkdir,
  readdir,
  readFile,
  rename,
  rm,
  stat,
  writeFile,
  copyFile,
} from 'node:fs/promises'
import path from 'node:path'
import { pipeline } from 'node:stream/promises'
import { v7 as uuid } from 'uuid'

/** What an archive holds, so that it can be proved before it replaces anything. */
export type Manifest = {
  format: 1
  /** When it was made, by the real clock. */
  made: string
  /** The changes of shape that its database has been through. */
  shape: string[]
  files: { path: string; bytes: number; sha256: string }[]
}

export const databaseName = 'atelier.sqlite'
export const fileFolders = ['photos', 'documents'] as const
const manifestName = 'manifest.json'

/** An archive that is not what it says, in one sentence. */
export class UnsoundArchive extends Error {}

/**
 * Packs a copy of a database and the files beside it into one archive, readable by its owner alone.
 *
 * @param from the data folder
 * @param copyDatabase writes a consistent copy of the database to where it is told
 * @param archive where it will lie; it is there in full or not at all
 */
export async function packArchive(
  from: string,
  archive: string,
  shape: string[],
  made: string,
  copyDatabase: (to: string) => Promise<void>,
): Promise<void> {
  const stage = `${archive}.${uuid()}.making`
  await mkdir(stage, { recursive: true, mode: 0o700 })
  try {
    await copyDatabase(path.join(stage, databaseName))
    // After the copy: every file that its rows name was there before the row was.
    for (const folder of fileFolders)
      await takeFiles(path.join(/* turbopackIgnore: true */ from, folder), path.join(stage, folder))
    const files: Manifest['files'] = []
    for (const name of filesBelow(stage))
      files.push({ path: name, ...(await measure(path.join(stage, name))) })
    const manifest: Manifest = { format: 1, made, shape, files }
    await writeFile(path.join(stage, manifestName), JSON.stringify(manifest, null, 1))
    const ready = `${stage}.tar.gz`
    const tar = await import('tar')
    await tar.create({ gzip: true, file: ready, cwd: stage, portable: true }, [
      manifestName,
      databaseName,
      ...fileFolders,
    ])
    await chmod(ready, 0o600)
    await rename(ready, archive)
  } finally {
    await rm(stage, { recursive: true, force: true })
    await rm(`${stage}.tar.gz`, { force: true })
  }
}

/** The files of a folder, without copying where the disk can hold one file under two names. */
async function takeFiles(from: string, to: string): Promise<void> {
  await mkdir(to, { recursive: true, mode: 0o700 })
  for (const name of await readdir(from).catch(() => [])) {
    if (name.endsWith('.part')) continue
    const [source, target] = [path.join(from, name), path.join(to, name)]
    await link(source, target).catch(() => copyFile(source, target))
  }
}

/**
 * Unpacks an archive into a folder and proves it: every file of its list is there with its length and
 * checksum, and nothing besides.
 *
 * @returns its manifest
 * @throws `UnsoundArchive`
 */
export async function unpackArchive(archive: string, to: string): Promise<Manifest> {
  if (!existsSync(archive)) throw new UnsoundArchive(`there is no file ${archive}.`)
  await mkdir(to, { recursive: true, mode: 0o700 })
  const plain = (name: string) =>
    new RegExp(`^(\\./)?(${manifestName}|${databaseName}|(photos|documents)(/[0-9A-Za-z-]{8,36})?/?)$`).test(
      name,
    )
  const odd: string[] = []
  const tar = await import('tar')
  try {
    await tar.extract({
      file: archive,
      cwd: to,
      strict: true,
      filter: (name, entry) => {
        const type = 'type' in entry ? entry.type : 'File'
        if (plain(name) && (type === 'File' || type === 'Directory')) return true
        odd.push(name)
        return false
      },
    })
  } catch (error) {
    throw new UnsoundArchive(
      `it cannot be unpacked: ${error instanceof Error ? error.message : String(error)}.`,
    )
  }
  if (odd[0]) throw new UnsoundArchive(`it holds “${odd[0].slice(0, 80)}”, which no archive of Atelier does.`)
  const text = await readFile(path.join(to, manifestName), 'utf8').catch(() => '')
  const manifest = readManifest(text)
  const named = new Set(manifest.files.map((file) => file.path))
  for (const file of manifest.files) {
    const there = await measure(path.join(to, file.path)).catch(() => null)
    if (!there) throw new UnsoundArchive(`${file.path} is missing from it.`)
    if (there.bytes !== file.bytes || there.sha256 !== file.sha256)
      throw new UnsoundArchive(`${file.path} is not as it was when the archive was made.`)
  }
  const more = filesBelow(to).find((name) => name !== manifestName && !named.has(name))
  if (more) throw new UnsoundArchive(`it holds ${more}, which its list does not name.`)
  if (!named.has(databaseName)) throw new UnsoundArchive('it holds no database.')
  await rm(path.join(to, manifestName))
  return manifest
}

function readManifest(text: string): Manifest {
  try {
    const manifest = JSON.parse(text) as Manifest
    if (manifest.format === 1 && Array.isArray(manifest.files) && Array.isArray(manifest.shape))
      return manifest
  } catch {
    // Told below: what is no list of its contents is no archive of ours.
  }
  throw new UnsoundArchive('it has no list of what it holds: it is no archive of Atelier, or of a newer one.')
}

/** Every file below a folder, by its path with plain slashes. */
function filesBelow(folder: string): string[] {
  return readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => path.relative(folder, path.join(entry.parentPath, entry.name)).split(path.sep).join('/'))
    .sort()
}

async function measure(file: string): Promise<{ bytes: number; sha256: string }> {
  const hash = createHash('sha256')
  await pipeline(createReadStream(file), hash)
  return { bytes: (await stat(file)).size, sha256: hash.digest('hex') }
}
