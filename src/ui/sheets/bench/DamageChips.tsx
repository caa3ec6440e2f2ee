'use client'

import type { ReactNode } from 'react'
import {
  damages,
  damagesOf,
  dispositionKeys,
  dispositions,
  extents,
  type Damage,
  type Disposition,
  type Extent,
  type FindingSort,
} from '@/core/inspection'
import { Button } from '../../frame/Button'
import { FieldFrame, SelectInput } from '../../forms/FieldFrame'

/** Everything a sort of part is looked at for, one tap each. */
export function DamageChips({
  sort,
  seen,
  onChange,
  children,
}: {
  sort: FindingSort
  seen: Damage[]
  onChange: (seen: Damage[]) => void
  /** Chips that stand before. */
  children?: ReactNode
}) {
  return (
    <div className="damage-chips" role="group" aria-label="What is seen">
      {children}
      {damagesOf[sort].map((damage) => (
        <Button
          key={damage}
          variant={seen.includes(damage) ? 'contained' : 'outlined'}
          aria-pressed={seen.includes(damage)}
          onClick={() =>
            onChange(seen.includes(damage) ? seen.filter((each) => each !== damage) : [...seen, damage])
          }
        >
          {damages[damage]}
        </Button>
      ))}
    </div>
  )
}

/** How much of it; a second tap takes it back. */
export function ExtentChips({
  extent,
  onChange,
}: {
  extent: Extent | ''
  onChange: (extent: Extent | '') => void
}) {
  return (
    <div className="extents" role="group" aria-label="How much">
      {(Object.keys(extents) as Extent[]).map((each) => (
        <Button
          key={each}
          variant={extent === each ? 'contained' : 'outlined'}
          aria-pressed={extent === each}
          onClick={() => onChange(extent === each ? '' : each)}
        >
          {extents[each]}
        </Button>
      ))}
    </div>
  )
}

/** What is decided about it. */
export function DecidedField({
  id,
  disposition,
  onChange,
}: {
  id: string
  disposition: Disposition
  onChange: (disposition: Disposition) => void
}) {
  return (
    <FieldFrame id={id} label="Decided">
      <SelectInput
        id={id}
        options={dispositionKeys.map((key) => ({ value: key, label: dispositions[key] }))}
        value={disposition}
        onChange={(event) => onChange(event.target.value as Disposition)}
      />
    </FieldFrame>
  )
}
