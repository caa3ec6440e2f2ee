'use client'

import FormControlLabel from '@mui/material/FormControlLabel'
import FormHelperText from '@mui/material/FormHelperText'
import Radio from '@mui/material/Radio'
import RadioGroup from '@mui/material/RadioGroup'
import { useController, useFormContext } from 'react-hook-form'
import { unitsOf, type Dimension } from '@/core/units'
import { DayInput, TimeInput } from './DayInput'
import { FieldFrame, SelectInput, TextInput, type Option } from './FieldFrame'

type Common = { name: string; label: string; about?: string; hint?: string; optional?: boolean }

/** The value a field holds and the sentence that is wrong with it. */
function useEntry(name: string) {
  const { control } = useFormContext()
  const { field, fieldState } = useController({ name, control })
  const own = fieldState.error as { message?: string; root?: { message?: string } } | undefined
  return { field, error: own?.message ?? own?.root?.message ?? '' }
}

type TextEntryProps = Common & {
  type?: 'text' | 'password' | 'date' | 'time'
  multiline?: boolean
  autoFocus?: boolean
  autoComplete?: string
  inputMode?: 'decimal' | 'numeric' | 'text'
  placeholder?: string
  unit?: string
  onInput?: (value: string) => void
}

export function TextEntry({
  name,
  label,
  about,
  hint,
  optional,
  type = 'text',
  unit,
  onInput,
  ...input
}: TextEntryProps) {
  const { field, error } = useEntry(name)
  const id = `field-${name}`
  if (type === 'date' || type === 'time') {
    const Input = type === 'date' ? DayInput : TimeInput
    return (
      <FieldFrame id={id} label={label} about={about} hint={hint} error={error} optional={optional}>
        <Input
          id={id}
          name={name}
          label={about ? `${label}, ${about}` : label}
          value={field.value ?? ''}
          onChange={(value) => {
            field.onChange(value)
            onInput?.(value)
          }}
          onBlur={field.onBlur}
          inputRef={field.ref}
          error={error !== ''}
          autoFocus={input.autoFocus}
          autoComplete="off"
        />
      </FieldFrame>
    )
  }
  return (
    <FieldFrame id={id} label={label} about={about} hint={hint} error={error} optional={optional}>
      <TextInput
        id={id}
        name={name}
        type={type}
        value={field.value ?? ''}
        onChange={(event) => {
          field.onChange(event.target.value)
          onInput?.(event.target.value)
        }}
        onBlur={field.onBlur}
        inputRef={field.ref}
        error={error !== ''}
        multiline={input.multiline}
        minRows={input.multiline ? 3 : undefined}
        autoFocus={input.autoFocus}
        autoComplete={input.autoComplete ?? 'off'}
        placeholder={input.placeholder}
        endAdornment={unit ? <span className="unit">{unit}</span> : undefined}
        inputProps={{ inputMode: input.inputMode }}
      />
    </FieldFrame>
  )
}

export function ChoiceEntry({
  name,
  label,
  about,
  hint,
  optional,
  options,
  placeholder,
}: Common & { options: Option[]; placeholder?: string }) {
  const { field, error } = useEntry(name)
  const id = `field-${name}`
  return (
    <FieldFrame id={id} label={label} about={about} hint={hint} error={error} optional={optional}>
      <SelectInput
        id={id}
        name={name}
        options={options}
        placeholder={placeholder}
        value={field.value ?? ''}
        onChange={field.onChange}
        onBlur={field.onBlur}
        inputRef={field.ref}
        error={error !== ''}
      />
    </FieldFrame>
  )
}

/** A choice among few, all of them visible. */
export function RadioEntry({ name, label, hint, options }: Common & { options: Option[] }) {
  const { field, error } = useEntry(name)
  return (
    <fieldset className="field radio-field">
      <legend>{label}</legend>
      <RadioGroup name={name} value={field.value ?? ''} onChange={field.onChange} onBlur={field.onBlur}>
        {options.map((option) => (
          <FormControlLabel
            key={option.value}
            value={option.value}
            label={option.label}
            disabled={option.disabled}
            control={<Radio size="small" />}
          />
        ))}
      </RadioGroup>
      {(error || hint) && (
        <FormHelperText error={error !== ''} role={error ? 'alert' : undefined}>
          {error || hint}
        </FormHelperText>
      )}
    </fieldset>
  )
}

/** A number and its unit, kept as typed. */
export function QuantityEntry({ name, label, hint, optional, dimension }: Common & { dimension: Dimension }) {
  const { field, error } = useEntry(name)
  const id = `field-${name}`
  const value = (field.value ?? { value: '', unit: unitsOf(dimension)[0] }) as {
    value: string | number
    unit: string
  }
  return (
    <FieldFrame id={id} label={label} hint={hint} error={error} optional={optional}>
      <div className="quantity">
        <TextInput
          id={id}
          name={name}
          value={value.value}
          inputRef={field.ref}
          onBlur={field.onBlur}
          onChange={(event) => field.onChange({ ...value, value: event.target.value })}
          error={error !== ''}
          autoComplete="off"
          inputProps={{ inputMode: 'decimal' }}
        />
        <SelectInput
          id={`${id}-unit`}
          options={unitsOf(dimension).map((unit) => ({ value: unit, label: unit }))}
          value={value.unit}
          onChange={(event) => field.onChange({ ...value, unit: event.target.value })}
          inputProps={{ 'aria-label': `Unit of ${label.toLowerCase()}` }}
        />
      </div>
    </FieldFrame>
  )
}

/** Fields side by side that wrap on narrow screens. */
export function FieldRow({ children }: { children: React.ReactNode }) {
  return <div className="field-row">{children}</div>
}

export function options(labels: Record<string, string>): Option[] {
  return Object.entries(labels).map(([value, label]) => ({ value, label }))
}
