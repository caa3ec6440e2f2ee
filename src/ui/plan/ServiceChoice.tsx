'use client'

import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import FormHelperText from '@mui/material/FormHelperText'
import { useController } from 'react-hook-form'
import type { BookingInput, BookableClock } from '@/core/plan'
import { leftWords } from '../wear'

type Item = BookingInput['items'][number]

export const itemOf = ({ assemblyId, task, positions }: BookableClock): Item => ({
  assemblyId,
  task,
  positions,
})

type Props<Clock> = {
  clocks: Clock[]
  today: string
  /** What else there is to say beside one. */
  beside?: (clock: Clock) => string
}

/** The services of some pumps, each with its positions: all of them, or single cylinders. */
export function ServiceChoice<Clock extends BookableClock>({ clocks, today, beside }: Props<Clock>) {
  const { field, fieldState } = useController<{ items: Item[] }, 'items'>({ name: 'items' })
  const chosen = field.value
  const error = fieldState.error as { message?: string; root?: { message?: string } } | undefined
  const message = error?.message ?? error?.root?.message
  const several = new Set(clocks.map((clock) => clock.assemblyId)).size > 1
  const itemFor = (clock: BookableClock) =>
    chosen.find(
      (item) =>
        item.assemblyId === clock.assemblyId &&
        item.task === clock.task &&
        item.positions.some((position) => clock.positions.includes(position)),
    )
  const set = (clock: BookableClock, positions: string[]) => {
    const others = chosen.filter((item) => item !== itemFor(clock))
    field.onChange(positions.length === 0 ? others : [...others, { ...itemOf(clock), positions }])
  }
  return (
    <fieldset className="field radio-field" name="items">
      <legend>Services</legend>
      <div className="choices">
        {clocks.map((clock) => {
          const item = itemFor(clock)
          const name = clock.where ? `${clock.name}, ${clock.where}` : clock.name
          return (
            <div key={`${clock.assemblyId} ${clock.task} ${clock.positions.join(' ')}`}>
              <FormControlLabel
                control={
                  <Checkbox
                    size="small"
                    checked={item !== undefined}
                    indeterminate={item !== undefined && item.positions.length < clock.positions.length}
                    onChange={() => set(clock, item ? [] : clock.positions)}
                  />
                }
                label={
                  <>
                    {several && <span className="strong">{clock.pump} </span>}
                    {name}{' '}
                    <span className="second">
                      {[leftWords(clock, clock.unit, today), beside?.(clock)].filter(Boolean).join(', ')}
                    </span>
                  </>
                }
              />
              {item && clock.positions.length > 1 && (
                <div className="position-choice">
                  {clock.positions.map((position) => (
                    <FormControlLabel
                      key={position}
                      label={clock.positionNames[position] ?? position}
                      control={
                        <Checkbox
                          size="small"
                          checked={item.positions.includes(position)}
                          onChange={(event) =>
                            set(
                              clock,
                              clock.positions.filter((each) =>
                                each === position ? event.target.checked : item.positions.includes(each),
                              ),
                            )
                          }
                        />
                      }
                    />
                  ))}
                </div>
              )}
            </div>
          )
        })}
      </div>
      {message && (
        <FormHelperText error role="alert">
          {message}
        </FormHelperText>
      )}
    </fieldset>
  )
}
