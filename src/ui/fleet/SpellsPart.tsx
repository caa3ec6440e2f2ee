'use client'

import { useWatch } from 'react-hook-form'
import { v7 as uuid } from 'uuid'
import { fieldName, type SpellView } from '@/core/fleet'
import { showDay } from '@/core/calendar'
import { spellWords, type SpellInput } from '@/core/hours'
import type { Outcome } from '@/core/problem'
import { showNumber } from '@/core/units'
import { Button } from '../frame/Button'
import { useToast } from '../feedback/Toasts'
import { DialogForm } from '../forms/DialogForm'
import { FieldRow, RadioEntry, TextEntry } from '../forms/entries'
import { PostMark } from '../graphics/PostMark'

type Props = {
  spells: SpellView[]
  today: string
  mayEdit: boolean
  save: (input: SpellInput) => Promise<Outcome>
  withdraw: (input: { id: string; version: number }) => Promise<Outcome>
}

/** When the machine is known to stand or to work; forecasts and rounds go by it. */
export function SpellsPart({ spells, today, mayEdit, save, withdraw }: Props) {
  const toast = useToast()
  const takeOut = async (spell: SpellView) => {
    const outcome = await withdraw({ id: spell.id, version: spell.version })
    if (!outcome.ok) return toast(outcome.problem.message)
    toast('It is taken out; forecasts no longer go by it.', async () => {
      const again = await save({ ...asInput(spell), id: uuid(), version: undefined })
      toast(again.ok ? 'It stands again.' : again.problem.message)
    })
  }
  const open = spells.filter((spell) => !spell.past)
  const gone = spells.filter((spell) => spell.past)
  return (
    <>
      {spells.length === 0 && (
        <p className="second">
          Nothing told: the days ahead are taken from how it has been used. A lay-up or a booked job told here
          moves its due days.
        </p>
      )}
      <ul className="line-list">
        {[...open, ...gone.slice(-3).reverse()].map((spell) => (
          <li key={spell.id} className={spell.past ? 'receding' : undefined}>
            <PostMark
              state={spell.past ? 'done' : spell.kind === 'layUp' ? 'waiting' : 'planned'}
              silent
              size={16}
            />
            <div className="grow">
              <span className="strong">
                {spell.kind === 'layUp' ? 'Laid up' : 'Booked'} {showDay(spell.fromDay, today)} to{' '}
                {spell.toDay ? showDay(spell.toDay, today) : 'further notice'}
              </span>
              {spell.now && <span className="brass strong"> now</span>}
              <div className="second">
                {spell.what}
                {spell.hoursPerDay !== null && `, ${showNumber(spell.hoursPerDay)}\u00a0h a day`}
              </div>
            </div>
            {mayEdit && (
              <>
                <SpellDialog spell={spell} today={today} save={save} />
                <Button
                  variant="text"
                  onClick={() => void takeOut(spell)}
                  aria-label={`Take out ${spellWords(spell, today)}`}
                >
                  Take out
                </Button>
              </>
            )}
          </li>
        ))}
      </ul>
      {mayEdit && (
        <div className="actions">
          <SpellDialog today={today} save={save} />
        </div>
      )}
    </>
  )
}

function asInput({ id, version, kind, fromDay, toDay, hoursPerDay, what }: SpellView): SpellInput {
  return { id, version, kind, fromDay, toDay, hoursPerDay, what }
}

function SpellDialog({ spell, today, save }: { spell?: SpellView } & Pick<Props, 'today' | 'save'>) {
  return (
    <DialogForm<SpellInput>
      label={spell ? 'Edit' : 'Add a lay-up or job'}
      look={spell ? 'text' : 'outlined'}
      title={spell ? 'Change this entry' : 'Lay-up or booked job'}
      schema="spellSchema"
      start={() =>
        spell
          ? asInput(spell)
          : { id: uuid(), kind: 'layUp', fromDay: today, toDay: '', hoursPerDay: null, what: '' }
      }
      action={save}
      submit="Save"
      done="It is saved; the days ahead go by it."
      fieldName={fieldName}
    >
      <SpellFields />
    </DialogForm>
  )
}

function SpellFields() {
  const kind = useWatch({ name: 'kind' }) as SpellInput['kind']
  return (
    <>
      <RadioEntry
        name="kind"
        label="What is known?"
        options={[
          { value: 'layUp', label: 'It stands: laid up' },
          { value: 'job', label: 'It works: booked for a job' },
        ]}
      />
      <FieldRow>
        <TextEntry name="fromDay" label="From" type="date" />
        <TextEntry
          name="toDay"
          label="Last day"
          type="date"
          optional={kind === 'layUp'}
          hint={kind === 'layUp' ? 'Blank: until further notice' : undefined}
        />
        {kind === 'job' && (
          <TextEntry
            name="hoursPerDay"
            label="Hours a day"
            inputMode="decimal"
            unit="h"
            optional
            hint="On its first meter; blank: as it usually runs"
          />
        )}
      </FieldRow>
      <TextEntry name="what" label={kind === 'layUp' ? 'Why it stands' : 'Which job'} />
    </>
  )
}
