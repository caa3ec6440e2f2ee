'use client'

import FormHelperText from '@mui/material/FormHelperText'
import OutlinedInput, { type OutlinedInputProps } from '@mui/material/OutlinedInput'
import type { ReactNode } from 'react'

type FrameProps = {
  id: string
  label: string
  /** What the field is about, for those who do not see what stands beside it. */
  about?: string
  hint?: string
  error?: string
  optional?: boolean
  children: ReactNode
}

/** Label above, control, then its error or its hint, tied together for screen readers. */
export function FieldFrame({ id, label, about, hint, error, optional, children }: FrameProps) {
  return (
    <div className="field">
      <label htmlFor={id}>
        {label}
        {about && <span className="visually-hidden">, {about}</span>}
        {optional && <span className="second"> · optional</span>}
      </label>
      {children}
      {(error || hint) && (
        <FormHelperText id={`${id}-help`} error={Boolean(error)} role={error ? 'alert' : undefined}>
          {error || hint}
        </FormHelperText>
      )}
    </div>
  )
}

export function TextInput(props: OutlinedInputProps & { id: string }) {
  return (
    <OutlinedInput
      fullWidth
      {...props}
      inputProps={{ 'aria-describedby': `${props.id}-help`, ...props.inputProps }}
    />
  )
}

export type Option = { value: string; label: string; disabled?: boolean }

/** The platform's own list: works with keyboard, touch and screen readers alike. */
export function SelectInput({
  options,
  placeholder,
  ...props
}: OutlinedInputProps & { id: string; options: Option[]; placeholder?: string }) {
  return (
    <OutlinedInput
      fullWidth
      {...props}
      inputComponent={NativeSelect as never}
      inputProps={
        { 'aria-describedby': `${props.id}-help`, options, placeholder, ...props.inputProps } as never
      }
    />
  )
}

function NativeSelect({
  options,
  placeholder,
  className,
  ref,
  ...props
}: React.SelectHTMLAttributes<HTMLSelectElement> & {
  options: Option[]
  placeholder?: string
  ref?: React.Ref<HTMLSelectElement>
}) {
  return (
    <select ref={ref} className={`${className ?? ''} native-select`} {...props}>
      {placeholder !== undefined && <option value="">{placeholder}</option>}
      {options.map((option) => (
        <option key={option.value} value={option.value} disabled={option.disabled}>
          {option.label}
        </option>
      ))}
    </select>
  )
}
