'use client'

import { useCallback, useRef, useState } from 'react'
import { v7 as uuid } from 'uuid'
import type { ReadingInput, ReplacedInput, SkipInput } from '@/core/hours'
import type { RoundMove, RoundRow, RoundSaved } from '@/core/round'
import type { Outcome } from '@/core/problem'
import type { Present } from '../fleet'

export type RoundActions = {
  recordInRound: (input: ReadingInput) => Promise<Outcome<RoundSaved>>
  recordReplaced: (input: ReplacedInput) => Promise<Outcome<RoundSaved>>
  undoInRound: (readingId: string) => Promise<Outcome>
  skipInRound: (input: SkipInput) => Promise<Outcome>
}

/** What happens to one row while the round goes on. */
export type RowState = {
  typed: string
  /** Waiting for a word: why a high reading is right, the old meter's last, why it was not read. */
  asking: 'keep' | 'replaced' | 'skip' | null
  word: string
  saving: boolean
  error: string
  /** Somebody else was quicker and this person was told: Enter keeps it all the same. */
  told: boolean
  saved: RoundSaved | null
  skipped: string
}

const fresh: RowState = {
  typed: '',
  asking: null,
  word: '',
  saving: false,
  error: '',
  told: false,
  saved: null,
  skipped: '',
}

/** The round as it goes: what is typed, what was saved, what it moved; the last saving can be undone. */
export function useRound(start: RoundRow[], present: Present, reader: string, actions: RoundActions) {
  // The rows stay as they were when the round began: what is saved does not make them jump.
  const [rows] = useState(start)
  const [states, setStates] = useState<Record<string, RowState>>({})
  const [moves, setMoves] = useState<(RoundMove & { readingId: string })[]>([])
  const [order, setOrder] = useState<string[]>([])
  const [began] = useState(() => Date.now())

  // The same value of the same meter keeps its id until it is saved or taken back: an answer that was lost
  // is asked for again, and the reading is there once.
  const ids = useRef(new Map<string, string>())
  const idOf = (...what: string[]) => {
    const key = what.join(' ')
    const known = ids.current.get(key) ?? uuid()
    ids.current.set(key, known)
    return known
  }

  const stateOf = (meterId: string) => states[meterId] ?? fresh
  const change = useCallback((meterId: string, values: Partial<RowState>) => {
    setStates((known) => ({ ...known, [meterId]: { ...(known[meterId] ?? fresh), ...values } }))
  }, [])

  /** The company's day and time now: counted on from when the page was made. */
  const clock = () => {
    const [hours = 0, minutes = 0] = present.time.split(':').map(Number)
    const now = Math.min(hours * 60 + minutes + Math.floor((Date.now() - began) / 60_000), 1439)
    const two = (value: number) => String(value).padStart(2, '0')
    return { day: present.today, time: `${two(Math.floor(now / 60))}:${two(now % 60)}` }
  }
  const instant = () => new Date(Date.parse(present.instant) + Date.now() - began).toISOString()

  const settle = (meterId: string, outcome: Outcome<RoundSaved> | null): boolean => {
    if (!outcome?.ok) {
      const error = outcome
        ? outcome.problem.message
        : 'Atelier could not be reached. What you typed is still here: press Enter again.'
      const told = outcome !== null && outcome.problem.kind === 'conflict'
      change(meterId, { saving: false, error, told })
      return false
    }
    const saved = outcome.data
    change(meterId, { saving: false, error: '', asking: null, word: '', saved, skipped: '' })
    setMoves((known) => [...known, ...saved.moves.map((move) => ({ ...move, readingId: saved.id }))])
    setOrder((known) => [...known, meterId])
    return true
  }

  const save = async (row: RoundRow, typed: string, more: { vouched?: boolean; note?: string } = {}) => {
    change(row.meterId, { typed, saving: true, error: '' })
    const input: ReadingInput = {
      id: idOf('reading', row.meterId, typed),
      meterId: row.meterId,
      ...clock(),
      typed,
      readBy: reader,
      note: more.note ?? '',
      vouched: more.vouched ?? false,
      ...(stateOf(row.meterId).told ? {} : { seenLast: row.last?.at ?? '' }),
    }
    return settle(row.meterId, await actions.recordInRound(input).catch(() => null))
  }

  const replace = async (row: RoundRow, typed: string, oldLastTyped: string) => {
    change(row.meterId, { typed, saving: true, error: '' })
    const id = idOf('replaced', row.meterId, typed, oldLastTyped)
    const input = { id, meterId: row.meterId, typed, oldLastTyped, readBy: reader }
    return settle(row.meterId, await actions.recordReplaced(input).catch(() => null))
  }

  const skip = async (row: RoundRow, reason: string) => {
    change(row.meterId, { saving: true, error: '' })
    const outcome = await actions
      .skipInRound({ id: idOf('skip', row.meterId, reason), meterId: row.meterId, reason })
      .catch(() => null)
    if (outcome?.ok) change(row.meterId, { ...fresh, skipped: reason })
    else
      change(row.meterId, {
        saving: false,
        error: outcome ? outcome.problem.message : 'Atelier could not be reached. Try again in a moment.',
      })
    return outcome?.ok ?? false
  }

  /** Takes back what was saved last, or what was saved of one row; answers with the row it concerns. */
  const undo = async (meterId?: string): Promise<string | null> => {
    const which = meterId ?? order.at(-1)
    const saved = which ? stateOf(which).saved : null
    if (!which || !saved) return null
    const outcome = await actions.undoInRound(saved.id).catch(() => null)
    if (!outcome?.ok) {
      change(which, { error: outcome ? outcome.problem.message : 'Atelier could not be reached.' })
      return null
    }
    change(which, { saved: null, error: '' })
    // What is entered after that is a reading of its own, even if it says the same.
    ids.current.clear()
    setMoves((known) => known.filter((move) => move.readingId !== saved.id))
    setOrder((known) => known.filter((each) => each !== which))
    return which
  }

  return { rows, stateOf, change, save, replace, skip, undo, moves, instant }
}

export type Round = ReturnType<typeof useRound>
