'use client'

import Checkbox from '@mui/material/Checkbox'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import { useState } from 'react'
import { isAcceptedAtOnce, judgeTyped } from '@/core/hours'
import { historyOf, readMessage, type RoundRow } from '@/core/round'
import { showNumber } from '@/core/units'
import { Button } from '../frame/Button'
import { verdictWords } from '../fleet'
import { FieldFrame, SelectInput, TextInput } from '../forms/FieldFrame'
import type { Round } from './useRound'
import { HeadCell, Table, TableBody, TableCell, TableHead, TableRow } from '../table/Table'

type Props = {
  start: string
  rows: RoundRow[]
  /** The meters that a bare column is for, in order. */
  expected: RoundRow[]
  round: Round
  onClose: () => void
}

type Line = { text: string; meterId: string; typed: string; doubt: string; take: boolean }

/** A message from a crew, or a column: matched to machines and judged before anything is saved. */
export function PasteRound({ start, rows, expected, round, onClose }: Props) {
  const [text, setText] = useState(start)
  const [lines, setLines] = useState<Line[] | null>(() => (start === '' ? null : match(start)))
  const [saving, setSaving] = useState(false)

  /** A machine with several meters is read on its first; the others are chosen by hand. */
  function match(message: string): Line[] {
    return readMessage(
      message,
      [...new Map(rows.map((row) => [row.number, row])).values()],
      expected.map((row) => row.number),
    ).map(({ text: line, number, typed, doubt }, index) => {
      const bare = expected[index]?.number === number ? expected[index] : undefined
      const row = bare ?? rows.find((each) => each.number === number)
      return { text: line, meterId: row?.meterId ?? '', typed, doubt, take: doubt === '' }
    })
  }

  const judged = (lines ?? []).map((line) => {
    const row = rows.find((each) => each.meterId === line.meterId)
    if (!row || line.typed.trim() === '')
      return { row, ready: false, good: false, words: line.doubt || 'Choose a machine and a value.' }
    const { value, refusal, verdict } = judgeTyped(line.typed, historyOf(row), round.instant())
    if (value === null) return { row, ready: false, good: false, words: refusal }
    const good = isAcceptedAtOnce(verdict.kind)
    const words = `${verdictWords[verdict.kind]}${good ? '' : `: ${verdict.reason}`}`
    return { row, ready: true, good, words: [line.doubt, words].filter(Boolean).join(' ') }
  })
  const chosen = judged.filter((each, index) => each.ready && lines?.[index]?.take)
  const change = (index: number, values: Partial<Line>) =>
    setLines((known) => known?.map((line, at) => (at === index ? { ...line, ...values } : line)) ?? null)

  const save = async () => {
    setSaving(true)
    for (const [index, each] of judged.entries())
      if (each.row && each.ready && lines?.[index]?.take) await round.save(each.row, lines[index]!.typed)
    onClose()
  }

  return (
    <Dialog open onClose={() => !saving && onClose()} maxWidth="md" fullWidth aria-label="Paste a message">
      <DialogTitle>
        {lines === null ? 'Paste a message or a column' : `${lines.length} lines read`}
      </DialogTitle>
      <DialogContent>
        {lines === null ? (
          <FieldFrame
            id="paste-text"
            label="Message"
            hint="One machine a line, such as “T-04 5246.8”; or only values, for the machines still to read, in order."
          >
            <TextInput
              id="paste-text"
              multiline
              minRows={8}
              autoFocus
              value={text}
              onChange={(event) => setText(event.target.value)}
            />
          </FieldFrame>
        ) : (
          <Table className="plain paste-table">
            <TableHead>
              <TableRow>
                <HeadCell>Take</HeadCell>
                <HeadCell>Line</HeadCell>
                <HeadCell>Meter</HeadCell>
                <HeadCell>Value</HeadCell>
                <HeadCell>Verdict</HeadCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {lines.map((line, index) => (
                <TableRow key={index}>
                  <TableCell>
                    <Checkbox
                      size="small"
                      checked={line.take && judged[index]!.ready}
                      disabled={!judged[index]!.ready}
                      onChange={(event) => change(index, { take: event.target.checked })}
                      slotProps={{ input: { 'aria-label': `Take line ${index + 1}` } }}
                    />
                  </TableCell>
                  <TableCell className="second">{line.text}</TableCell>
                  <TableCell>
                    <SelectInput
                      id={`paste-meter-${index}`}
                      placeholder="Choose"
                      options={rows.map((row) => ({
                        value: row.meterId,
                        label: `${row.number} ${row.several ? row.meterName : row.name}`,
                      }))}
                      value={line.meterId}
                      onChange={(event) =>
                        change(index, { meterId: event.target.value, doubt: '', take: true })
                      }
                      inputProps={{ 'aria-label': `Meter of line ${index + 1}` }}
                    />
                  </TableCell>
                  <TableCell>
                    <TextInput
                      id={`paste-value-${index}`}
                      value={line.typed}
                      onChange={(event) =>
                        change(index, { typed: event.target.value, doubt: '', take: true })
                      }
                      inputProps={{ 'aria-label': `Value of line ${index + 1}`, inputMode: 'decimal' }}
                    />
                  </TableCell>
                  <TableCell className={judged[index]!.good ? 'moss' : 'brass'}>
                    {judged[index]!.words}
                    {judged[index]!.row?.last && (
                      <div className="second">
                        last {showNumber(judged[index]!.row!.last!.value, judged[index]!.row!.face.decimals)}
                      </div>
                    )}
                  </TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
        )}
      </DialogContent>
      <DialogActions>
        <Button variant="outlined" onClick={onClose} disabled={saving}>
          Cancel
        </Button>
        {lines === null ? (
          <Button variant="contained" disabled={text.trim() === ''} onClick={() => setLines(match(text))}>
            Read it
          </Button>
        ) : (
          <Button variant="contained" disabled={saving || chosen.length === 0} onClick={() => void save()}>
            {chosen.length === 1 ? 'Save 1 reading' : `Save ${chosen.length} readings`}
          </Button>
        )}
      </DialogActions>
    </Dialog>
  )
}
