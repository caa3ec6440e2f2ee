'use client'

import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { UnitFact, UnitFactInput } from '@/core/composing'
import type { Outcome } from '@/core/problem'
import { Button } from '../frame/Button'
import { useToast } from '../feedback/Toasts'
import { FieldFrame, SelectInput } from '../forms/FieldFrame'

type Props = {
  assemblyId: string
  facts: UnitFact[]
  /** Null for who may not change the fleet. */
  say: ((input: UnitFactInput) => Promise<Outcome>) | null
}

/** What its model asks of this unit, answered once: sheets then hold only what is true of it. */
export function UnitFacts({ assemblyId, facts, say }: Props) {
  return (
    <ul className="line-list" aria-label="What this unit is">
      {facts.map((fact) => (
        <FactLine key={`${fact.key} ${fact.answer}`} assemblyId={assemblyId} fact={fact} say={say} />
      ))}
    </ul>
  )
}

function FactLine({ assemblyId, fact, say }: { assemblyId: string; fact: UnitFact; say: Props['say'] }) {
  const { key, name, question, answers, answer, from } = fact
  const [chosen, setChosen] = useState(answer ?? '')
  const [error, setError] = useState('')
  const [open, setOpen] = useState(false)
  const toast = useToast()
  const router = useRouter()
  const id = `fact-${key}`
  const save = async () => {
    const outcome = await say!({ assemblyId, fact: key, answer: chosen, before: answer ?? '' })
    if (!outcome.ok) return setError(outcome.problem.message)
    toast(`${name}: ${chosen}.`)
    setOpen(false)
    router.refresh()
  }
  return (
    <li>
      <span className="grow">
        {name}{' '}
        <span className="second">
          {answer === null
            ? 'nobody has said yet: the next sheet that needs it asks'
            : from === 'machine'
              ? 'as its machine says'
              : ''}
        </span>
        {open && (
          <span className="fact-entry">
            <FieldFrame id={id} label={question} error={error}>
              <SelectInput
                id={id}
                options={answers.map((each) => ({ value: each, label: each }))}
                placeholder="Choose"
                value={chosen}
                onChange={(event) => setChosen(event.target.value)}
              />
            </FieldFrame>
            <span className="actions">
              <Button variant="contained" disabled={chosen === ''} onClick={() => void save()}>
                It is so
              </Button>
              <Button variant="outlined" onClick={() => setOpen(false)}>
                Leave it
              </Button>
            </span>
          </span>
        )}
      </span>
      <span className="strong">{answer ?? 'not known'}</span>
      {say && from !== 'machine' && !open && (
        <button
          type="button"
          className="plain-button"
          aria-label={`${answer === null ? 'Say' : 'Correct'}: ${name.toLowerCase()}`}
          onClick={() => setOpen(true)}
        >
          {answer === null ? 'say' : 'correct'}
        </button>
      )}
    </li>
  )
}
