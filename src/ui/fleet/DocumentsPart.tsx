'use client'

import { useRouter } from 'next/navigation'
import { useRef, useState } from 'react'
import { v7 as uuid } from 'uuid'
import { showDay } from '@/core/calendar'
import { largestDocument, type DocumentView } from '@/core/fleet'
import type { Outcome } from '@/core/problem'
import { Button } from '../frame/Button'
import { useConfirm } from '../forms/Confirm'
import { useToast } from '../feedback/Toasts'

type Props = {
  machineId: string
  documents: DocumentView[]
  today: string
  mayAdd: boolean
  mayRemove: boolean
  remove: (input: { id: string; version: number }) => Promise<Outcome>
}

/** Photos and documents of a machine: plates, wiring, the page of a manual. */
export function DocumentsPart({ machineId, documents, today, mayAdd, mayRemove, remove }: Props) {
  const router = useRouter()
  const toast = useToast()
  const input = useRef<HTMLInputElement>(null)
  const [busy, setBusy] = useState('')
  const [errors, setErrors] = useState<string[]>([])
  const add = async (files: File[]) => {
    setErrors([])
    const failed: string[] = []
    for (const [index, file] of files.entries()) {
      setBusy(`${file.name} (${index + 1} of ${files.length})`)
      const error = await send(machineId, file)
      if (error) failed.push(error)
    }
    setBusy('')
    setErrors(failed)
    if (input.current) input.current.value = ''
    if (failed.length < files.length) {
      toast('It is kept with the machine.')
      router.refresh()
    }
  }
  const photos = documents.filter((each) => each.photo)
  const papers = documents.filter((each) => !each.photo)
  return (
    <>
      {documents.length === 0 && (
        <p className="second">
          Nothing yet. Photos of plates and joints, and pages of the manual, belong here.
        </p>
      )}
      {photos.length > 0 && (
        <ul className="photos">
          {photos.map((photo) => (
            <li key={photo.id}>
              <a href={`/api/documents/${photo.id}`} target="_blank" rel="noreferrer">
                <img src={`/api/documents/${photo.id}`} alt={photo.name} loading="lazy" />
              </a>
              <Line document={photo} today={today} mayRemove={mayRemove} remove={remove} />
            </li>
          ))}
        </ul>
      )}
      <ul className="line-list">
        {papers.map((paper) => (
          <li key={paper.id}>
            <div className="grow">
              <a href={`/api/documents/${paper.id}`} target="_blank" rel="noreferrer" className="strong">
                {paper.name}
              </a>{' '}
              <span className="second">PDF, {size(paper.bytes)}</span>
            </div>
            <Line document={paper} today={today} mayRemove={mayRemove} remove={remove} bare />
          </li>
        ))}
      </ul>
      {errors.map((error) => (
        <p key={error} className="oxide" role="alert">
          {error}
        </p>
      ))}
      {mayAdd && (
        <div className="actions">
          <input
            ref={input}
            type="file"
            multiple
            hidden
            accept="image/jpeg,image/png,image/webp,application/pdf"
            aria-label="Photos and documents"
            onChange={(event) => void add([...(event.target.files ?? [])])}
          />
          <Button variant="outlined" disabled={busy !== ''} onClick={() => input.current?.click()}>
            Add photos or PDFs
          </Button>
          {busy && (
            <span className="second" role="status">
              Sending {busy} …
            </span>
          )}
        </div>
      )}
    </>
  )
}

/** Sends one file; answers what went wrong, or nothing. */
async function send(machineId: string, file: File): Promise<string | null> {
  if (file.size > largestDocument)
    return `“${file.name}” has ${Math.round(file.size / 1e6)} MB; at most ${largestDocument / 1e6} MB.`
  const query = new URLSearchParams({ id: uuid(), name: file.name })
  try {
    const answer = await fetch(`/api/machines/${machineId}/documents?${query}`, {
      method: 'POST',
      body: file,
    })
    if (answer.ok) return null
    const { problem } = (await answer.json()) as {
      problem?: { message: string; fields?: Record<string, string> }
    }
    return problem?.fields?.file ?? problem?.message ?? `“${file.name}” was not taken.`
  } catch {
    return `“${file.name}” could not be sent: Atelier could not be reached. Choose it again in a moment.`
  }
}

type LineProps = { document: DocumentView; bare?: boolean } & Pick<Props, 'today' | 'mayRemove' | 'remove'>

function Line({ document, today, mayRemove, remove, bare }: LineProps) {
  const confirm = useConfirm()
  const toast = useToast()
  const press = () =>
    confirm({
      title: `Take “${document.name}” off?`,
      consequence: 'It no longer shows on this machine. Who took it off stays on the record.',
      action: 'Take it off',
      run: async () => {
        const outcome = await remove({ id: document.id, version: document.version })
        if (!outcome.ok) return outcome.problem.message
        toast('It is taken off.')
        return undefined
      },
    })
  return (
    <div className="second">
      {!bare && <span className="photo-name">{document.name}</span>}
      {document.by}, {showDay(document.day, today)}
      {mayRemove && (
        <Button variant="text" onClick={press} aria-label={`Take off ${document.name}`}>
          Take off
        </Button>
      )}
    </div>
  )
}

const size = (bytes: number) =>
  bytes < 1e6 ? `${Math.ceil(bytes / 1000)} kB` : `${(bytes / 1e6).toFixed(1)} MB`
