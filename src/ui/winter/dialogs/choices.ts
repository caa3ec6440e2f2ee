import type { Option } from '../../forms/FieldFrame'

/** A number as a form starts with it. */
export const typed = (value: number | null | undefined) => (value == null ? '' : value) as never

export const yesNo: Option[] = [
  { value: 'true', label: 'Yes' },
  { value: 'false', label: 'No' },
]
