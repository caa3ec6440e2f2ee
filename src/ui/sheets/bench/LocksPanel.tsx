'use client'

import { useState } from 'react'
import { locksOf, type Lock } from '@/core/sheets'
import { Button } from '../../frame/Button'
import { AskDialog } from './AskDialog'
import type { SheetHandle } from './useSheet'
import { Note } from '../../feedback/States'

type Props = { bench: SheetHandle; stepKey: string | null; goes: 'on' | 'off' }

/** Whose locks are on; each comes off again by whoever set it. */
export function LocksPanel({ bench, stepKey, goes }: Props) {
  const [asking, setAsking] = useState<'add' | Lock | null>(null)
  const [error, setError] = useState('')
  const locks = locksOf(bench.state)
  const same = (name: string) => name.toLowerCase() === bench.author.name.toLowerCase()
  const off = async (lock: Lock, reason = '') => {
    const refused = await bench.write('lock', { name: lock.name, goes: 'off', reason }, stepKey)
    setError(refused ?? '')
    return refused
  }
  return (
    <section className="locks" aria-label="Locks">
      {locks.length > 0 && (
        <ul>
          {locks.map((lock) => (
            <li key={lock.on.id}>
              <svg width="18" height="20" viewBox="0 0 18 20" aria-hidden>
                <rect
                  x="2"
                  y="9"
                  width="14"
                  height="10"
                  fill={lock.offAt ? 'none' : 'var(--oxide)'}
                  stroke="var(--oxide)"
                  strokeWidth="1.6"
                />
                <path
                  d={lock.offAt ? 'M5 9V5a4 4 0 0 1 8 0' : 'M5 9V6a4 4 0 0 1 8 0v3'}
                  fill="none"
                  stroke="var(--oxide)"
                  strokeWidth="2"
                />
              </svg>
              <span className="grow">
                <span className="strong">{lock.name}</span>{' '}
                <span className="second">
                  {lock.offAt ? `off again${lock.offReason ? `: ${lock.offReason}` : ''}` : 'lock is on'}
                </span>
              </span>
              {goes === 'off' && !lock.offAt && (
                <Button
                  variant="outlined"
                  onClick={() => (same(lock.name) ? void off(lock) : setAsking(lock))}
                >
                  {same(lock.name) ? 'My lock is off' : 'Off'}
                </Button>
              )}
            </li>
          ))}
        </ul>
      )}
      {error && <Note tone="oxide">{error}</Note>}
      {goes === 'on' && (
        <Button variant="text" onClick={() => setAsking('add')}>
          Another person’s lock
        </Button>
      )}
      {asking === 'add' && (
        <AskDialog
          title="Another lock is on"
          fields={[{ name: 'name', label: 'Whose lock' }]}
          submit="It is on"
          onClose={() => setAsking(null)}
          send={({ name }) => bench.write('lock', { name: name ?? '', goes: 'on', reason: '' }, stepKey)}
        />
      )}
      {asking !== null && asking !== 'add' && (
        <AskDialog
          title={`The lock of ${asking.name}`}
          intro={
            <p>
              {asking.name} set this lock and takes it off in person. Where that cannot be, only by the site’s
              own rule.
            </p>
          }
          fields={[{ name: 'reason', label: 'Taken off by whom, by which rule' }]}
          submit="It is off"
          onClose={() => setAsking(null)}
          send={({ reason }) => off(asking, reason)}
        />
      )}
    </section>
  )
}
