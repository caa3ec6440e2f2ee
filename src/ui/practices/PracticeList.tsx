'use client'

import FormControlLabel from '@mui/material/FormControlLabel'
import Radio from '@mui/material/Radio'
import RadioGroup from '@mui/material/RadioGroup'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { showDay } from '@/core/calendar'
import type { PracticeInput, PracticeView } from '@/core/practices'
import type { Outcome } from '@/core/problem'
import { Button } from '../frame/Button'
import { useToast } from '../feedback/Toasts'
import { FieldFrame, TextInput, type Option } from '../forms/FieldFrame'
import { OverrideDialog } from './OverrideDialog'
import { ProductLine } from './ProductLine'

type Choose = (input: PracticeInput) => Promise<Outcome>
type Props = { practices: PracticeView[]; models: Option[]; today: string; choose: Choose | null }

/** Every practice with its choices and their reasons, what holds, and where it is otherwise. */
export function PracticeList({ practices, models, today, choose }: Props) {
  return (
    <div className="panel panel-pad">
      {practices.map((practice) => (
        <PracticeLine
          key={`${practice.key} ${practice.chosen?.version ?? 0}`}
          practice={practice}
          models={models}
          today={today}
          choose={choose}
        />
      ))}
    </div>
  )
}

function PracticeLine({
  practice,
  models,
  today,
  choose,
}: Omit<Props, 'practices'> & { practice: PracticeView }) {
  const { key, name, about, choices, chosen, overrides, manuals } = practice
  const now = chosen?.choice ?? choices[0]!.key
  return (
    <section className="practice" aria-labelledby={`practice-${key}`}>
      <div>
        <h2 id={`practice-${key}`}>{name}</h2>
        <p className="second">{about}</p>
        <p className="second">
          {chosen
            ? `Chosen by ${chosen.by}, ${showDay(chosen.day, today)}${chosen.reason ? `: ${chosen.reason}` : ''}`
            : 'The default holds: nobody has chosen yet.'}
        </p>
      </div>
      <CompanyChoice practice={practice} now={now} choose={choose} />
      <div>
        {manuals.map(({ model, choice, source }) => (
          <p key={`${model} ${choice}`}>
            <span className="strong">{model}</span>: {nameOf(practice, choice).toLowerCase()}{' '}
            <span className="second">the manual says so, {source}</span>
          </p>
        ))}
        {overrides.map((each) => (
          <p key={each.modelId}>
            <span className="strong">{each.model}</span>: {nameOf(practice, each.choice).toLowerCase()}{' '}
            <span className="second">{each.reason}</span>{' '}
            {choose && (
              <TakeBack
                run={() =>
                  choose({
                    practice: key,
                    modelId: each.modelId,
                    choice: null,
                    reason: '',
                    version: each.version,
                  })
                }
                what={`${name} for ${each.model}`}
              />
            )}
          </p>
        ))}
        {choose && <OverrideDialog practice={practice} models={models} choose={choose} />}
      </div>
    </section>
  )
}

function CompanyChoice({
  practice,
  now,
  choose,
}: {
  practice: PracticeView
  now: string
  choose: Choose | null
}) {
  const [choice, setChoice] = useState(now)
  const [reason, setReason] = useState('')
  const [problem, setProblem] = useState('')
  const [busy, setBusy] = useState(false)
  const toast = useToast()
  const router = useRouter()
  const id = `reason-${practice.key}`
  const putsOn = practice.choices.find((each) => each.key === now)?.treats
  const save = async () => {
    setBusy(true)
    const outcome = await choose!({
      practice: practice.key,
      modelId: null,
      choice,
      reason,
      version: practice.chosen?.version ?? 0,
    })
    setBusy(false)
    if (!outcome.ok) return setProblem(outcome.problem.message)
    toast(`${practice.name}: ${nameOf(practice, choice).toLowerCase()}.`)
    router.refresh()
  }
  return (
    <div>
      <RadioGroup
        value={choice}
        onChange={(event) => setChoice(event.target.value)}
        aria-labelledby={`practice-${practice.key}`}
      >
        {practice.choices.map((each) => (
          <FormControlLabel
            key={each.key}
            value={each.key}
            disabled={choose === null}
            control={<Radio size="small" />}
            label={
              <span className="practice-choice">
                <span className={each.key === now ? 'strong' : undefined}>{each.name}</span>
                <span className="second">{each.reason}</span>
              </span>
            }
          />
        ))}
      </RadioGroup>
      {choice === now && putsOn && putsOn.takesMl > 0 && (
        <ProductLine practice={practice} treats={putsOn} choose={choose} />
      )}
      {choice !== now && (
        <div className="stack-tight">
          <FieldFrame id={id} label="Why, in one line" error={problem} optional>
            <TextInput
              id={id}
              value={reason}
              onChange={(event) => setReason(event.target.value)}
              error={problem !== ''}
            />
          </FieldFrame>
          <div className="actions">
            <Button variant="contained" onClick={save} disabled={busy}>
              Choose this
            </Button>
            <Button variant="outlined" onClick={() => setChoice(now)} disabled={busy}>
              Leave it
            </Button>
          </div>
        </div>
      )}
    </div>
  )
}

function TakeBack({ run, what }: { run: () => Promise<Outcome>; what: string }) {
  const toast = useToast()
  const router = useRouter()
  return (
    <button
      type="button"
      className="plain-button"
      aria-label={`Take back: ${what}`}
      onClick={async () => {
        const outcome = await run()
        toast(outcome.ok ? `${what}: as for all models again.` : outcome.problem.message)
        router.refresh()
      }}
    >
      take back
    </button>
  )
}

function nameOf(practice: PracticeView, choice: string): string {
  return practice.choices.find((each) => each.key === choice)?.name ?? choice
}
