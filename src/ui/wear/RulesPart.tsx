'use client'

import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import { useFormContext, useWatch } from 'react-hook-form'
import { v7 as uuid } from 'uuid'
import { showDay } from '@/core/calendar'
import type { Outcome } from '@/core/problem'
import { showNumber } from '@/core/units'
import {
  dutyFactors,
  type DutiesInput,
  type DutyKey,
  type LimitInput,
  type RuleMove,
  type RulesView,
  type WearView,
} from '@/core/wear'
import { Button } from '../frame/Button'
import { useToast } from '../feedback/Toasts'
import { ChoiceEntry, FieldRow, TextEntry } from '../forms/entries'
import { PreviewedForm } from './PreviewedForm'

type Actions = {
  previewLimit: (input: LimitInput) => Promise<Outcome<RuleMove[]>>
  saveLimit: (input: LimitInput) => Promise<Outcome>
  clearLimit: (input: { assemblyId: string; task: string; seen: string }) => Promise<Outcome>
  previewDuties: (input: DutiesInput) => Promise<Outcome<RuleMove[]>>
  saveDuties: (input: DutiesInput) => Promise<Outcome>
}
type Props = { view: WearView; rules: RulesView; today: string; mayEdit: boolean; actions: Actions }

const percent = (share: number) => `${showNumber(Math.round(share * 1000) / 10)}\u00a0%`

/** What this pump goes by beside its model: limits of its own, and what is hard about its work. */
export function RulesPart({ view, rules, today, mayEdit, actions }: Props) {
  const toast = useToast()
  const nameOf = (task: string) => view.tasks.find((each) => each.key === task)?.name ?? task
  const clear = async (task: string, seen: string) => {
    const outcome = await actions.clearLimit({ assemblyId: view.assemblyId, task, seen })
    toast(outcome.ok ? `${nameOf(task)} goes by the model again.` : outcome.problem.message)
  }
  return (
    <>
      {rules.overrides.length + rules.duties.length === 0 && (
        <p className="second">It goes by its model, and nothing hard is told of its work.</p>
      )}
      <ul className="line-list">
        {rules.overrides.map((override) => (
          <li key={override.id}>
            <div className="grow">
              <span className="strong">{nameOf(override.task)}</span> every{' '}
              {[
                override.hours !== null && `${showNumber(override.hours)}\u00a0${view.unit}`,
                override.days !== null && `${showNumber(override.days)}\u00a0days`,
              ]
                .filter(Boolean)
                .join(' or ')}
              , early {percent(override.early)}, late {percent(override.late)}
              <div className="second">
                {override.reason} · {override.by}, {showDay(override.day, today)}
              </div>
            </div>
            {mayEdit && (
              <Button
                variant="text"
                onClick={() => void clear(override.task, override.id)}
                aria-label={`${nameOf(override.task)}: back to the model`}
              >
                Back to the model
              </Button>
            )}
          </li>
        ))}
        {rules.duties.map((duty) => (
          <li key={duty.id}>
            <div className="grow">
              <span className="strong">{dutyFactors[duty.key].name}</span>: hours × {duty.factor}
              <div className="second">
                {duty.reason} · {dutyFactors[duty.key].why} · {duty.by}, {showDay(duty.day, today)}
              </div>
            </div>
          </li>
        ))}
      </ul>
      {mayEdit && (
        <div className="actions">
          <PreviewedForm<LimitInput>
            label="Change a limit"
            title={`A limit of ${view.number}’s own`}
            schema="limitSchema"
            start={() => limitOf(view, rules, view.tasks[0]!.key)}
            preview={actions.previewLimit}
            save={actions.saveLimit}
            done="The limit is saved; the clocks go by it."
            unit={view.unit}
            today={today}
          >
            <LimitFields view={view} rules={rules} />
          </PreviewedForm>
          <PreviewedForm<DutiesInput>
            label="Hard duty"
            title={`What is hard on ${view.number}?`}
            schema="dutiesSchema"
            start={() => ({
              assemblyId: view.assemblyId,
              seen: rules.duties.map((duty) => duty.id),
              duties: rules.duties.map(({ id, key, factor, reason }) => ({
                id,
                key,
                factor: Math.round(factor * 1000) / 10,
                reason,
              })),
            })}
            preview={actions.previewDuties}
            save={actions.saveDuties}
            done="Noted; the limits it touches are shortened."
            unit={view.unit}
            today={today}
          >
            <DutyChoice />
          </PreviewedForm>
        </div>
      )}
    </>
  )
}

/** The form for one task: what it goes by now, the model's or its own. */
function limitOf(view: WearView, rules: RulesView, key: string): LimitInput {
  const override = rules.overrides.find((each) => each.task === key)
  const task = view.tasks.find((each) => each.key === key)!
  const { hours, days, firstHours, firstDays, early, late } = override ?? {
    ...task.limit,
    ...task.tolerance,
  }
  return {
    id: uuid(),
    assemblyId: view.assemblyId,
    task: key,
    seen: override?.id ?? '',
    hours,
    days,
    firstHours,
    firstDays,
    early: Math.round(early * 1000) / 10,
    late: Math.round(late * 1000) / 10,
    reason: override?.reason ?? '',
  }
}

function LimitFields({ view, rules }: { view: WearView; rules: RulesView }) {
  const { reset } = useFormContext<LimitInput>()
  return (
    <>
      {/* Another service brings its own figures along. */}
      <div
        onChange={(event) => {
          const chosen = (event.target as unknown as HTMLSelectElement).value
          reset(limitOf(view, rules, chosen))
        }}
      >
        <ChoiceEntry
          name="task"
          label="Service"
          options={view.tasks.map((task) => ({ value: task.key, label: task.name }))}
        />
      </div>
      <FieldRow>
        <TextEntry name="hours" label="Every" inputMode="decimal" unit={view.unit} optional />
        <TextEntry name="days" label="Or every" inputMode="decimal" unit="days" optional />
      </FieldRow>
      <FieldRow>
        <TextEntry name="firstHours" label="First time after" inputMode="decimal" unit={view.unit} optional />
        <TextEntry name="firstDays" label="First time or after" inputMode="decimal" unit="days" optional />
      </FieldRow>
      <FieldRow>
        <TextEntry name="early" label="May be early by" inputMode="decimal" unit="%" />
        <TextEntry name="late" label="May be late by" inputMode="decimal" unit="%" />
      </FieldRow>
      <TextEntry
        name="reason"
        label="Why another limit"
        hint="The maker’s manual always wins: lengthen nothing that it limits."
      />
    </>
  )
}

/** Every kind of hard duty with its box; a ticked one asks how much and where it was seen. */
function DutyChoice() {
  const { setValue } = useFormContext<DutiesInput>()
  const duties = (useWatch({ name: 'duties' }) ?? []) as DutiesInput['duties']
  return (
    <div className="duty-choice">
      <p className="second">
        Each leaves so much of the hour limits of what it touches; together never less than 40 %. These shares
        are Atelier’s own starting points: change them to what you know.
      </p>
      {(Object.keys(dutyFactors) as DutyKey[]).map((key) => {
        const at = duties.findIndex((duty) => duty.key === key)
        const { name, why, factor } = dutyFactors[key]
        return (
          <div key={key}>
            <FormControlLabel
              label={name}
              control={
                <Checkbox
                  size="small"
                  checked={at !== -1}
                  onChange={() =>
                    setValue(
                      'duties',
                      at === -1
                        ? [...duties, { id: uuid(), key, factor: factor * 100, reason: '' }]
                        : duties.filter((duty) => duty.key !== key),
                      { shouldDirty: true },
                    )
                  }
                />
              }
            />
            <span className="second">{why}</span>
            {at !== -1 && (
              <FieldRow>
                <TextEntry
                  name={`duties.${at}.factor`}
                  label={`${name}: leaves`}
                  inputMode="decimal"
                  unit="%"
                />
                <TextEntry name={`duties.${at}.reason`} label={`${name}: seen where`} />
              </FieldRow>
            )}
          </div>
        )
      })}
    </div>
  )
}
