'use client'

import { useRef, useState } from 'react'
import type { SheetEntry } from '@/core/sheets'
import { Button } from '../../frame/Button'
import { BenchDialog } from './BenchDialog'
import type { PhotoAbout, SheetHandle } from './useSheet'
import { Note } from '../../feedback/States'

/** Photos of a step or a sheet, small; a tap opens one large. */
export function PhotoStrip({ bench, photos }: { bench: SheetHandle; photos: SheetEntry<'photo'>[] }) {
  const [open, setOpen] = useState<SheetEntry<'photo'> | null>(null)
  return (
    <div className="photo-strip">
      {photos.map((entry) => (
        <button key={entry.id} type="button" onClick={() => setOpen(entry)}>
          <img src={bench.photoUrl(entry.payload.photoId)} alt={entry.payload.caption || 'Photo'} />
        </button>
      ))}
      {open && (
        <BenchDialog
          title={open.payload.caption || `Photo by ${open.byName}`}
          label="Photo"
          size="md"
          onClose={() => setOpen(null)}
          actions={
            <>
              <Button
                variant="outlined"
                onClick={() => {
                  void bench.write('takeBack', { of: open.id, reason: '' })
                  setOpen(null)
                }}
              >
                Take it back
              </Button>
              <Button variant="contained" onClick={() => setOpen(null)}>
                Close
              </Button>
            </>
          }
        >
          <img
            className="photo-large"
            src={bench.photoUrl(open.payload.photoId)}
            alt={open.payload.caption || 'Photo'}
          />
        </BenchDialog>
      )}
    </div>
  )
}

/** Takes a photo, or chooses one; works without a camera page on a yard's plain http. */
export function PhotoButton({
  bench,
  about,
  wanted = false,
  variant = 'text',
}: {
  bench: SheetHandle
  about: PhotoAbout
  wanted?: boolean
  variant?: 'text' | 'outlined'
}) {
  const input = useRef<HTMLInputElement>(null)
  const [error, setError] = useState('')
  const taken = bench.state.photos.some((entry) => entry.stepKey !== null && entry.stepKey === about.stepKey)
  return (
    <>
      <Button variant={wanted && !taken ? 'outlined' : variant} onClick={() => input.current?.click()}>
        {wanted && !taken ? 'Photo asked for' : 'Photo'}
      </Button>
      <input
        ref={input}
        type="file"
        accept="image/*"
        capture="environment"
        hidden
        aria-label="Photo file"
        onChange={async (event) => {
          const file = event.target.files?.[0]
          event.target.value = ''
          if (file) setError((await bench.addPhoto(file, about)) ?? '')
        }}
      />
      {error && <Note tone="oxide">{error}</Note>}
    </>
  )
}
