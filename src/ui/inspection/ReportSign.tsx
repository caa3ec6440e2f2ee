'use client'

import FormHelperText from '@mui/material/FormHelperText'
import { useState } from 'react'
import { useFormContext, useWatch } from 'react-hook-form'
import { v7 as uuid } from 'uuid'
import { fieldName } from '@/core/fleet'
import { addDays } from '@/core/calendar'
import { firstChecks, symptomKeys, symptoms, type SignInput, type SymptomKey } from '@/core/inspection'
import type { Outcome } from '@/core/problem'
import { parseNumber } from '@/core/units'
import type { WearView } from '@/core/wear'
import { DialogForm } from '../forms/DialogForm'
import { ChoiceEntry, FieldRow, TextEntry } from '../forms/entries'
import { PositionChoice } from '../wear'
import { FirstChecks } from './FirstChecks'

/** A pump that a sign can be seen on, with the services it may bring forward. */
export type SignPump = Pick<WearView, 'assemblyId' | 'number' | 'title' | 'renewals'>

type Props = {
  machineId: string | null
  pumps: SignPump[]
  today: string
  /** Begins with this service, where somebody wants just that brought forward. */
  report: (input: SignInput) => Promise<Outcome>
}

/** What somebody saw, what it points at, and the service it brings forward. */
export function ReportSign({ machineId, pumps, today, report }: Props) {
  return (
    <DialogForm<SignInput>
      label="Report a sign"
      title="What was seen?"
      schema="signSchema"
      start={() => ({
        id: uuid(),
        machineId,
        assemblyId: pumps.length === 1 ? pumps[0]!.assemblyId : ('' as never),
        symptom: '' as never,
        seenOn: today,
        words: '',
        dripsPerMinute: '' as never,
        flow: { nozzleSize: '', bar: '', litresPerMinute: '', usualLitresPerMinute: '' } as never,
        task: '',
        positions: [],
        by: today,
        sheetId: null,
      })}
      action={report}
      submit="Report it"
      done="It stands on Today until it is settled."
      fieldName={fieldName}
    >
      <SignFields pumps={pumps} today={today} machine={machineId !== null} />
    </DialogForm>
  )
}

function SignFields({ pumps, today, machine }: { pumps: SignPump[]; today: string; machine: boolean }) {
  const { setValue, formState } = useFormContext<SignInput>()
  const flowError = formState.errors.flow as { message?: string; root?: { message?: string } } | undefined
  const [ownDay, setOwnDay] = useState(false)
  const values = useWatch<SignInput>() as Partial<SignInput>
  const pump = pumps.find((each) => each.assemblyId === values.assemblyId)
  const symptom = values.symptom ? symptoms[values.symptom] : null
  const triage = values.symptom
    ? firstChecks(
        {
          symptom: values.symptom,
          dripsPerMinute: asNumber(values.dripsPerMinute),
          flow: asFlow(values.flow),
        },
        null,
      )
    : null
  const likely = triage?.likely.flatMap(({ sort }) => (sort === null ? [] : [sort])) ?? []
  const rank = (sorts: readonly string[]) => {
    const places = sorts.map((sort) => likely.indexOf(sort as never)).filter((place) => place >= 0)
    return places.length > 0 ? Math.min(...places) : 99
  }
  const services = [...(pump?.renewals ?? [])].sort((a, b) => rank(a.sorts) - rank(b.sorts))
  const positions = pump?.renewals.find((each) => each.task === values.task)?.positions ?? []
  const seen = (key: SymptomKey, drips: unknown) => {
    if (ownDay) return
    const { withinDays } = firstChecks({ symptom: key, dripsPerMinute: asNumber(drips), flow: null }, null)
    setValue('by', addDays(today, withinDays))
  }
  return (
    <>
      <FieldRow>
        {(machine || pumps.length > 1) && (
          <div
            onChange={() => {
              setValue('task', '')
              setValue('positions', [])
            }}
          >
            <ChoiceEntry
              name="assemblyId"
              label="Seen on"
              options={pumps.map(({ assemblyId, number, title }) => ({
                value: assemblyId,
                label: `${number} ${title}`,
              }))}
              placeholder="The machine, no pump in particular"
            />
          </div>
        )}
        <div
          onChange={(event) =>
            seen((event.target as unknown as HTMLSelectElement).value as SymptomKey, values.dripsPerMinute)
          }
        >
          <ChoiceEntry
            name="symptom"
            label="Sign"
            options={symptomKeys.map((key) => ({ value: key, label: symptoms[key].name }))}
            placeholder="Choose what was seen"
          />
        </div>
        <TextEntry name="seenOn" label="Seen on day" type="date" />
      </FieldRow>
      <FieldRow>
        <TextEntry name="words" label="In words" hint="Where, since when, who said so" />
        {symptom?.asks === 'drips' && (
          <TextEntry
            name="dripsPerMinute"
            label="Drips a minute"
            inputMode="decimal"
            optional
            onInput={(value) => values.symptom && seen(values.symptom, value)}
          />
        )}
      </FieldRow>
      {symptom?.asks === 'flow' && (
        <fieldset className="field">
          <legend>Flow and pressure, if measured with a known nozzle</legend>
          <FieldRow>
            <TextEntry name="flow.nozzleSize" label="Nozzle size" inputMode="decimal" optional />
            <TextEntry name="flow.bar" label="Pressure" unit="bar" inputMode="decimal" optional />
            <TextEntry name="flow.litresPerMinute" label="Flow" unit="L/min" inputMode="decimal" optional />
            <TextEntry
              name="flow.usualLitresPerMinute"
              label="Usual flow"
              unit="L/min"
              inputMode="decimal"
              optional
            />
          </FieldRow>
          {flowError && (
            <FormHelperText error role="alert">
              {flowError.message ?? flowError.root?.message}
            </FormHelperText>
          )}
        </fieldset>
      )}
      <FieldRow>
        {pump && (
          <div onChange={() => setValue('positions', [])}>
            <ChoiceEntry
              name="task"
              label="Brings forward"
              options={services.map(({ task, name, sorts }) => ({
                value: task,
                label: rank(sorts) < 99 ? `${name} (likely)` : name,
              }))}
              placeholder="Nothing yet: look first"
            />
          </div>
        )}
        <div onChange={() => setOwnDay(true)}>
          <TextEntry
            name="by"
            label="To be seen to by"
            type="date"
            hint={symptom ? 'Ours for this sign; change it' : undefined}
          />
        </div>
      </FieldRow>
      {values.task && positions.length > 1 && (
        <PositionChoice positions={positions} hint="None ticked: all of them" />
      )}
      {triage && <FirstChecks triage={triage} />}
    </>
  )
}

function asNumber(typed: unknown): number | null {
  const parsed = parseNumber(String(typed ?? ''), 2)
  return parsed.ok ? parsed.value : null
}

/** The four figures as numbers, once all of them are there. */
function asFlow(typed: unknown) {
  const figures = (typed ?? {}) as Record<string, unknown>
  const [nozzleSize, bar, litresPerMinute, usualLitresPerMinute] = [
    'nozzleSize',
    'bar',
    'litresPerMinute',
    'usualLitresPerMinute',
  ].map((name) => asNumber(figures[name]))
  return nozzleSize && bar && litresPerMinute && usualLitresPerMinute
    ? { nozzleSize, bar, litresPerMinute, usualLitresPerMinute }
    : null
}
