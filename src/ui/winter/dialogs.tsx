'use client'

import Button from '@mui/material/Button'
import { useRouter } from 'next/navigation'
import { useRef, useState } from 'react'
import { v7 as uuid } from 'uuid'
import { showDay } from '@/core/calendar'
import {
  antifreezeSchema,
  fluidNames,
  frostNightSchema,
  methodNames,
  soldNames,
  winterNoteNames,
  winterNoteSchema,
  winterTermsSchema,
  yardClimateSchema,
  zoneNames,
  type Antifreeze,
  type AntifreezeInput,
  type FrostNightInput,
  type MinimaInput,
  type WinterNoteInput,
  type WinterTermsInput,
  type YardClimateInput,
  type Zone,
} from '@/core/winter'
import { campaignBookingSchema, type CampaignBookingInput } from '@/core/plan'
import { problemWords, type Outcome } from '@/core/problem'
import { Note } from '../feedback/States'
import { useToast } from '../feedback/Toasts'
import { DialogForm } from '../forms/DialogForm'
import { ChoiceEntry, FieldRow, options, RadioEntry, TextEntry } from '../forms/entries'
import { SelectInput, type Option } from '../forms/FieldFrame'

const typed = (value: number | null | undefined) => (value == null ? '' : value) as never
const yesNo: Option[] = [
  { value: 'true', label: 'Yes' },
  { value: 'false', label: 'No' },
]

/** What a product's own sheet states. */
export function ProductDialog({
  product,
  parts,
  currency,
  save,
}: {
  product?: Antifreeze & { id: string; version: number; partId: string | null; note: string }
  parts: Option[]
  currency: string
  save: (input: AntifreezeInput) => Promise<Outcome>
}) {
  return (
    <DialogForm
      label={product ? 'Edit' : 'Add an antifreeze'}
      look={product ? 'outlined' : 'contained'}
      title={product ? `Edit ${product.name}` : 'Add an antifreeze, as its own sheet states it'}
      schema={antifreezeSchema}
      start={() =>
        ({
          id: product?.id ?? uuid(),
          version: product?.version,
          name: product?.name ?? '',
          fluid: product?.fluid ?? 'propylene',
          sold: product?.sold ?? 'concentrate',
          contentPercent: typed(product?.contentPercent),
          freezesAtC: typed(product?.freezesAtC),
          burstsAtC: typed(product?.burstsAtC),
          packLitres: typed(product?.packLitres),
          price: product ? (product.packCents / 100).toFixed(2) : '',
          partId: product?.partId ?? '',
          note: product?.note ?? '',
        }) as AntifreezeInput
      }
      action={save}
      submit="Save"
      done="Recipes and litres follow it."
    >
      <TextEntry name="name" label="Name" />
      <FieldRow>
        <ChoiceEntry name="fluid" label="Fluid" options={options(fluidNames)} />
        <ChoiceEntry name="sold" label="Sold as" options={options(soldNames)} />
      </FieldRow>
      <FieldRow>
        <TextEntry
          name="contentPercent"
          label="Glycol in it"
          unit="vol %"
          inputMode="decimal"
          optional
          hint="A concentrate must state it"
        />
        <TextEntry name="freezesAtC" label="Freezes at, as sold" unit="°C" optional />
        <TextEntry name="burstsAtC" label="Bursts at, as sold" unit="°C" optional hint="Never planned by" />
      </FieldRow>
      <FieldRow>
        <TextEntry name="packLitres" label="Pack" unit="L" inputMode="decimal" />
        <TextEntry name="price" label="Price of a pack" unit={currency} inputMode="decimal" />
      </FieldRow>
      <ChoiceEntry
        name="partId"
        label="Part of the stores"
        options={[{ value: '', label: 'Not stocked' }, ...parts]}
      />
      <TextEntry name="note" label="Note" optional />
    </DialogForm>
  )
}

/** How the company goes about its winter. */
export function TermsDialog({
  terms,
  products,
  yards,
  currency,
  save,
}: {
  terms: WinterTermsInput
  products: Option[]
  yards: Option[]
  currency: string
  save: (input: WinterTermsInput) => Promise<Outcome>
}) {
  const weekdays = [1, 2, 3, 4, 5]
  return (
    <DialogForm
      label="Change the terms"
      title="Terms of the winter"
      schema={winterTermsSchema}
      start={() => ({
        ...terms,
        productId: terms.productId ?? ('' as never),
        crews: yards.map(
          ({ value }) =>
            terms.crews.find(({ yardId }) => yardId === value) ?? {
              yardId: value,
              people: 1,
              minutes: 240,
              days: weekdays,
            },
        ),
      })}
      action={save}
      submit="Save"
      done="The campaign follows the new terms."
    >
      <FieldRow>
        <ChoiceEntry
          name="productId"
          label="Antifreeze poured"
          options={[{ value: '', label: 'Not chosen' }, ...products]}
        />
        <TextEntry name="riskPercent" label="Accepted risk of a machine" unit="%" inputMode="decimal" />
      </FieldRow>
      <FieldRow>
        <TextEntry name="marginC" label="Margin below the design low" unit="°C" inputMode="decimal" />
        <TextEntry
          name="runOnPercent"
          label="Run on after clean colour"
          unit="% of the zone"
          inputMode="decimal"
        />
        <TextEntry name="alarmC" label="Alarm within" unit="°C of freezing" inputMode="decimal" />
      </FieldRow>
      <FieldRow>
        <TextEntry name="hourCost" label="An hour of a technician" unit={currency} inputMode="decimal" />
        <TextEntry
          name="protectorCost"
          label="A use of a screw-on protector"
          unit={currency}
          inputMode="decimal"
        />
      </FieldRow>
      <RadioEntry name="refillable" label="Protectors are refilled from your own cans" options={yesNo} />
      {yards.map(({ label }, at) => (
        <FieldRow key={label}>
          <TextEntry name={`crews.${at}.people`} label={`People in ${label}`} inputMode="decimal" />
          <TextEntry
            name={`crews.${at}.minutes`}
            label={`Minutes each a day in ${label}`}
            inputMode="numeric"
          />
        </FieldRow>
      ))}
      <TextEntry
        name="weatherUrl"
        label="Address of the weather service"
        optional
        placeholder="http://localhost:4010/outlook"
      />
    </DialogForm>
  )
}

/** What is known by heart of a yard's frost, and what its places stand. */
export function ClimateDialog({
  name,
  values,
  save,
}: {
  name: string
  values: YardClimateInput
  save: (input: YardClimateInput) => Promise<Outcome>
}) {
  return (
    <DialogForm
      label="Enter or change"
      title={`Frost of ${name}`}
      schema={yardClimateSchema}
      start={() =>
        ({
          ...values,
          firstFrost: values.firstFrost ?? '',
          firstSpreadDays: typed(values.firstSpreadDays),
          lastFrost: values.lastFrost ?? '',
          lastSpreadDays: typed(values.lastSpreadDays),
          designLowC: typed(values.designLowC),
          heatedStandsC: typed(values.heatedStandsC),
          hallStandsC: typed(values.hallStandsC),
          outdoorsStandsC: typed(values.outdoorsStandsC),
        }) as never
      }
      action={save}
      submit="Save"
      done="Risk and order of work follow it."
    >
      <p className="second">
        By heart, where there are no minima to import: the usual first and last frost of any year, and how
        many days either way two winters of three lie. Left blank, what was imported stays.
      </p>
      <FieldRow>
        <TextEntry name="firstFrost" label="First frost" type="date" optional />
        <TextEntry
          name="firstSpreadDays"
          label="First frost, either way"
          unit="days"
          inputMode="numeric"
          optional
        />
      </FieldRow>
      <FieldRow>
        <TextEntry name="lastFrost" label="Last frost" type="date" optional />
        <TextEntry
          name="lastSpreadDays"
          label="Last frost, either way"
          unit="days"
          inputMode="numeric"
          optional
        />
      </FieldRow>
      <TextEntry
        name="designLowC"
        label="Design low"
        unit="°C"
        optional
        hint="Passed in one winter of ten; blank: as computed"
      />
      <FieldRow>
        <TextEntry name="outdoorsStandsC" label="Outdoors freezes at" unit="°C" optional />
        <TextEntry name="outdoorsReason" label="Why, outdoors" optional />
      </FieldRow>
      <FieldRow>
        <TextEntry name="hallStandsC" label="Unheated hall freezes at" unit="°C outside" optional />
        <TextEntry name="hallReason" label="Why, in the hall" optional />
      </FieldRow>
      <FieldRow>
        <TextEntry
          name="heatedStandsC"
          label="Heated store freezes at"
          unit="°C outside"
          optional
          hint="Blank: never"
        />
        <TextEntry name="heatedReason" label="Why, in the heated store" optional />
      </FieldRow>
      <RadioEntry name="heatedSpace" label="Is there room in a heated hall for a night?" options={yesNo} />
    </DialogForm>
  )
}

/** A file of daily minima: all of it or nothing. */
export function MinimaImport({
  yardId,
  name,
  take,
}: {
  yardId: string
  name: string
  take: (
    input: MinimaInput,
  ) => Promise<Outcome<{ days: number; winters: number; leftOut: number; gaps: number }>>
}) {
  const router = useRouter()
  const input = useRef<HTMLInputElement>(null)
  const [unit, setUnit] = useState('')
  const [said, setSaid] = useState<{ ok: boolean; words: string } | null>(null)
  const hand = async (file: File | undefined) => {
    if (!file) return
    const outcome = await take({
      yardId,
      fileName: file.name.slice(0, 120),
      text: await file.text(),
      unit: unit === '' ? null : (unit as 'C' | 'F'),
    }).catch(() => null)
    if (!outcome) return setSaid({ ok: false, words: 'Atelier could not be reached. Nothing is changed.' })
    if (!outcome.ok)
      return setSaid({ ok: false, words: `Nothing was taken of it. ${problemWords(outcome.problem)}` })
    const { days, winters, leftOut, gaps } = outcome.data
    setSaid({
      ok: true,
      words: `${days} days taken: ${winters} whole ${winters === 1 ? 'winter' : 'winters'}${leftOut ? `, ${leftOut} left out for missing days` : ''}${gaps ? `, ${gaps} gaps` : ''}.`,
    })
    router.refresh()
  }
  return (
    <div className="stack-tight">
      <div className="winter-import">
        <input
          ref={input}
          type="file"
          accept=".csv,text/csv,text/plain"
          className="visually-hidden"
          tabIndex={-1}
          aria-label={`Minima of ${name} as a file`}
          onChange={(event) => {
            const file = event.target.files?.[0]
            event.target.value = ''
            void hand(file)
          }}
        />
        <Button variant="outlined" onClick={() => input.current?.click()}>
          Import minima
        </Button>
        <SelectInput
          id={`unit-${yardId}`}
          options={[
            { value: '', label: 'unit as the file says' },
            { value: 'C', label: '°C' },
            { value: 'F', label: '°F' },
          ]}
          value={unit}
          onChange={(event) => setUnit(event.target.value)}
          inputProps={{ 'aria-label': `Unit of the minima of ${name}` }}
        />
      </div>
      {said &&
        (said.ok ? (
          <p role="status" className="moss">
            {said.words}
          </p>
        ) : (
          <Note tone="oxide">{said.words}</Note>
        ))}
    </div>
  )
}

/** Asks the weather service now. */
export function AskWeather({ ask }: { ask: () => Promise<Outcome<{ asked: number; troubles: string[] }>> }) {
  const router = useRouter()
  const toast = useToast()
  const [busy, setBusy] = useState(false)
  return (
    <Button
      variant="outlined"
      disabled={busy}
      onClick={async () => {
        setBusy(true)
        const outcome = await ask().catch(() => null)
        setBusy(false)
        if (!outcome) return toast('Atelier could not be reached.')
        if (!outcome.ok) return toast(problemWords(outcome.problem))
        toast(outcome.data.troubles.length === 0 ? 'The outlook is fresh.' : outcome.data.troubles.join(' '))
        router.refresh()
      }}
    >
      {busy ? 'Asking …' : 'Ask for the outlook'}
    </Button>
  )
}

/** A night that was colder than anybody thought. */
export function FrostNightDialog({
  yards,
  today,
  save,
}: {
  yards: Option[]
  today: string
  save: (input: FrostNightInput) => Promise<Outcome<{ machines: number }>>
}) {
  return (
    <DialogForm
      label="It froze"
      title="A night of frost"
      schema={frostNightSchema}
      start={(): FrostNightInput => ({
        id: uuid(),
        yardId: yards[0]?.value ?? '',
        day: today,
        minC: '' as never,
      })}
      action={save}
      submit="Note it"
      done="Noted: machines that stood in it unprotected are exposed until they were looked at."
    >
      <ChoiceEntry name="yardId" label="Yard" options={yards} />
      <FieldRow>
        <TextEntry name="day" label="Morning of" type="date" />
        <TextEntry name="minC" label="Lowest" unit="°C" />
      </FieldRow>
    </DialogForm>
  )
}

/** What happened to a machine, told by hand. */
export function WinterNoteDialog({
  machineId,
  number,
  zones,
  today,
  save,
}: {
  machineId: string
  number: string
  zones: Zone[]
  today: string
  save: (input: WinterNoteInput) => Promise<Outcome>
}) {
  return (
    <DialogForm
      label="Tell what happened"
      title={`${number}: what happened`}
      schema={winterNoteSchema}
      start={(): WinterNoteInput => ({
        id: uuid(),
        machineId,
        kind: 'water',
        zone: '',
        method: '',
        day: today,
        measuredC: '' as never,
        passed: 'true' as never,
        litres: '' as never,
        words: '',
      })}
      action={save}
      submit="Note it"
      done="Noted."
    >
      <ChoiceEntry name="kind" label="What" options={options(winterNoteNames)} />
      <FieldRow>
        <ChoiceEntry
          name="zone"
          label="Zone"
          options={[
            { value: '', label: 'The whole machine' },
            ...zones.map((zone) => ({ value: zone, label: zoneNames[zone] })),
          ]}
        />
        <ChoiceEntry
          name="method"
          label="Method"
          options={[{ value: '', label: '–' }, ...options(methodNames)]}
        />
        <TextEntry name="day" label="Day" type="date" />
      </FieldRow>
      <FieldRow>
        <TextEntry name="measuredC" label="Measured" unit="°C" optional />
        <TextEntry name="litres" label="Put in" unit="L" inputMode="decimal" optional />
      </FieldRow>
      <RadioEntry name="passed" label="Did the proof pass?" options={yesNo} />
      <TextEntry name="words" label="In words" optional />
    </DialogForm>
  )
}

/** The evening's routine of a machine that works on, with one tap. */
export function EveningButton({
  machineId,
  number,
  today,
  save,
}: {
  machineId: string
  number: string
  today: string
  save: (input: WinterNoteInput) => Promise<Outcome>
}) {
  const router = useRouter()
  const toast = useToast()
  const [id] = useState(() => uuid())
  return (
    <Button
      variant="outlined"
      aria-label={`Evening routine of ${number} is done`}
      onClick={async () => {
        const outcome = await save({
          id,
          machineId,
          kind: 'evening',
          zone: '',
          method: '',
          day: today,
          measuredC: null,
          passed: false,
          litres: null,
          words: '',
        }).catch(() => null)
        if (outcome?.ok) toast(`${number}: confirmed for ${showDay(today, today)}.`)
        else toast(outcome ? problemWords(outcome.problem) : 'Atelier could not be reached.')
        router.refresh()
      }}
    >
      Done tonight
    </Button>
  )
}

/** Books a yard's order of work in one go. */
export function BookCampaign({
  yard,
  waiting,
  technicians,
  suggestedLead,
  save,
}: {
  yard: { id: string; name: string }
  /** How many machines wait and are not booked. */
  waiting: number
  technicians: Option[]
  suggestedLead: string
  save: (input: CampaignBookingInput) => Promise<Outcome<{ booked: number; left: string[] }>>
}) {
  const toast = useToast()
  return (
    <DialogForm
      label={`Book all ${waiting}`}
      title={`Book the order of work of ${yard.name}`}
      schema={campaignBookingSchema}
      start={(): CampaignBookingInput => ({
        id: uuid(),
        yardId: yard.id,
        leadId: suggestedLead,
        withDue: 'true' as never,
      })}
      action={async (input) => {
        const outcome = await save(input)
        if (outcome.ok && outcome.data.left.length > 0) toast(`Left: ${outcome.data.left.join('; ')}`)
        return outcome
      }}
      submit="Book them"
      done="Each machine is booked on its day, with its fluid reserved."
    >
      <p className="second">
        One winter visit for every machine that waits, on the day that the order has for it. Fluid is
        reserved; days and people can be changed on each visit.
      </p>
      <ChoiceEntry name="leadId" label="Technician" options={technicians} placeholder="Choose a technician" />
      <RadioEntry name="withDue" label="Take along what is due on them?" options={yesNo} />
    </DialogForm>
  )
}
