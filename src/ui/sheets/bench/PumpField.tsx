import type { SheetAssembly } from '@/core/sheets'
import { FieldFrame, SelectInput } from '../../forms/FieldFrame'

type Props = {
  id: string
  assemblies: SheetAssembly[]
  value: string
  onChange: (assemblyId: string) => void
}

/** On which pump of the sheet; nothing where it has one. */
export function PumpField({ id, assemblies, value, onChange }: Props) {
  if (assemblies.length < 2) return null
  return (
    <FieldFrame id={id} label="On">
      <SelectInput
        id={id}
        options={assemblies.map((each) => ({ value: each.id, label: `${each.number} ${each.title}` }))}
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
    </FieldFrame>
  )
}
