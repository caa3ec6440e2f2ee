'use client'

import { useState } from 'react'
import { v7 as uuid } from 'uuid'
import { showDay } from '@/core/calendar'
import type { FeedInput, FeedView } from '@/core/plan'
import type { Outcome } from '@/core/problem'
import { Button } from '../frame/Button'
import { useConfirm } from '../forms/Confirm'
import { EmptyState, Note } from '../feedback/States'
import { useToast } from '../feedback/Toasts'
import { DialogForm } from '../forms/DialogForm'
import { ChoiceEntry, FieldRow, TextEntry } from '../forms/entries'
import type { Option } from '../forms/FieldFrame'
import { DataTable, type Column } from '../table/DataTable'

type Props = {
  feeds: FeedView[]
  yards: Option[]
  people: Option[]
  today: string
  make: (input: FeedInput) => Promise<Outcome<{ path: string }>>
  revoke: (id: string) => Promise<Outcome>
}

/** Private links that put visits and due days into an ordinary calendar. */
export function FeedsPart({ feeds, yards, people, today, make, revoke }: Props) {
  const [made, setMade] = useState<string | null>(null)
  const columns: Column<FeedView>[] = [
    { name: 'Link', by: (row) => row.name, cell: (row) => <span className="strong">{row.name}</span> },
    { name: 'Shows', by: (row) => row.of, cell: (row) => row.of },
    {
      name: 'Made',
      by: (row) => row.madeOn,
      cell: (row) => `${showDay(row.madeOn, today)}, ${row.madeBy}`,
    },
    {
      name: 'Last asked for',
      by: (row) => row.readOn ?? '',
      cell: (row) => (row.readOn ? showDay(row.readOn, today) : 'never'),
    },
    {
      name: '',
      cell: (row) =>
        row.revoked ? (
          <span className="second">
            revoked {showDay(row.revoked.day, today)}, {row.revoked.by}
          </span>
        ) : (
          <Revoke feed={row} revoke={revoke} />
        ),
    },
  ]
  return (
    <div className="stack">
      <p className="second">
        A calendar subscribes to a link and shows the booked visits and the due days of the next four months.
        Whoever has the link can read it: hand it to one person, and revoke it when it is no longer needed.
      </p>
      {made && <MadeLink link={made} />}
      <div>
        <DialogForm<FeedInput>
          label="Make a calendar link"
          look="contained"
          title="Make a calendar link"
          schema="feedSchema"
          start={() => ({ id: uuid(), name: '', yardId: '' as never, personId: '' as never })}
          action={async (input) => {
            const outcome = await make(input)
            if (outcome.ok) setMade(`${window.location.origin}${outcome.data.path}`)
            return outcome
          }}
          submit="Make the link"
          done="The link is made. Copy it now: it is not shown again."
        >
          <TextEntry name="name" label="For whose calendar" hint="Such as: office wall, M. Osei’s phone" />
          <FieldRow>
            <ChoiceEntry name="yardId" label="Yard" options={yards} placeholder="All yards" />
            <ChoiceEntry
              name="personId"
              label="Technician"
              options={people}
              placeholder="Anybody"
              hint="Then: their visits, and services handed to them"
            />
          </FieldRow>
        </DialogForm>
      </div>
      {feeds.length === 0 ? (
        <EmptyState title="No link yet">
          Make one for a yard’s wall or a technician’s phone; it keeps itself up to date.
        </EmptyState>
      ) : (
        <DataTable caption="Calendar links" rows={feeds} columns={columns} rowKey={(row) => row.id} />
      )}
    </div>
  )
}

function MadeLink({ link }: { link: string }) {
  const toast = useToast()
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(link)
      toast('The link is copied.')
    } catch {
      toast('This browser does not copy by itself here: select the link and copy it.')
    }
  }
  return (
    <Note tone="moss" title="Copy this link now; it is not shown again.">
      <input
        className="made-link"
        readOnly
        value={link}
        aria-label="Calendar link"
        onFocus={(event) => event.target.select()}
      />
      <div className="actions">
        <Button variant="outlined" onClick={() => void copy()}>
          Copy
        </Button>
      </div>
    </Note>
  )
}

function Revoke({ feed, revoke }: { feed: FeedView; revoke: Props['revoke'] }) {
  const confirm = useConfirm()
  const toast = useToast()
  const press = () =>
    confirm({
      title: `Revoke “${feed.name}”?`,
      consequence:
        'Calendars that use this link show nothing new from now on. It cannot be brought back; a new one can be made.',
      action: 'Revoke it',
      run: async () => {
        const outcome = await revoke(feed.id)
        if (!outcome.ok) return outcome.problem.message
        toast('The link is revoked.')
        return undefined
      },
    })
  return (
    <Button variant="outlined" onClick={press}>
      Revoke
    </Button>
  )
}
