'use client'

import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import { useRouter } from 'next/navigation'
import { useFieldArray, useFormContext, useWatch } from 'react-hook-form'
import { v7 as uuid } from 'uuid'
import {
  elementKinds,
  eveningNames,
  judgeBore,
  methodNames,
  methodsFor,
  turnings,
  usualCosts,
  zoneNames,
  zonesOf,
  type CircuitElement,
  type CircuitInput,
  type MachineWinterPage,
  type Zone,
} from '@/core/winter'
import type { Outcome } from '@/core/problem'
import { parseNumber } from '@/core/units'
import { Button } from '../frame/Button'
import { EntryForm } from '../forms/EntryForm'
import { useToast } from '../feedback/Toasts'
import { ChoiceEntry, FieldRow, options, TextEntry } from '../forms/entries'

type Props = { page: MachineWinterPage; save: (input: CircuitInput) => Promise<Outcome> }

const blank = (kind: CircuitElement['kind']): CircuitInput['elements'][number] => ({
  id: uuid(),
  kind,
  name: '',
  litres: '' as never,
  boreMm: '' as never,
  lengthM: '' as never,
  drains: 'true' as never,
  drainsLitres: '' as never,
  traps: '',
  costCents: usualCosts[kind],
  cost: (usualCosts[kind] / 100).toFixed(2) as never,
})
const typed = (value: number | null | undefined) =>
  (value == null ? '' : Math.round(value * 1000) / 1000) as never

/** The water side of a machine, to be looked at on the machine and put right. */
export function CircuitForm({ page, save }: Props) {
  const router = useRouter()
  const toast = useToast()
  const own = page.ownMethods
  return (
    <EntryForm
      schema="circuitSchema"
      values={
        {
          machineId: page.machineId,
          ...(page.version !== null && { version: page.version }),
          elements: page.circuit.map((element) => ({
            ...element,
            name: element.name ?? '',
            litres: typed(element.litres),
            boreMm: typed(element.boreMm),
            lengthM: typed(element.lengthM),
            drainsLitres: typed(element.drainsLitres),
            drains: String(element.drains ?? true) as never,
            traps: element.traps ?? '',
            costCents: element.costCents ?? usualCosts[element.kind],
            cost: ((element.costCents ?? usualCosts[element.kind]) / 100).toFixed(2) as never,
          })),
          methods: own,
          turning: page.turning,
          fuelTankLitres: typed(page.fuelTankLitres),
          evening: page.evening,
          eveningReason: page.eveningReason,
        } as CircuitInput
      }
      action={save}
      onDone={() => {
        toast('The circuit is kept: litres, recipes and the order of work follow it.')
        router.push(`/winter/${encodeURIComponent(page.number)}`)
      }}
      submit="Keep the circuit"
    >
      <Elements />
      <FieldRow>
        <ChoiceEntry name="turning" label="Turned over by" options={options(turnings)} />
        <TextEntry name="fuelTankLitres" label="Fuel tank" unit="L" inputMode="decimal" optional />
      </FieldRow>
      <FieldRow>
        <ChoiceEntry name="evening" label="This winter" options={options(eveningNames)} />
        <TextEntry name="eveningReason" label="Why" optional />
      </FieldRow>
      <OwnMethods />
    </EntryForm>
  )
}

function Elements() {
  const { control, formState } = useFormContext<CircuitInput>()
  const { fields, append, remove, move } = useFieldArray({ control, name: 'elements', keyName: 'row' })
  const elements = useWatch({ control, name: 'elements' })
  const fault = formState.errors.elements as { message?: string; root?: { message?: string } } | undefined
  return (
    <fieldset className="field circuit-rows">
      <legend>From tank to nozzle, in the order of the water</legend>
      {fields.map((field, at) => {
        const element = elements[at] ?? field
        const name = element.name || elementKinds[element.kind]
        const bore = parseNumber(String(element.boreMm ?? ''))
        const question = bore.ok && bore.value > 0 ? judgeBore(element.kind, bore.value, 'mm') : null
        return (
          <div key={field.row} className="circuit-row" role="group" aria-label={`${at + 1}. ${name}`}>
            <FieldRow>
              <ChoiceEntry
                name={`elements.${at}.kind`}
                label="Piece"
                about={`${at + 1}`}
                options={options(elementKinds)}
              />
              <TextEntry name={`elements.${at}.name`} label="Name" about={`${at + 1}`} optional />
              <TextEntry
                name={`elements.${at}.litres`}
                label="Holds"
                about={`${at + 1}`}
                unit="L"
                inputMode="decimal"
                optional
              />
              <TextEntry
                name={`elements.${at}.boreMm`}
                label="Bore"
                about={`${at + 1}`}
                unit="mm"
                inputMode="decimal"
                optional
                hint={question ? question.says : undefined}
              />
              <TextEntry
                name={`elements.${at}.lengthM`}
                label="Length"
                about={`${at + 1}`}
                unit="m"
                inputMode="decimal"
                optional
              />
              <ChoiceEntry
                name={`elements.${at}.drains`}
                label="Opened, it"
                about={`${at + 1}`}
                options={[
                  { value: 'true', label: 'runs empty' },
                  { value: 'false', label: 'keeps it' },
                ]}
              />
              <TextEntry name={`elements.${at}.traps`} label="Keeps water in" about={`${at + 1}`} optional />
              <TextEntry
                name={`elements.${at}.cost`}
                label="Cost frozen"
                about={`${at + 1}`}
                inputMode="decimal"
                optional
              />
            </FieldRow>
            <p className="circuit-acts">
              {question?.perhaps && (
                <BoreFix
                  at={at}
                  mm={Math.round(question.perhaps.mm * 10) / 10}
                  says={`${question.perhaps.value} ${question.perhaps.unit}`}
                />
              )}
              <button
                type="button"
                className="plain-button"
                disabled={at === 0}
                onClick={() => move(at, at - 1)}
                aria-label={`${name} one earlier`}
              >
                Earlier
              </button>
              <button
                type="button"
                className="plain-button"
                disabled={at === fields.length - 1}
                onClick={() => move(at, at + 1)}
                aria-label={`${name} one later`}
              >
                Later
              </button>
              <button
                type="button"
                className="plain-button"
                onClick={() => remove(at)}
                aria-label={`Take away: ${name}`}
              >
                Take away
              </button>
            </p>
          </div>
        )
      })}
      {(fault?.message ?? fault?.root?.message) && (
        <p className="oxide" role="alert">
          {fault?.message ?? fault?.root?.message}
        </p>
      )}
      <Button variant="outlined" onClick={() => append(blank('pressureHose'))}>
        One more piece
      </Button>
    </fieldset>
  )
}

/** The same figure in the unit that was probably meant. */
function BoreFix({ at, mm, says }: { at: number; mm: number; says: string }) {
  const { setValue } = useFormContext<CircuitInput>()
  return (
    <button
      type="button"
      className="plain-button brass"
      onClick={() => setValue(`elements.${at}.boreMm`, String(mm) as never, { shouldDirty: true })}
    >
      It was {says}: {mm} mm
    </button>
  )
}

function OwnMethods() {
  const { control, setValue } = useFormContext<CircuitInput>()
  const elements = useWatch({ control, name: 'elements' })
  const methods = useWatch({ control, name: 'methods' })
  return (
    <fieldset className="field">
      <legend>Where this machine differs from the company</legend>
      {zonesOf(elements).map((zone: Zone) => (
        <FieldRow key={zone}>
          <FormControlLabel
            label={zoneNames[zone]}
            control={
              <Checkbox
                size="small"
                checked={methods?.[zone] !== undefined}
                onChange={(event) => {
                  const next = { ...methods }
                  if (event.target.checked) next[zone] = { method: methodsFor[zone][0]!, reason: '' }
                  else delete next[zone]
                  setValue('methods', next, { shouldDirty: true })
                }}
              />
            }
          />
          {methods?.[zone] && (
            <>
              <ChoiceEntry
                name={`methods.${zone}.method`}
                label="Method"
                about={zoneNames[zone]}
                options={methodsFor[zone].map((method) => ({ value: method, label: methodNames[method] }))}
              />
              <TextEntry name={`methods.${zone}.reason`} label="Why" about={zoneNames[zone]} />
            </>
          )}
        </FieldRow>
      ))}
    </fieldset>
  )
}
