'use client'

import { useWatch } from 'react-hook-form'
import { symptomKeys, symptoms, type EarlyCheckInput, type EarlyCheckView } from '@/core/inspection'
import type { Outcome } from '@/core/problem'
import { Note } from '../feedback/States'
import { DialogForm } from '../forms/DialogForm'
import { ChoiceEntry, RadioEntry, TextEntry } from '../forms/entries'

type Props = {
  check: EarlyCheckView
  label?: string
  record: (input: EarlyCheckInput) => Promise<Outcome>
}

/** What the look after the first hours showed. */
export function EarlyCheckDialog({ check, label = 'Record', record }: Props) {
  return (
    <DialogForm<EarlyCheckInput>
      label={label}
      title={`Early check: ${check.machineNumber ?? ''} ${check.pump}, after sheet ${check.sheet.number}`}
      schema="earlyCheckSchema"
      start={() => ({ id: check.id, version: check.version, result: '' as never, words: '', symptom: '' })}
      action={record}
      submit="Record the check"
      done="The check is on the record."
    >
      <CheckFields check={check} />
    </DialogForm>
  )
}

function CheckFields({ check }: { check: EarlyCheckView }) {
  const result = useWatch({ name: 'result' }) as EarlyCheckInput['result'] | ''
  return (
    <>
      <Note title="Look at the weep holes, caps and oil; ask how it runs.">
        Beside a running machine keep hands and face off hoses and joints. Before anything is touched: engine
        off, ignition disabled, pressure relieved and zero verified.
      </Note>
      <p className="second">{check.services}</p>
      <RadioEntry
        name="result"
        label="What did it show?"
        options={[
          { value: 'good', label: 'All well: dry, oil clear, runs as it should' },
          { value: 'found', label: 'Something was found' },
        ]}
      />
      {result === 'found' && (
        <ChoiceEntry
          name="symptom"
          label="Sign"
          options={symptomKeys.map((key) => ({ value: key, label: symptoms[key].name }))}
          placeholder="Choose what was seen"
        />
      )}
      <TextEntry name="words" label="In words" optional={result !== 'found'} />
    </>
  )
}
