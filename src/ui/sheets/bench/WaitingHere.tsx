'use client'

import { useCallback, useEffect, useState } from 'react'
import { visitNumber } from '@/core/plan'
import { Note } from '../../feedback/States'
import { Link } from '../../frame/Link'
import { Outbox, type Author, type Queued } from './queue'
import { NotAnswered, sendEntries } from './sending'
import { WaitingForOthers } from './WaitingForOthers'
import { entryCounts } from '../words'

type Props = {
  author: Author
  people: Author[]
  mayTakeIn: boolean
  sheets: { id: string; number: number }[]
  /** Only what waits for one sheet; its entries can be settled here. */
  only?: string
}

/**
 * What waits on this device for sheets that are not open before somebody: whoever signs in sends their
 * own by it, also for a sheet that was signed meanwhile, and sees whose the rest is.
 */
export function WaitingHere({ author, people, mayTakeIn, sheets, only }: Props) {
  const [waiting, setWaiting] = useState<Queued[]>([])
  const [trouble, setTrouble] = useState('')

  const send = useCallback(
    async (choose: (entry: Queued) => boolean, why?: string): Promise<string | null> => {
      const box = await Outbox.open()
      let words: string | null = null
      const mine = (await box.waiting(only)).filter((entry) => entry.refused === '' && choose(entry))
      for (const sheetId of new Set(mine.map((entry) => entry.sheetId)))
        try {
          await sendEntries(
            box,
            sheetId,
            mine.filter((entry) => entry.sheetId === sheetId),
            () => undefined,
            why,
          )
        } catch (error) {
          words = error instanceof NotAnswered ? error.message : 'Atelier cannot be reached. Nothing is lost.'
        }
      setWaiting(await box.waiting(only))
      return words
    },
    [only],
  )

  useEffect(() => {
    const own = async () => setTrouble((await send((entry) => entry.authorId === author.id)) ?? '')
    void own()
    window.addEventListener('online', own)
    return () => window.removeEventListener('online', own)
  }, [author.id, send])

  const claim = async (ids: string[], whose: Author) => {
    await (await Outbox.open()).claim(ids, whose)
    await send((entry) => entry.authorId === author.id)
  }
  const discard = async (id: string) => {
    await (await Outbox.open()).remove([id])
    setWaiting((known) => known.filter((entry) => entry.id !== id))
  }
  const own = waiting.filter((entry) => entry.authorId === author.id)
  const others = waiting.filter((entry) => entry.authorId !== author.id)
  const nameOf = (sheetId: string) => {
    const sheet = sheets.find(({ id }) => id === sheetId)
    return sheet ? `Sheet ${visitNumber(sheet.number)}` : 'A sheet'
  }
  if (waiting.length === 0) return null
  return (
    <div className="stack-tight">
      {own
        .filter((entry) => entry.refused !== '')
        .map((entry) => (
          <Note key={entry.id} tone="oxide" title={`${nameOf(entry.sheetId)}, not kept:`}>
            {entry.refused}
            <div className="actions">
              <button type="button" className="plain-button" onClick={() => void discard(entry.id)}>
                I have seen it
              </button>
            </div>
          </Note>
        ))}
      {own.some((entry) => entry.refused === '') && (
        <Note tone="brass" title={`${entryCounts(own)} of yours wait on this device.`}>
          {trouble || 'They are being sent.'}
        </Note>
      )}
      {only === undefined ? (
        [...new Set(others.map((entry) => entry.sheetId))].map((sheetId) => (
          <Note key={sheetId} tone="brass" title={`${nameOf(sheetId)}:`}>
            {[...new Set(others.filter((each) => each.sheetId === sheetId).map((each) => each.authorName))]
              .map((name) => {
                const own = others.filter((each) => each.sheetId === sheetId && each.authorName === name)
                return `${entryCounts(own)} of ${name || 'nobody yet'}`
              })
              .join('; ')}{' '}
            wait on this device. <Link href={`/sheets/${sheetId}`}>See the sheet</Link>
          </Note>
        ))
      ) : (
        <WaitingForOthers
          waiting={others}
          author={author}
          people={people}
          mayTakeIn={mayTakeIn}
          claim={claim}
          takeIn={(authorId, why) => send((entry) => entry.authorId === authorId, why)}
        />
      )}
    </div>
  )
}
