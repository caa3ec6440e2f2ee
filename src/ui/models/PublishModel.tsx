'use client'

import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import { useRouter } from 'next/navigation'
import { useRef, useState } from 'react'
import type { PublishInput } from '@/core/fleet'
import type { PublishPreview } from '@/core/models'
import type { Outcome } from '@/core/problem'
import { Button } from '../frame/Button'
import { Note } from '../feedback/States'
import { useToast } from '../feedback/Toasts'
import { FieldFrame, TextInput } from '../forms/FieldFrame'
import { ChangeTable } from './ModelVersions'
import { HeadCell, Table, TableBody, TableCell, TableHead, TableRow } from '../table/Table'

type Published = { published: { id: string; title: string; version: number }[] }
type Start = { text: string; news: string; read: PublishPreview | null }
type Props = {
  label: string
  look?: 'contained' | 'outlined'
  /** The model whose page this is: data of another one is told apart. */
  of?: string
  /** Data to begin with, and what is new in it: it is read at once. */
  start?: () => Promise<Outcome<{ text: string; news: string }>>
  preview: (text: string) => Promise<Outcome<PublishPreview>>
  publish: (input: PublishInput) => Promise<Outcome<Published>>
}

/**
 * Takes in a model's data from a file or as text: first it is read and told what is wrong with it or what
 * it would change, then it is published. What was pasted stays until the dialog is closed.
 */
export function PublishModel({ label, look = 'outlined', of, start, preview, publish }: Props) {
  const [open, setOpen] = useState<Start | null>(null)
  const toast = useToast()
  const begin = async () => {
    if (!start) return setOpen({ text: '', news: '', read: null })
    const data = await start()
    if (!data.ok) return toast(data.problem.message)
    const read = await preview(data.data.text)
    setOpen({ ...data.data, read: read.ok ? read.data : null })
  }
  const close = () => setOpen(null)
  return (
    <>
      <Button variant={look} onClick={() => void begin()}>
        {label}
      </Button>
      <Dialog open={open !== null} onClose={close} maxWidth="md" fullWidth aria-label={label}>
        <DialogTitle>{label}</DialogTitle>
        {open && <PublishSteps {...{ of, start: open, preview, publish, close }} />}
      </Dialog>
    </>
  )
}

function PublishSteps({
  of,
  start,
  preview,
  publish,
  close,
}: Pick<Props, 'of' | 'preview' | 'publish'> & { start: Start; close: () => void }) {
  const [text, setText] = useState(start.text)
  const [news, setNews] = useState(start.news)
  const [read, setRead] = useState(start.read)
  const [problem, setProblem] = useState('')
  const [busy, setBusy] = useState(false)
  const file = useRef<HTMLInputElement>(null)
  const toast = useToast()
  const router = useRouter()

  const change = (value: string) => {
    setText(value)
    setRead(null)
    setProblem('')
  }
  const look = async (value = text) => {
    if (value.trim() === '') {
      setProblem('Choose a file, or paste the model’s JSON data.')
      return
    }
    setBusy(true)
    const outcome = await preview(value)
    setBusy(false)
    if (outcome.ok) setRead(outcome.data)
    else setProblem(outcome.problem.message)
  }
  const go = async () => {
    setBusy(true)
    const seen = Object.fromEntries(read!.models.map(({ title, newest }) => [title, newest]))
    const outcome = await publish({ text, seen, news })
    setBusy(false)
    if (!outcome.ok) {
      setProblem(outcome.problem.message)
      return
    }
    const [first] = outcome.data.published
    toast(
      outcome.data.published
        .map(({ title, version }) => `${title}: version ${version} is published.`)
        .join(' '),
    )
    close()
    router.push(`/models/${first!.id}`)
    router.refresh()
  }
  const ready = read !== null && read.faults.length === 0
  return (
    <>
      <DialogContent>
        <div className="stack-tight">
          <p>
            Figures must come from the maker’s manual. A published version is never changed: a correction is
            the next one. The pumps of the model go over to it at once; visits and sheets keep the version
            they were made with.
          </p>
          <div className="actions">
            <Button variant="outlined" onClick={() => file.current?.click()} disabled={busy}>
              Choose a file
            </Button>
            <input
              ref={file}
              type="file"
              accept=".json,application/json"
              hidden
              aria-label="Model file"
              onChange={async (event) => {
                const chosen = event.target.files?.[0]
                if (!chosen) return
                const value = await chosen.text()
                change(value)
                await look(value)
              }}
            />
          </div>
          <FieldFrame id="model-text" label="Model data, as JSON" error={problem}>
            <div className="code-input">
              <TextInput
                id="model-text"
                value={text}
                onChange={(event) => change(event.target.value)}
                error={problem !== ''}
                multiline
                minRows={6}
                maxRows={12}
              />
            </div>
          </FieldFrame>
          {read && read.faults.length > 0 && <Faults faults={read.faults} />}
          {ready && of && !read.models.some(({ title }) => title === of) && (
            <Note tone="brass" title={`This is not the data of ${of}.`}>
              It is published as {read.models.map(({ title }) => title).join(', ')}.
            </Note>
          )}
          {ready && <WhatItDoes read={read} />}
          {ready && (
            <FieldFrame id="model-news" label="What is new" optional>
              <TextInput id="model-news" value={news} onChange={(event) => setNews(event.target.value)} />
            </FieldFrame>
          )}
        </div>
      </DialogContent>
      <DialogActions>
        <Button variant="outlined" onClick={close} disabled={busy}>
          Cancel
        </Button>
        {ready ? (
          <Button variant="contained" onClick={go} disabled={busy}>
            {busy ? 'Publishing …' : 'Publish'}
          </Button>
        ) : (
          <Button variant="contained" onClick={() => look()} disabled={busy}>
            {busy ? 'Reading …' : 'Read it'}
          </Button>
        )}
      </DialogActions>
    </>
  )
}

function Faults({ faults }: { faults: PublishPreview['faults'] }) {
  return (
    <div role="alert">
      <Note
        tone="oxide"
        title={faults.length === 1 ? 'One thing is wrong.' : `${faults.length} things are wrong.`}
      >
        Nothing is published; mend them here or in the file, and read it again.
      </Note>
      <Table className="plain">
        <caption className="visually-hidden">What is wrong, by path</caption>
        <TableHead>
          <TableRow>
            <HeadCell>Where</HeadCell>
            <HeadCell>What</HeadCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {faults.slice(0, 40).map(({ path, words }) => (
            <TableRow key={path}>
              <TableCell>
                <code>{path || 'the whole'}</code>
              </TableCell>
              <TableCell>{words}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      {faults.length > 40 && <p className="second">and {faults.length - 40} more</p>}
    </div>
  )
}

function WhatItDoes({ read }: { read: PublishPreview }) {
  return (
    <>
      {read.models.map(({ title, newest, pumps, openVisits, changes }) => (
        <div key={title}>
          <p>
            <span className="strong">
              {title}, version {newest + 1}
            </span>
            {newest === 0
              ? ': new in the library.'
              : `: ${pumps === 1 ? 'one pump goes' : `${pumps} pumps go`} over to it${
                  openVisits > 0
                    ? `; ${openVisits === 1 ? 'one visit to come keeps' : `${openVisits} visits to come keep`} the version booked with`
                    : ''
                }.`}
            {newest > 0 && changes.length === 0 && ' Nothing differs from the newest version.'}
          </p>
          {changes.length > 0 && (
            <details open={changes.length <= 8}>
              <summary>{changes.length === 1 ? 'One change' : `${changes.length} changes`}</summary>
              <ChangeTable changes={changes} />
            </details>
          )}
        </div>
      ))}
      {read.checks.length > 0 && (
        <details>
          <summary>
            {read.checks.length === 1 ? 'One thing' : `${read.checks.length} things`} to look at
          </summary>
          <ul className="line-list">
            {read.checks.map(({ path, words }) => (
              <li key={`${path} ${words}`}>
                <span className="grow">{words}</span>
                <code className="second">{path}</code>
              </li>
            ))}
          </ul>
        </details>
      )}
    </>
  )
}
