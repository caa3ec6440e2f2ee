'use client'

import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import {
  foldSheet,
  refusal,
  type DeviceEntryKind,
  type Payloads,
  type SentEntry,
  type SheetEntry,
  type SheetState,
} from '@/core/sheet'
import { Outbox, type Queued } from './queue'

type Answer = {
  taken: string[]
  refused: { id: string; message: string }[]
  entries: SheetEntry[]
  state: 'open' | 'signed' | 'abandoned'
}

export type SheetHandle = {
  state: SheetState
  /** Entries that have not reached the server yet. */
  waiting: number
  /** What the server would not have, with its sentence. */
  refused: Queued[]
  /** Why nothing goes through, or blank. */
  trouble: string
  /** Somebody signed it or gave it up meanwhile. */
  closed: boolean
  lasting: boolean
  /** Writes an entry; answers with the sentence that stands in the way, or null. */
  write: <Kind extends DeviceEntryKind>(
    kind: Kind,
    payload: Payloads[Kind],
    stepKey?: string | null,
  ) => Promise<string | null>
  discard: (id: string) => Promise<void>
}

const retryMs = 3000
const lookMs = 10_000

/**
 * A sheet as this device works it: what the server has, and what was written here and waits. Every
 * entry is kept on the device first and sent then; it leaves the device when the server has it.
 */
export function useSheet(
  sheetId: string,
  initial: SheetEntry[],
  author: { id: string; name: string },
): SheetHandle {
  const [entries, setEntries] = useState(initial)
  const [queue, setQueue] = useState<Queued[]>([])
  const [trouble, setTrouble] = useState('')
  const [closed, setClosed] = useState(false)
  const [lasting, setLasting] = useState(true)
  const outbox = useRef<Outbox | null>(null)
  const busy = useRef(false)
  const again = useRef<() => Promise<void>>(async () => undefined)
  const upTo = useRef(initial.at(-1)?.sequence ?? 0)

  const merge = useCallback((fresh: SheetEntry[]) => {
    if (fresh.length === 0) return
    upTo.current = Math.max(upTo.current, ...fresh.map((entry) => entry.sequence))
    setEntries((known) => {
      const byId = new Map([...known, ...fresh].map((entry) => [entry.id, entry]))
      return [...byId.values()].sort((a, b) => a.sequence - b.sequence)
    })
  }, [])

  /** Sends what waits, oldest first; with nothing to send, asks what others have written. */
  const exchange = useCallback(async () => {
    const box = outbox.current
    if (!box || busy.current) return
    busy.current = true
    let reached = false
    try {
      const waiting = (await box.waiting(sheetId)).filter((entry) => entry.refused === '')
      const url = `/api/sheets/${sheetId}/entries`
      const response =
        waiting.length > 0
          ? await fetch(url, {
              method: 'POST',
              headers: { 'content-type': 'application/json', 'x-sent-at': new Date().toISOString() },
              body: JSON.stringify(waiting.map(asSent)),
            })
          : await fetch(`${url}?after=${upTo.current}`)
      const body = (await response.json()) as Answer & { problem?: { message: string } }
      if (!response.ok) {
        setTrouble(body.problem?.message ?? 'Atelier does not answer as it should.')
        return
      }
      reached = true
      setTrouble('')
      merge(body.entries)
      await box.remove(body.taken)
      for (const { id, message } of body.refused) await box.markRefused(id, message)
      setQueue(await box.waiting(sheetId))
      if (body.state !== 'open') setClosed(true)
    } catch {
      setTrouble(
        'Atelier cannot be reached. What you tick is kept on this device and sent as soon as it can be.',
      )
    } finally {
      busy.current = false
    }
    // What was written while this was under way goes at once.
    const more = (await box.waiting(sheetId)).some((entry) => entry.refused === '')
    if (more) setTimeout(() => void again.current(), reached ? 0 : retryMs)
  }, [merge, sheetId])

  useEffect(() => {
    let gone = false
    again.current = exchange
    const start = async () => {
      const box = await Outbox.open()
      if (gone) return
      outbox.current = box
      setLasting(box.lasting)
      setQueue(await box.waiting(sheetId))
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
  }, [exchange, sheetId])

  const state = useMemo(() => {
    const pending = queue
      .filter((entry) => entry.refused === '' && !entries.some((known) => known.id === entry.id))
      .map((entry) => asOwn(entry, author))
    return foldSheet([...entries, ...pending])!
  }, [entries, queue, author])

  const write: SheetHandle['write'] = useCallback(
    async (kind, payload, stepKey = null) => {
      const reason = refusal(state, { kind, payload, stepKey })
      if (reason) return reason
      const box = outbox.current
      if (!box) return 'One moment: this device is still getting ready.'
      const queued = await box.add({
        sheetId,
        seenUpTo: upTo.current,
        deviceTime: new Date().toISOString(),
        stepKey,
        kind,
        payload,
      })
      setQueue((known) => [...known, queued])
      void exchange()
      return null
    },
    [exchange, sheetId, state],
  )

  const discard = useCallback(async (id: string) => {
    await outbox.current?.remove([id])
    setQueue((known) => known.filter((entry) => entry.id !== id))
  }, [])

  return {
    state,
    waiting: queue.filter((entry) => entry.refused === '').length,
    refused: queue.filter((entry) => entry.refused !== ''),
    trouble,
    closed,
    lasting,
    write,
    discard,
  }
}

function asSent({
  id,
  deviceId,
  deviceSeq,
  seenUpTo,
  deviceTime,
  stepKey,
  kind,
  payload,
}: Queued): SentEntry {
  return { id, deviceId, deviceSeq, seenUpTo, deviceTime, stepKey, kind, payload }
}

/** An entry that waits, as it will stand on the sheet: after everything the server has. */
function asOwn(entry: Queued, author: { id: string; name: string }): SheetEntry {
  return {
    ...asSent(entry),
    sequence: 1_000_000_000 + entry.deviceSeq,
    at: entry.deviceTime,
    byId: author.id,
    byName: author.name,
    late: false,
  } as SheetEntry
}
