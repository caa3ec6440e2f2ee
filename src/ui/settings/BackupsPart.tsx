'use client'

import { useRouter } from 'next/navigation'
import { useEffect, useRef, useState } from 'react'
import { showDay } from '@/core/calendar'
import type { BackupsView } from '@/core/backups'
import type { Outcome } from '@/core/problem'
import { Button } from '../frame/Button'
import { Note } from '../feedback/States'
import { useToast } from '../feedback/Toasts'
import { Part } from '../frame/Page'

type Props = BackupsView & { today: string; start: () => Promise<Outcome> }

/** How often is looked whether the one that is being made is done, in milliseconds. */
const lookMs = 1000

/** The archives of the whole company: made each night and on demand, handed out to coordinators. */
export function BackupsPart({ backups, making, fault, today, start }: Props) {
  const [asked, setAsked] = useState(false)
  const [error, setError] = useState('')
  const router = useRouter()
  const toast = useToast()
  const newest = backups[0]?.name
  const seen = useRef(newest)
  useEffect(() => {
    if (newest !== seen.current) toast('The backup is made. Take a copy of it to another machine.')
    seen.current = newest
  }, [newest, toast])
  useEffect(() => {
    if (!making) return
    const look = setInterval(() => router.refresh(), lookMs)
    return () => clearInterval(look)
  }, [making, router])
  const ask = async () => {
    setAsked(true)
    setError('')
    const outcome = await start().catch(() => null)
    setAsked(false)
    if (!outcome?.ok)
      setError(outcome ? outcome.problem.message : 'Atelier could not be reached. Try again in a moment.')
  }
  const busy = asked || making
  return (
    <div className="stack narrow-page">
      <Part title="Backups" aside="one each night, the newest are kept">
        <p className="second">
          A backup is one file with everything: the database, the photos and the documents, each with its
          checksum. It lies beside the data, so it is of no use if that machine is lost: download it, or copy
          it to another machine. <code>npm run restore</code> proves it before it replaces anything.
        </p>
        {!busy && (error || fault) && (
          <Note tone="oxide" title="No backup was made.">
            {error || fault}
          </Note>
        )}
        <div className="actions">
          <Button variant="contained" onClick={() => void ask()} disabled={busy}>
            {busy ? 'Making it …' : 'Make a backup now'}
          </Button>
        </div>
        {backups.length === 0 ? (
          <p className="second">None yet.</p>
        ) : (
          <ul className="line-list" aria-label="Backups">
            {backups.map(({ name, bytes, day, time }) => (
              <li key={name}>
                <span className="grow">
                  <span className="strong">{showDay(day, today)}</span> {time}
                  <div className="second">{name}</div>
                </span>
                <span className="num nowrap">{(bytes / 1e6).toFixed(1)}&nbsp;MB</span>
                <a
                  className="plain-link"
                  href={`/api/backups/${name}`}
                  download
                  aria-label={`Download ${name}`}
                >
                  Download
                </a>
              </li>
            ))}
          </ul>
        )}
      </Part>
    </div>
  )
}
