'use client'

import Button from '@mui/material/Button'
import { useState } from 'react'
import { showDay } from '@/core/calendar'
import type { BackupView } from '@/core/company/backups'
import type { Outcome } from '@/core/problem/outcome'
import { Note } from '../feedback/States'
import { useToast } from '../feedback/Toasts'
import { Part } from '../frame/Page'

type Props = { backups: BackupView[]; today: string; make: () => Promise<Outcome<string>> }

/** The archives of the whole company: made each night and on demand, handed out to coordinators. */
export function BackupsPart({ backups, today, make }: Props) {
  const [making, setMaking] = useState(false)
  const [error, setError] = useState('')
  const toast = useToast()
  const start = async () => {
    setMaking(true)
    setError('')
    const outcome = await make().catch(() => null)
    setMaking(false)
    if (outcome?.ok) toast('The backup is made. Take a copy of it to another machine.')
    else setError(outcome ? outcome.problem.message : 'Atelier could not be reached. Try again in a moment.')
  }
  return (
    <div className="stack narrow-page">
      <Part title="Backups" aside="one each night, the newest are kept">
        <p className="second">
          A backup is one file with everything: the database, the photos and the documents, each with its
          checksum. It lies beside the data, so it is of no use if that machine is lost: download it, or copy
          it to another machine. <code>npm run restore</code> proves it before it replaces anything.
        </p>
        {error && (
          <Note tone="oxide" title="No backup was made.">
            {error}
          </Note>
        )}
        <div className="actions">
          <Button variant="contained" onClick={() => void start()} disabled={making}>
            {making ? 'Making it …' : 'Make a backup now'}
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
