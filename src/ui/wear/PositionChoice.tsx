'use client'

import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import FormHelperText from '@mui/material/FormHelperText'
import { useController } from 'react-hook-form'

/** Some of the positions of a service, each with a tick; the field is called `positions`. */
export function PositionChoice({
  positions,
  hint,
}: {
  positions: { key: string; label: string }[]
  hint?: string
}) {
  const { field, fieldState } = useController<{ positions: string[] }, 'positions'>({ name: 'positions' })
  const chosen = field.value
  return (
    <fieldset className="field radio-field">
      <legend>Positions</legend>
      <div>
        {positions.map((position) => (
          <FormControlLabel
            key={position.key}
            label={position.label}
            control={
              <Checkbox
                size="small"
                checked={chosen.includes(position.key)}
                onChange={(event) =>
                  field.onChange(
                    event.target.checked
                      ? [...chosen, position.key]
                      : chosen.filter((key) => key !== position.key),
                  )
                }
              />
            }
          />
        ))}
      </div>
      {(fieldState.error || hint) && (
        <FormHelperText error={fieldState.error !== undefined} role={fieldState.error ? 'alert' : undefined}>
          {fieldState.error?.message ?? hint}
        </FormHelperText>
      )}
    </fieldset>
  )
}
