'use client'

import { useEffect, useState } from 'react'
import { showMinutes } from '@/core/plan'
import type { MoreWork } from '@/core/sheets'
import { Button } from '../../frame/Button'
import { BenchDialog } from './BenchDialog'
import { FieldFrame, SelectInput, TextInput } from '../../forms/FieldFrame'
import { useMoreWork } from './moreWork'

type Props = {
  sheetId: string
  start: { assemblyId: string; task: string; positions: string[] } | null
  several: boolean
  /** The locks are off already. */
  energised: boolean
  onClose: () => void
}

/** Work found on the way: what the open pump makes cheap first; what is done stays done. */
export function MoreWorkDialog({ sheetId, start, several, energised, onClose }: Props) {
  const add = useMoreWork()
  const [offers, setOffers] = useState<MoreWork[] | null>(null)
  const [chosen, setChosen] = useState<MoreWork | null>(null)
  const [positions, setPositions] = useState<string[]>([])
  const [way, setWay] = useState('')
  const [reason, setReason] = useState('')
  const [error, setError] = useState('')
  const [busy, setBusy] = useState(false)
  useEffect(() => {
    void fetch(`/api/sheets/${sheetId}/offers`)
      .then(async (answer) => {
        const body = (await answer.json()) as MoreWork[] & { problem?: { message: string } }
        if (!answer.ok) return setError(body.problem?.message ?? 'Atelier does not answer as it should.')
        setOffers(body)
        const wanted = body.find((each) => each.assemblyId === start?.assemblyId && each.task === start?.task)
        if (!wanted) return
        setChosen(wanted)
        setPositions(start!.positions.filter((key) => wanted.positions.some((one) => one.key === key)))
      })
      .catch(() =>
        setError('Atelier cannot be reached: work is added once it can be. Go on with what is there.'),
      )
  }, [sheetId, start])
  const choose = (offer: MoreWork) => {
    setChosen(offer)
    setPositions(offer.positions.map(({ key }) => key))
    setWay('')
    setError('')
  }
  const send = async () => {
    if (!chosen || !add) return setError('Choose what is to be done besides.')
    if (positions.length === 0) return setError('Choose at least one position.')
    if (reason.trim() === '') return setError('Say what was found.')
    setBusy(true)
    const refused = await add({
      items: [{ assemblyId: chosen.assemblyId, task: chosen.task, positions, path: way || null }],
      reason: reason.trim(),
    })
    setBusy(false)
    if (refused) setError(refused)
    else onClose()
  }
  return (
    <BenchDialog
      title="More work, found on the way"
      label="More work"
      size="sm"
      onClose={onClose}
      error={error}
      submit={{ words: 'Add to this sheet', run: send, disabled: !chosen || busy }}
    >
      <p className="second">
        What is done stays done; what is left is composed anew, with its parts and minutes. The coordinator
        sees it on the visit.
      </p>
      {energised && (
        <p className="caution">
          The locks are off and it may be under pressure: it is made safe once more, by name, before anything
          is opened, and proved again after.
        </p>
      )}
      {!offers && !error && <p>Looking what the open pump makes cheap …</p>}
      {offers && !chosen && (
        <ul className="offer-list">
          {offers.map((offer) => (
            <li key={`${offer.assemblyId} ${offer.task}`}>
              <button type="button" onClick={() => choose(offer)}>
                <span className="grow">
                  <span className="strong">{offer.name}</span>
                  {several && <span className="second"> {offer.pump}</span>}
                  <span className="second block">
                    {offer.openAlready.length > 0
                      ? `open already: ${offer.openAlready.join(', ').toLowerCase()}`
                      : 'nothing of it is open yet'}
                  </span>
                </span>
                <span className="num">
                  <span className="strong">+{showMinutes(offer.now)}</span>
                  <span className="second block">alone {showMinutes(offer.alone)}</span>
                </span>
              </button>
            </li>
          ))}
          {offers.length === 0 && <li>Everything this pump’s model knows is on the sheet already.</li>}
        </ul>
      )}
      {chosen && (
        <>
          <p>
            <span className="strong">{chosen.name}</span>{' '}
            <button type="button" className="plain-button" onClick={() => setChosen(null)}>
              Something else
            </button>
          </p>
          {chosen.positions.length > 1 && (
            <div className="damage-chips" role="group" aria-label="Where">
              {chosen.positions.map(({ key, name }) => (
                <Button
                  key={key}
                  variant={positions.includes(key) ? 'contained' : 'outlined'}
                  aria-pressed={positions.includes(key)}
                  onClick={() =>
                    setPositions(
                      positions.includes(key)
                        ? positions.filter((each) => each !== key)
                        : [...positions, key],
                    )
                  }
                >
                  {name}
                </Button>
              ))}
            </div>
          )}
          {chosen.ways.length > 1 && (
            <FieldFrame id="more-way" label="Way">
              <SelectInput
                id="more-way"
                options={[
                  { value: '', label: 'As the practice says' },
                  ...chosen.ways.map(({ key, name }) => ({ value: key, label: name })),
                ]}
                value={way}
                onChange={(event) => setWay(event.target.value)}
              />
            </FieldFrame>
          )}
          <FieldFrame id="more-reason" label="What was found">
            <TextInput id="more-reason" value={reason} onChange={(event) => setReason(event.target.value)} />
          </FieldFrame>
        </>
      )}
    </BenchDialog>
  )
}
