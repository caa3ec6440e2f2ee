import 'server-only'
import { documentSchema, type DocumentInput, type DocumentView } from '@/core/fleet'
import { notFound, check, referenceSchema, type Reference } from '@/core/problem'
import { write } from '@/db/house'
import { documents, type DocumentRow, machines } from '@/db/fleet'
import { people } from '@/db/access'
import {
  requirePermission,
  type Actor,
  recordChange,
  now,
  ourCompany,
  dayOf,
  editRow,
  requireFresh,
  asPhoto,
  bytesOf,
  fileIn,
  keepFile,
  readKept,
  requireKind,
  type Bytes,
} from '../house'

/** The photos and documents of a machine, newest first. */
export async function documentsOf(_actor: Actor, machineId: string): Promise<DocumentView[]> {
  const [rows, names, { timeZone }] = await Promise.all([
    documents.all({ machineId, status: 'active' }, [['recordedAt', 'DESC']]),
    people.every(),
    ourCompany(),
  ])
  return rows.map((row) => ({
    id: row.id,
    version: row.version,
    name: row.name,
    photo: row.type === 'image/jpeg',
    bytes: row.bytes,
    by: names.find((person) => person.id === row.recordedById)?.name ?? '',
    day: dayOf(row.recordedAt, timeZone),
  }))
}

/**
 * Keeps a photo or a PDF with a machine. A photo is turned upright, made smaller and written anew, so
 * that nothing its camera put into it (place, device) is kept. Sent twice, it is kept once.
 *
 * @throws `invalid` for a file that is too large, or neither a photo nor a PDF
 */
export async function addDocument(actor: Actor, input: DocumentInput, given: Bytes): Promise<void> {
  requirePermission(actor, 'readings.enter')
  const { id, machineId, name } = check(documentSchema, input)
  const machine = await machines.byId(machineId)
  if (!machine) throw notFound('This machine')
  const bytes = await bytesOf(given)
  const kind = requireKind(name, bytes)
  if (await documents.byId(id)) return
  const kept = kind === 'photo' ? await asPhoto(name, bytes) : bytes
  await keepFile(fileIn('documents', id), kept, async () => {
    if (await documents.byId(id)) return false
    const row: DocumentRow = {
      id,
      machineId,
      name,
      type: kind === 'photo' ? 'image/jpeg' : 'application/pdf',
      bytes: kept.length,
      status: 'active',
      recordedAt: now(),
      recordedById: actor.id,
      version: 1,
    }
    await documents.insert(row)
    await recordChange(actor, {
      entity: 'document',
      entityId: id,
      entityVersion: 1,
      machineId,
      action: 'added',
      summary: `${kind === 'photo' ? 'Photo' : 'Document'} added: ${name}`,
    })
    return true
  })
}

/** Takes a document off a machine; its file stays, and so does the word of who took it off. */
export async function removeDocument(actor: Actor, asked: Reference): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const input = check(referenceSchema, asked)
  await write(async () => {
    const what = { entity: 'document', name: 'this document' }
    const row = await requireFresh(documents, what, input)
    await editRow(
      actor,
      documents,
      what,
      input,
      { status: 'removed' },
      {
        machineId: row.machineId,
        action: 'removed',
        summary: `Taken off: ${row.name}`,
      },
    )
  })
}

/** A document's file. @throws `notFound` */
export async function readDocument(
  _actor: Actor,
  id: string,
): Promise<{ name: string; type: DocumentRow['type']; bytes: Buffer }> {
  const row = await documents.byId(id)
  const bytes = row && row.status === 'active' ? await readKept(fileIn('documents', row.id)) : null
  if (!row || !bytes) throw notFound('This document')
  return { name: row.name, type: row.type, bytes }
}
