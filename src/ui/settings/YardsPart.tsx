'use client'

import { v7 as uuid } from 'uuid'
import { fieldName, type YardInput, type YardView } from '@/core/fleet'
import type { Outcome } from '@/core/problem'
import { Button } from '../frame/Button'
import { useConfirm } from '../forms/Confirm'
import { useToast } from '../feedback/Toasts'
import { DialogForm } from '../forms/DialogForm'
import { FieldRow, TextEntry } from '../forms/entries'
import { DataTable, type Column } from '../table/DataTable'

type Props = {
  yards: YardView[]
  mayEdit: boolean
  save: (input: YardInput) => Promise<Outcome>
  remove: (id: string) => Promise<Outcome>
}

export function YardsPart({ yards, mayEdit, save, remove }: Props) {
  const columns: Column<YardView>[] = [
    {
      name: 'Yard',
      by: (row) => row.name,
      cell: (row) => (
        <>
          <span className="strong">{row.name}</span>
          {row.note && <div className="second">{row.note}</div>}
        </>
      ),
    },
    { name: 'Where', by: (row) => row.place, cell: (row) => row.place },
    { name: 'Machines in service', numeric: true, by: (row) => row.machines, cell: (row) => row.machines },
    ...(mayEdit
      ? [{ name: '', cell: (row: YardView) => <YardActions yard={row} save={save} remove={remove} /> }]
      : []),
  ]
  return (
    <div className="stack">
      {mayEdit && (
        <div>
          <YardDialog save={save} />
        </div>
      )}
      <DataTable caption="Yards" rows={yards} columns={columns} rowKey={(row) => row.id} />
    </div>
  )
}

function YardDialog({ yard, save }: { yard?: YardView; save: Props['save'] }) {
  return (
    <DialogForm
      label={yard ? 'Edit' : 'Add yard'}
      look={yard ? 'outlined' : 'contained'}
      title={yard ? `Edit ${yard.name}` : 'Add a yard'}
      schema="yardSchema"
      start={() =>
        yard
          ? { id: yard.id, version: yard.version, name: yard.name, place: yard.place, note: yard.note }
          : { id: uuid(), name: '', place: '', note: '' }
      }
      action={save}
      submit="Save yard"
      done="The yard is saved."
      fieldName={fieldName}
    >
      <FieldRow>
        <TextEntry name="name" label="Yard name" autoFocus />
        <TextEntry name="place" label="Where it is" optional />
      </FieldRow>
      <TextEntry name="note" label="Note" multiline optional />
    </DialogForm>
  )
}

function YardActions({
  yard,
  save,
  remove,
}: {
  yard: YardView
  save: Props['save']
  remove: Props['remove']
}) {
  const confirm = useConfirm()
  const toast = useToast()
  return (
    <div className="cell-actions">
      <YardDialog yard={yard} save={save} />
      <Button
        variant="text"
        onClick={() =>
          confirm({
            title: `Remove ${yard.name}?`,
            consequence: 'The yard goes for good. This works only while nothing has ever been kept there.',
            action: `Remove ${yard.name}`,
            run: async () => {
              const outcome = await remove(yard.id)
              if (!outcome.ok) return outcome.problem.message
              toast(`${yard.name} is removed.`)
              return undefined
            },
          })
        }
      >
        Remove
      </Button>
    </div>
  )
}
