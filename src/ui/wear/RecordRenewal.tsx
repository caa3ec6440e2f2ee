'use client'

import { useFormContext, useWatch } from 'react-hook-form'
import { v7 as uuid } from 'uuid'
import type { Outcome } from '@/core/problem'
import { endReasons, type RenewalInput, type WearView } from '@/core/wear'
import { DialogForm } from '../forms/DialogForm'
import { ChoiceEntry, FieldRow, options, TextEntry } from '../forms/entries'
import type { Option } from '../forms/FieldFrame'
import { PositionChoice } from './PositionChoice'

type Props = {
  view: Pick<WearView, 'assemblyId' | 'number' | 'renewals' | 'unit'>
  today: string
  takenOverOn: string
  /** Lots of the stores whose parts fit this pump. */
  lots: Option[]
  record: (input: RenewalInput) => Promise<Outcome>
}

/** What was renewed without a sheet: from the binder, or before Atelier. */
export function RecordRenewal({ view, today, takenOverOn, lots, record }: Props) {
  return (
    <DialogForm
      label="Record a renewal"
      title={`What was renewed on ${view.number}?`}
      schema="renewalSchema"
      start={(): RenewalInput => ({
        id: uuid(),
        assemblyId: view.assemblyId,
        task: view.renewals[0]?.task ?? '',
        positions: view.renewals[0]?.positions.map((position) => position.key) ?? [],
        day: today,
        runSince: '' as never,
        endReason: 'preventive',
        lotId: '',
        note: '',
      })}
      action={record}
      submit="Record it"
      done="Recorded. The clocks of those parts start again."
    >
      <RenewalFields view={view} takenOverOn={takenOverOn} lots={lots} />
    </DialogForm>
  )
}

function RenewalFields({ view, takenOverOn, lots }: Pick<Props, 'view' | 'takenOverOn' | 'lots'>) {
  const { setValue } = useFormContext<RenewalInput>()
  const [task, day] = useWatch<RenewalInput>({ name: ['task', 'day'] }) as [string, string]
  const positions = view.renewals.find((each) => each.task === task)?.positions ?? []
  const before = day !== '' && day < takenOverOn
  return (
    <>
      <div
        onChange={(event) => {
          const chosen = view.renewals.find(
            (each) => each.task === (event.target as unknown as HTMLSelectElement).value,
          )
          setValue('positions', chosen?.positions.map((position) => position.key) ?? [])
        }}
      >
        <ChoiceEntry
          name="task"
          label="Service"
          options={view.renewals.map(({ task: value, name }) => ({ value, label: name }))}
        />
      </div>
      {positions.length > 1 && <PositionChoice positions={positions} />}
      <FieldRow>
        <TextEntry name="day" label="Renewed on" type="date" />
        {before && (
          <TextEntry
            name="runSince"
            label="Run since, until taken over"
            unit={view.unit}
            inputMode="decimal"
            hint="That was before this pump was taken over"
          />
        )}
        <ChoiceEntry name="endReason" label="Why the old part came out" options={options(endReasons)} />
      </FieldRow>
      <ChoiceEntry
        name="lotId"
        label="Parts from lot"
        options={lots}
        placeholder="Not known, or not from our stores"
        hint="For the record of these lives; what is on the shelf stays as counted"
        optional
      />
      <TextEntry name="note" label="Note" optional />
    </>
  )
}
