'use client'

import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { morningKinds, type MorningKind } from '@/core/today'

export type Narrowed = { yard: string; kind: MorningKind | 'all'; lead: string }

type Props = {
  value: Narrowed
  yards: { id: string; name: string }[]
  /** Kinds that there are rows of, and who has any. */
  kinds: MorningKind[]
  leads: string[]
  change: (value: Narrowed) => void
}

/** Narrows the morning list to a yard, a kind, a technician. */
export function TodayFilters({ value, yards, kinds, leads, change }: Props) {
  return (
    <div className="today-filters">
      {yards.length > 1 && (
        <ToggleButtonGroup
          exclusive
          size="small"
          value={value.yard}
          aria-label="Yard"
          onChange={(_event, yard: string | null) => yard !== null && change({ ...value, yard })}
        >
          <ToggleButton value="">All yards</ToggleButton>
          {yards.map((each) => (
            <ToggleButton key={each.id} value={each.id}>
              {each.name}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      )}
      <select
        className="plain-select"
        aria-label="Kind"
        value={value.kind}
        onChange={(event) => change({ ...value, kind: event.target.value as Narrowed['kind'] })}
      >
        <option value="all">Everything</option>
        {(Object.keys(morningKinds) as MorningKind[]).map((kind) => (
          <option key={kind} value={kind}>
            {morningKinds[kind]}
            {kinds.includes(kind) ? '' : ' (none)'}
          </option>
        ))}
      </select>
      <select
        className="plain-select"
        aria-label="Technician"
        value={value.lead}
        onChange={(event) => change({ ...value, lead: event.target.value })}
      >
        <option value="">Any technician</option>
        {leads.map((name) => (
          <option key={name}>{name}</option>
        ))}
      </select>
      <span className="second">
        <kbd>↓</kbd> <kbd>↑</kbd> from row to row, <kbd>Enter</kbd> does it
      </span>
    </div>
  )
}
