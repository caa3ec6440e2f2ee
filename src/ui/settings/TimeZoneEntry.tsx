'use client'

import { ChoiceEntry } from '../forms/entries'

export function TimeZoneEntry({ name, timeZones }: { name: string; timeZones: string[] }) {
  return (
    <ChoiceEntry
      name={name}
      label="Time zone"
      placeholder="Choose a time zone"
      options={timeZones.map((zone) => ({ value: zone, label: zone.replaceAll('_', ' ') }))}
    />
  )
}
