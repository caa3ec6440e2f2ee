'use client'

import { useState } from 'react'
import type { PasswordChangeInput } from '@/core/access'
import type { Outcome } from '@/core/problem'
import { Button } from '../frame/Button'
import { useToast } from '../feedback/Toasts'
import { FieldRow, TextEntry } from '../forms/entries'
import { EntryForm } from '../forms/EntryForm'
import { Part } from '../frame/Page'
import { ThemeChoice } from '../theme/ThemeChoice'

type Props = {
  change: (input: PasswordChangeInput) => Promise<Outcome>
  signOut: () => Promise<void>
  signOutEverywhere: () => Promise<void>
}

export function YouPart({ change, signOut, signOutEverywhere }: Props) {
  const toast = useToast()
  const [round, setRound] = useState(0)
  return (
    <div className="stack narrow">
      <Part title="Look of this device">
        <ThemeChoice />
      </Part>
      <Part title="Password" aside="ends your sessions on other devices">
        <EntryForm
          key={round}
          schema="passwordChangeSchema"
          values={{ current: '', next: '' }}
          action={change}
          onDone={() => {
            setRound(round + 1)
            toast('Your password is changed; other devices are signed out.')
          }}
          submit="Change password"
        >
          <FieldRow>
            <TextEntry
              name="current"
              label="Present password"
              type="password"
              autoComplete="current-password"
            />
            <TextEntry name="next" label="New password" type="password" autoComplete="new-password" />
          </FieldRow>
        </EntryForm>
      </Part>
      <Part title="Devices">
        <div className="actions">
          <form action={signOut}>
            <Button type="submit" variant="outlined">
              Sign out here
            </Button>
          </form>
          <form action={signOutEverywhere}>
            <Button type="submit" variant="outlined">
              Sign out on every device
            </Button>
          </form>
        </div>
      </Part>
    </div>
  )
}
