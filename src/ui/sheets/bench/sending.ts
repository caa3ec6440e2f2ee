import type { Payloads, SentEntry, SheetEntry } from '@/core/sheets'
import type { Outbox, Queued } from './queue'

/** How a portion of entries was answered. */
export type Answer = {
  taken: string[]
  refused: { id: string; message: string }[]
  held: { id: string; why: 'author' | 'unforeseen'; message: string }[]
  entries: SheetEntry[]
  state: 'open' | 'signed' | 'abandoned'
  now: string
  actor: { id: string; name: string }
}

/** A message holds so many entries and so much text at most: a long morning without a connection is many messages. */
const portionEntries = 100
const portionLength = 400_000

/** What the server would not have as a whole, in its words. */
export class NotAnswered extends Error {}

/**
 * Sends entries of one author, oldest first and in portions, with their photos before them. What the
 * server keeps leaves the device; what it refuses is marked with its sentence; the rest stays.
 *
 * @param author whose entries these are: whoever is signed in, or with `why` somebody who cannot send
 * @param take hears each answer before what it keeps leaves the device: between the two an entry stands
 *   in both places, never in neither
 * @param why makes it a taking in: the reason the author does not send them
 * @returns the answers, portion by portion
 * @throws `NotAnswered` with the server's sentence; whatever `fetch` throws where it cannot be reached
 */
export async function sendEntries(
  box: Outbox,
  sheetId: string,
  waiting: Queued[],
  take: (answer: Answer) => void,
  why?: string,
): Promise<Answer[]> {
  const ready = await sendPhotos(box, sheetId, waiting)
  const answers: Answer[] = []
  for (const portion of portions(waiting.filter((entry) => entry.kind !== 'photo' || ready.has(entry.id)))) {
    const entries = portion.map(asSent)
    const url = `/api/sheets/${sheetId}/entries`
    const response = await fetch(why === undefined ? url : `${url}/taken-in`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'x-sent-at': new Date().toISOString() },
      body: JSON.stringify(why === undefined ? entries : { entries, why }),
    })
    const answer = await readAnswer(response)
    answers.push(answer)
    take(answer)
    await box.remove(answer.taken)
    for (const { id, message } of answer.refused) await box.markRefused(id, message)
    if (answer.held.some(({ why }) => why === 'author')) break
  }
  return answers
}

export async function readAnswer(response: Response): Promise<Answer> {
  const body = (await response.json()) as Answer & { problem?: { message: string } }
  if (!response.ok) throw new NotAnswered(body.problem?.message ?? 'Atelier does not answer as it should.')
  return body
}

/** Entries in messages of a size that is always taken; one alone always makes a message. */
export function portions(waiting: Queued[]): Queued[][] {
  const all: Queued[][] = []
  let length = Infinity
  for (const entry of waiting) {
    const own = JSON.stringify(entry.payload).length + 400
    const last = all.at(-1)
    if (last && last.length < portionEntries && length + own <= portionLength) {
      last.push(entry)
      length += own
    } else {
      all.push([entry])
      length = own
    }
  }
  return all
}

/** Sends photos whose entries wait; answers with the entries whose photo is there now. */
async function sendPhotos(box: Outbox, sheetId: string, waiting: Queued[]): Promise<Set<string>> {
  const ready = new Set<string>()
  for (const entry of waiting) {
    if (entry.kind !== 'photo') continue
    const { photoId } = entry.payload as Payloads['photo']
    const photo = await box.photo(photoId)
    if (!photo) {
      ready.add(entry.id)
      continue
    }
    const asked = new URLSearchParams({ id: photoId, name: photo.name, author: entry.authorId })
    const response = await fetch(`/api/sheets/${sheetId}/photos?${asked}`, {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream' },
      body: photo.blob,
    })
    if (response.ok) {
      ready.add(entry.id)
      await box.dropPhoto(photoId)
    } else if (response.status === 422 || response.status === 409) {
      const body = (await response.json().catch(() => null)) as {
        problem?: { message?: string; fields?: Record<string, string> }
      } | null
      await box.markRefused(
        entry.id,
        body?.problem?.fields?.file ?? body?.problem?.message ?? 'This photo could not be kept.',
      )
      await box.dropPhoto(photoId)
    }
  }
  return ready
}

export function asSent(entry: Queued): SentEntry {
  const { id, authorId, deviceId, deviceSeq, seenUpTo, deviceTime, stepKey, kind, payload } = entry
  return { id, authorId, deviceId, deviceSeq, seenUpTo, deviceTime, stepKey, kind, payload }
}
