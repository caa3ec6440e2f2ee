'use client'

import { meterKinds } from '@/core/hours'
import { ChoiceEntry, FieldRow, options, TextEntry } from '../forms/entries'

/** A meter's name and face. */
export function MeterFields({ prefix = '' }: { prefix?: string }) {
  return (
    <>
      <FieldRow>
        <ChoiceEntry name={`${prefix}kind`} label="Counts" options={options(meterKinds)} />
        <TextEntry name={`${prefix}name`} label="Meter name" />
      </FieldRow>
      <FieldRow>
        <TextEntry
          name={`${prefix}digits`}
          label="Digits before the point"
          inputMode="numeric"
          optional
          hint="Tells a roll-over from a slip"
        />
        <ChoiceEntry
          name={`${prefix}decimals`}
          label="Decimals shown"
          options={[
            { value: '0', label: 'None (1234)' },
            { value: '1', label: 'One (1234.5)' },
            { value: '2', label: 'Two (1234.56)' },
          ]}
        />
        <TextEntry
          name={`${prefix}readingIntervalDays`}
          label="Read at least every"
          inputMode="numeric"
          unit="days"
        />
      </FieldRow>
    </>
  )
}
