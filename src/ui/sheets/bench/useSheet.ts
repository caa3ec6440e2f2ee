'use client'

import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import {
  sheetState,
  refusal,
  type DeviceEntryKind,
  type Payloads,
  type SheetEntry,
  type SheetState,
} from '@/core/sheets'
import { kindOfFile, largestDocument } from '@/core/fleet'
import { v7 as uuid } from 'uuid'
import { Outbox, type Author, type Queued } from './queue'
import { asSent, NotAnswered, readAnswer, sendEntries, type Answer } from './sending'

export type SheetHandle = {
  state: SheetState
  /** Entries that have not reached the server yet. */
  waiting: number
  /** What the server would not have, with its sentence. */
  refused: Queued[]
  /** What waits on this device for other authors, or for somebody to say whose it is. */
  others: Queued[]
  /** Says whose entries are that have no author. */
  claim: (ids: string[], author: Author) => Promise<void>
  /** Takes in what another author cannot send any more; answers with what stands in the way, or null. */
  takeIn: (authorId: string, why: string) => Promise<string | null>
  /** Somebody else has signed in on this device meanwhile: this page still belongs to its author. */
  somebodyElse: string
  /** Why nothing goes through, or blank. */
  trouble: string
  /** Somebody signed it or gave it up meanwhile. */
  closed: boolean
  lasting: boolean
  /** Whether it is known yet what waits on this device. */
  looked: boolean
  /** The last entry could not be kept on this device. */
  unkept: boolean
  /** Writes an entry; answers with the sentence that stands in the way, or null. */
  write: <Kind extends DeviceEntryKind>(
    kind: Kind,
    payload: Payloads[Kind],
    stepKey?: string | null,
  ) => Promise<string | null>
  discard: (id: string) => Promise<void>
  /** Keeps a photo with the sheet; answers with the sentence that stands in the way, or null. */
  addPhoto: (file: File, about: PhotoAbout) => Promise<string | null>
  /** Where a photo can be shown from: this device while it waits, else the server. */
  photoUrl: (photoId: string) => string
  /** The present instant by the server's clock, whatever this device's own shows. */
  now: () => string
  author: Author
  /** Sends what waits and asks the server for what is new; answers once that is done or cannot be. */
  look: () => Promise<void>
  /** The newest entry of the server that this device has seen. */
  upTo: () => number
}

export type PhotoAbout = {
  stepKey: string | null
  caption: string
  assemblyId: string | null
  position: string | null
}

/** A full disk, or storage that was cleared under an open page. */
export const notKept =
  'This device could not keep that, and nothing was written. Make room on it or load the page again, then enter it once more.'

const retryMs = 3000
const lookMs = 10_000
const heldMs = 30_000

/**
 * A sheet as this device works it: what the server has, and what was written here and waits. Every
 * entry is kept on the device first and sent then; it leaves the device when the server has it.
 */
export function useSheet(
  sheetId: string,
  initial: SheetEntry[],
  author: Author,
  serverNow: string,
): SheetHandle {
  const [entries, setEntries] = useState(initial)
  const known = useRef(initial)
  const [queue, setQueue] = useState<Queued[]>([])
  const [trouble, setTrouble] = useState('')
  const [closed, setClosed] = useState(false)
  const [somebodyElse, setSomebodyElse] = useState('')
  /** Failed on our side: offered again, but not at once. */
  const heldUntil = useRef(new Map<string, number>())
  const [lasting, setLasting] = useState(true)
  const [looked, setLooked] = useState(false)
  const [unkept, setUnkept] = useState(false)
  const opening = useRef<Promise<Outbox> | null>(null)
  /** What waits on this device. A slow device takes its time to open it: whoever needs it waits for it. */
  const outbox = useCallback(() => (opening.current ??= Outbox.open()), [])
  const busy = useRef(false)
  const again = useRef<() => Promise<void>>(async () => undefined)
  const upTo = useRef(initial.at(-1)?.sequence ?? 0)
  /** What has to be added to this device's clock to read the server's. */
  const [offset, setOffset] = useState(() => Date.parse(serverNow) - Date.now())
  const clock = useRef(offset)
  const urls = useRef(new Map<string, string>())
  const now = useCallback(() => new Date(Date.now() + offset).toISOString(), [offset])

  /** Shows what waits, where it is not what is shown already: a sheet drawn for nothing is felt on a slow tablet. */
  const show = useCallback(
    (waiting: Queued[]) => setQueue((shown) => (isSame(shown, waiting) ? shown : waiting)),
    [],
  )

  const merge = useCallback((fresh: SheetEntry[]) => {
    if (fresh.length === 0) return
    upTo.current = Math.max(upTo.current, ...fresh.map((entry) => entry.sequence))
    const byId = new Map([...known.current, ...fresh].map((entry) => [entry.id, entry]))
    known.current = [...byId.values()].sort((a, b) => a.sequence - b.sequence)
    setEntries(known.current)
  }, [])

  /** What of this author's can be sent now; what belongs to somebody else waits for them. */
  const sendable = useCallback(
    (waiting: Queued[]) =>
      waiting.filter(
        (entry) =>
          entry.authorId === author.id &&
          entry.refused === '' &&
          (heldUntil.current.get(entry.id) ?? 0) <= Date.now(),
      ),
    [author.id],
  )

  const take = useCallback(
    (answer: Answer) => {
      clock.current = Date.parse(answer.now) - Date.now()
      // Within a message's own time the clocks agree: nothing is drawn anew for it.
      setOffset((known) => (Math.abs(known - clock.current) > 1500 ? clock.current : known))
      merge(answer.entries)
      // Drawn in one go with what came of it; that it leaves the device comes after.
      if (answer.taken.length > 0) setQueue((shown) => shown.filter(({ id }) => !answer.taken.includes(id)))
      if (answer.state !== 'open') setClosed(true)
      setSomebodyElse(answer.actor.id === author.id ? '' : answer.actor.name)
      const failed = answer.held.filter(({ why }) => why === 'unforeseen')
      for (const { id } of failed) heldUntil.current.set(id, Date.now() + heldMs)
      setTrouble(failed[0]?.message ?? '')
    },
    [author.id, merge],
  )

  /** Sends what waits, oldest first; with nothing to send, asks what others have written. */
  const exchange = useCallback(async () => {
    if (busy.current) return
    busy.current = true
    let reached = false
    const box = await outbox()
    try {
      const waiting = sendable(await box.waiting(sheetId))
      const answers = await sendEntries(box, sheetId, waiting, take)
      if (answers.length === 0) {
        const url = `/api/sheets/${sheetId}/entries?after=${upTo.current}`
        const answer = await readAnswer(await fetch(url))
        answers.push(answer)
        take(answer)
      }
      reached = answers.every(({ actor }) => actor.id === author.id)
      show(await box.waiting(sheetId))
    } catch (error) {
      show(await box.waiting(sheetId))
      setTrouble(
        error instanceof NotAnswered
          ? error.message
          : 'Atelier cannot be reached. What you tick is kept on this device and sent as soon as it can be.',
      )
    } finally {
      busy.current = false
    }
    // What was written while this was under way goes at once.
    if (sendable(await box.waiting(sheetId)).length > 0)
      setTimeout(() => void again.current(), reached ? 0 : retryMs)
  }, [author.id, outbox, sendable, sheetId, show, take])

  useEffect(() => {
    let gone = false
    again.current = exchange
    const start = async () => {
      const box = await outbox()
      if (gone) return
      setLasting(box.lasting)
      const waiting = await box.waiting(sheetId)
      for (const entry of waiting) {
        if (entry.kind !== 'photo') continue
        const { photoId } = entry.payload as Payloads['photo']
        const photo = await box.photo(photoId)
        if (photo) urls.current.set(photoId, URL.createObjectURL(photo.blob))
      }
      setQueue(waiting)
      setLooked(true)
      await exchange()
    }
    void start()
    const look = setInterval(() => {
      if (document.visibilityState === 'visible') void exchange()
    }, lookMs)
    const now = () => void exchange()
    window.addEventListener('online', now)
    return () => {
      gone = true
      clearInterval(look)
      window.removeEventListener('online', now)
    }
  }, [exchange, outbox, sheetId])

  const state = useMemo(() => stateOf(entries, queue, author, offset), [entries, queue, author, offset])

  const turn = useRef<Promise<unknown>>(Promise.resolve())
  const write: SheetHandle['write'] = useCallback(
    (kind, payload, stepKey = null) => {
      const keep = async () => {
        const box = await outbox()
        // What waits is asked first: what leaves it meanwhile stands among the known by then.
        const waiting = await box.waiting(sheetId)
        const latest = stateOf(known.current, waiting, author, clock.current)
        const reason = refusal(
          latest,
          { kind, payload, stepKey },
          { byName: author.name, now: new Date(Date.now() + clock.current).toISOString() },
        )
        if (reason) return reason
        const queued = await box.add(
          {
            sheetId,
            seenUpTo: upTo.current,
            deviceTime: new Date().toISOString(),
            stepKey,
            kind,
            payload,
          },
          author,
        )
        setQueue((shown) => (shown.some(({ id }) => id === queued.id) ? shown : [...shown, queued]))
        void exchange()
        return null
      }
      // One after the other: the second of two is judged by the first, before anything is drawn anew.
      const kept = turn.current.then(keep).then(
        (reason) => (setUnkept(false), reason),
        () => (setUnkept(true), notKept),
      )
      turn.current = kept
      return kept
    },
    [author, exchange, outbox, sheetId],
  )

  const discard = useCallback(
    async (id: string) => {
      await (await outbox()).remove([id])
      setQueue((waiting) => waiting.filter((entry) => entry.id !== id))
    },
    [outbox],
  )

  const claim: SheetHandle['claim'] = useCallback(
    async (ids, whose) => {
      const box = await outbox()
      await box.claim(ids, whose)
      show(await box.waiting(sheetId))
      void exchange()
    },
    [exchange, outbox, sheetId, show],
  )

  const takeIn: SheetHandle['takeIn'] = useCallback(
    async (authorId, why) => {
      const box = await outbox()
      const theirs = (await box.waiting(sheetId)).filter(
        (entry) => entry.authorId === authorId && entry.refused === '',
      )
      try {
        await sendEntries(box, sheetId, theirs, take, why)
        return null
      } catch (error) {
        return error instanceof NotAnswered
          ? error.message
          : 'Atelier cannot be reached. Nothing is lost: try again once it can be.'
      } finally {
        show(await box.waiting(sheetId))
      }
    },
    [outbox, sheetId, show, take],
  )

  const addPhoto: SheetHandle['addPhoto'] = useCallback(
    async (file, { stepKey, ...about }) => {
      if (file.size > largestDocument)
        return `“${file.name}” has ${Math.round(file.size / 1e6)} MB; at most ${largestDocument / 1e6} MB.`
      const start = new Uint8Array(await file.slice(0, 16).arrayBuffer())
      if (kindOfFile(start) !== 'photo') return `“${file.name}” is no photo (JPEG, PNG or WebP).`
      const box = await outbox()
      const photoId = uuid()
      urls.current.set(photoId, URL.createObjectURL(file))
      await box.keepPhoto({ id: photoId, sheetId, name: file.name.slice(0, 120) || 'photo', blob: file })
      return write('photo', { photoId, ...about }, stepKey)
    },
    [outbox, sheetId, write],
  )
  const readUpTo = useCallback(() => upTo.current, [])
  /** Until nothing waits, or the server cannot be reached. */
  const look = useCallback(async () => {
    for (let turn = 0; turn < 40; turn += 1) {
      if (busy.current) await new Promise((resolve) => setTimeout(resolve, 100))
      else {
        await exchange()
        const waiting = await (await outbox()).waiting(sheetId)
        if (sendable(waiting).length === 0) return
      }
    }
  }, [exchange, outbox, sendable, sheetId])
  const photoUrl = useCallback((id: string) => urls.current.get(id) ?? `/api/photos/${id}`, [])

  return {
    addPhoto,
    photoUrl,
    now,
    author,
    look,
    upTo: readUpTo,
    state,
    waiting: queue.filter((entry) => entry.authorId === author.id && entry.refused === '').length,
    refused: queue.filter((entry) => entry.authorId === author.id && entry.refused !== ''),
    others: queue.filter((entry) => entry.authorId !== author.id),
    claim,
    takeIn,
    somebodyElse,
    trouble,
    closed,
    lasting,
    looked,
    unkept,
    write,
    discard,
  }
}

/**
 * The sheet with what this author wrote and waits put after everything the server has. What waits for
 * somebody else does not count here: it is theirs to send, as if it lay on another tablet.
 */
function stateOf(entries: SheetEntry[], queue: Queued[], author: Author, offsetMs: number): SheetState {
  const pending = queue
    .filter((entry) => entry.authorId === author.id)
    .filter((entry) => entry.refused === '' && !entries.some((each) => each.id === entry.id))
    .map((entry) => asOwn(entry, author, offsetMs))
  return sheetState([...entries, ...pending])!
}

/** An entry that waits, as it will stand on the sheet: after everything the server has. */
function asOwn(entry: Queued, author: Author, offsetMs: number): SheetEntry {
  return {
    ...asSent(entry),
    sequence: 1_000_000_000 + entry.deviceSeq,
    at: new Date(Date.parse(entry.deviceTime) + offsetMs).toISOString(),
    byId: author.id,
    byName: author.name,
    late: false,
  } as SheetEntry
}

/** Whether the same waits, in the same way: an entry changes only by being refused or claimed. */
const isSame = (one: Queued[], other: Queued[]): boolean =>
  one.length === other.length &&
  one.every((entry, at) => {
    const { id, authorId, refused } = other[at]!
    return entry.id === id && entry.authorId === authorId && entry.refused === refused
  })
