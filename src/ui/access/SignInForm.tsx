'use client'

import { useRouter } from 'next/navigation'
import { useFormContext } from 'react-hook-form'
import type { SignInInput } from '@/core/access'
import type { Outcome } from '@/core/problem'
import { Button } from '../frame/Button'
import { Note } from '../feedback/States'
import { TextEntry } from '../forms/entries'
import { EntryForm } from '../forms/EntryForm'

type Account = { name: string; signInName: string; password: string; role: string }
type Props = { action: (input: SignInInput) => Promise<Outcome>; next: string; accounts: Account[] }

export function SignInForm({ action, next, accounts }: Props) {
  const router = useRouter()
  return (
    <EntryForm
      schema="signInSchema"
      values={{ signInName: '', password: '' }}
      action={action}
      onDone={() => {
        router.replace(next)
        router.refresh()
      }}
      submit="Sign in"
      after={accounts.length > 0 && <DemoAccounts accounts={accounts} />}
    >
      <TextEntry name="signInName" label="Sign-in name" autoFocus autoComplete="username" />
      <TextEntry name="password" label="Password" type="password" autoComplete="current-password" />
    </EntryForm>
  )
}

function DemoAccounts({ accounts }: { accounts: Account[] }) {
  const { setValue } = useFormContext<SignInInput>()
  return (
    <Note title="This is the demo.">
      Everything in it is invented. Choose who to be, then sign in:
      <ul className="line-list">
        {accounts.map((account) => (
          <li key={account.signInName}>
            <span className="grow">
              <span className="strong">{account.name}</span> <span className="second">{account.role}</span>
            </span>
            <Button
              variant="outlined"
              onClick={() => {
                setValue('signInName', account.signInName)
                setValue('password', account.password)
              }}
            >
              Be {account.name}
            </Button>
          </li>
        ))}
      </ul>
    </Note>
  )
}
