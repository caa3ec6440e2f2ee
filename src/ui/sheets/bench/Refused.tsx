'use client'

import { useEffect, useRef, type ReactNode } from 'react'
import { Note } from '../../feedback/States'

/** Why something was not taken. It comes into sight by itself: the confirmation must not hide it. */
export function Refused({ words, children }: { words: string; children?: ReactNode }) {
  const note = useRef<HTMLDivElement>(null)
  useEffect(() => {
    // In braces: newer browsers answer with a promise, which would be taken for a clean-up.
    note.current?.scrollIntoView({ block: 'nearest' })
  }, [words])
  return (
    <div ref={note} className="refused">
      <Note tone="oxide">
        {words}
        {children}
      </Note>
    </div>
  )
}
