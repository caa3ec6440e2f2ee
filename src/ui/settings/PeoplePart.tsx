'use client'

import { v7 as uuid } from 'uuid'
import { fieldName } from '@/core/fleet'
import { roleNames, type PersonInput, type Role } from '@/core/access'
import type { Outcome } from '@/core/problem'
import { Button } from '../frame/Button'
import { useConfirm } from '../forms/Confirm'
import { useToast } from '../feedback/Toasts'
import { DialogForm } from '../forms/DialogForm'
import { ChoiceEntry, FieldRow, options, TextEntry } from '../forms/entries'
import { DataTable, type Column } from '../table/DataTable'

type PersonLine = {
  id: string
  name: string
  signInName: string
  role: Role
  retiredOn: string | null
  version: number
}
type Actions = {
  add: (input: PersonInput) => Promise<Outcome>
  save: (input: PersonInput) => Promise<Outcome>
  revoke: (id: string) => Promise<Outcome>
  setLeft: (input: { id: string; version: number; left: boolean }) => Promise<Outcome>
}

export function PeoplePart({ people, actions }: { people: PersonLine[]; actions: Actions }) {
  const columns: Column<PersonLine>[] = [
    { name: 'Name', by: (row) => row.name, cell: (row) => <span className="strong">{row.name}</span> },
    { name: 'Signs in as', by: (row) => row.signInName, cell: (row) => row.signInName },
    { name: 'Role', by: (row) => row.role, cell: (row) => (row.retiredOn ? 'left' : roleNames[row.role]) },
    { name: '', cell: (row) => <PersonActions person={row} actions={actions} /> },
  ]
  return (
    <div className="stack">
      <div>
        <DialogForm
          label="Add person"
          look="contained"
          title="Let somebody sign in"
          schema="newPersonSchema"
          start={(): PersonInput => ({
            id: uuid(),
            name: '',
            signInName: '',
            role: 'technician',
            password: '',
          })}
          action={actions.add}
          submit="Add person"
          done="They can sign in now."
        >
          <PersonFields
            passwordLabel="First password"
            passwordHint="Tell them in person; they can change it under You"
          />
        </DialogForm>
      </div>
      <DataTable
        caption="People"
        rows={people}
        columns={columns}
        rowKey={(row) => row.id}
        receding={(row) => row.retiredOn !== null}
      />
    </div>
  )
}

function PersonFields({ passwordLabel, passwordHint }: { passwordLabel: string; passwordHint: string }) {
  return (
    <>
      <FieldRow>
        <TextEntry name="name" label="Name" autoFocus />
        <TextEntry name="signInName" label="Sign-in name" />
      </FieldRow>
      <FieldRow>
        <ChoiceEntry
          name="role"
          label="Role"
          options={options(roleNames)}
          hint="Coordinators change everything, technicians enter readings and work sheets, viewers look"
        />
        <TextEntry
          name="password"
          label={passwordLabel}
          type="password"
          autoComplete="new-password"
          hint={passwordHint}
        />
      </FieldRow>
    </>
  )
}

function PersonActions({ person, actions }: { person: PersonLine; actions: Actions }) {
  const confirm = useConfirm()
  const toast = useToast()
  const { id, name, version } = person
  const setLeft = async (left: boolean, at: number) => {
    const outcome = await actions.setLeft({ id, version: at, left })
    return outcome.ok ? undefined : outcome.problem.message
  }
  if (person.retiredOn) {
    return (
      <Button
        variant="text"
        onClick={() =>
          void setLeft(false, version).then((problem) => toast(problem ?? `${name} may sign in again.`))
        }
      >
        Let {name} sign in again
      </Button>
    )
  }
  return (
    <div className="cell-actions">
      <DialogForm
        label="Edit"
        title={`Edit ${name}`}
        schema="personSchema"
        start={(): PersonInput => ({
          id,
          version,
          name,
          signInName: person.signInName,
          role: person.role,
          password: '',
        })}
        action={actions.save}
        submit="Save person"
        done={`${name} is saved.`}
        fieldName={fieldName}
      >
        <PersonFields passwordLabel="New password" passwordHint="Leave blank to keep the present one" />
      </DialogForm>
      <Button
        variant="text"
        onClick={() =>
          confirm({
            title: `Sign ${name} out everywhere?`,
            consequence:
              'Every phone and tablet they are signed in on asks for the password again, at once. Use this for a lost device.',
            action: `Sign ${name} out`,
            run: async () => {
              const outcome = await actions.revoke(id)
              if (!outcome.ok) return outcome.problem.message
              toast(`${name} is signed out on every device.`)
              return undefined
            },
          })
        }
      >
        Sign out everywhere
      </Button>
      <Button
        variant="text"
        onClick={() =>
          confirm({
            title: `Has ${name} left?`,
            consequence: `${name} can no longer sign in. Everything they recorded keeps their name.`,
            action: `${name} has left`,
            run: async () => {
              const problem = await setLeft(true, version)
              if (!problem) toast(`${name} can no longer sign in.`, () => void setLeft(false, version + 1))
              return problem
            },
          })
        }
      >
        Has left
      </Button>
    </div>
  )
}
