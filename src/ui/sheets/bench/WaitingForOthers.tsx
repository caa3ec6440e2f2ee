'use client'

import { useState } from 'react'
import { Button } from '../../frame/Button'
import { Note } from '../../feedback/States'
import { AskDialog } from './AskDialog'
import type { Author, Queued } from './queue'
import { entryCounts } from '../words'

type Props = {
  /** What waits on this device and is not of whoever is signed in. */
  waiting: Queued[]
  author: Author
  people: Author[]
  mayTakeIn: boolean
  claim: (ids: string[], author: Author) => Promise<void>
  takeIn: (authorId: string, why: string) => Promise<string | null>
}

/** Entries of other people on a tablet that several share: whose they are, and what becomes of them. */
export function WaitingForOthers({ waiting, author, people, mayTakeIn, claim, takeIn }: Props) {
  const [taking, setTaking] = useState<Author | null>(null)
  const [asking, setAsking] = useState(false)
  const without = waiting.filter((entry) => entry.authorId === '')
  const authors = [...new Map(waiting.map((entry) => [entry.authorId, entry.authorName]))].filter(
    ([id]) => id !== '',
  )
  return (
    <>
      {authors.map(([id, name]) => {
        const own = waiting.filter((entry) => entry.authorId === id)
        const refused = own.filter((entry) => entry.refused !== '')
        return (
          <Note key={id} tone="brass" title={`${name}: ${entryCounts(own)} wait on this device.`}>
            They are {name}’s and are not counted here. They are sent as soon as {name} signs in on this
            device.
            {refused.map((entry) => (
              <span key={entry.id} className="block oxide">
                Not kept: {entry.refused}
              </span>
            ))}
            {mayTakeIn && refused.length < own.length && (
              <div className="actions">
                <Button variant="outlined" onClick={() => setTaking({ id, name })}>
                  Take them in for {name}
                </Button>
              </div>
            )}
          </Note>
        )
      })}
      {without.length > 0 && (
        <Note
          tone="brass"
          title={`${entryCounts(without)} wait on this device, from before it kept who made them.`}
        >
          They are sent once somebody says whose they are.
          <div className="actions">
            <Button
              variant="outlined"
              onClick={() =>
                void claim(
                  without.map(({ id }) => id),
                  author,
                )
              }
            >
              They are mine, {author.name}’s
            </Button>
            <Button variant="outlined" onClick={() => setAsking(true)}>
              They are somebody else’s
            </Button>
          </div>
        </Note>
      )}
      {taking && (
        <AskDialog
          title={`Take in for ${taking.name}`}
          intro={
            <p className="second">
              The entries stay {taking.name}’s. The record names you beside every one of them, with your
              reason. Where {taking.name} can still sign in on this device, let them send their own.
            </p>
          }
          fields={[{ name: 'why', label: `Why ${taking.name} cannot send them` }]}
          submit="Take them in"
          onClose={() => setTaking(null)}
          send={({ why }) => takeIn(taking.id, why ?? '')}
        />
      )}
      {asking && (
        <AskDialog
          title="Whose are they?"
          intro={
            <p className="second">
              They wait for that person to sign in on this device; nobody else can send them.
            </p>
          }
          fields={[
            {
              name: 'who',
              label: 'Made by',
              options: people.filter(({ id }) => id !== author.id).map(({ name }) => name),
            },
          ]}
          submit="They wait for them"
          onClose={() => setAsking(false)}
          send={async ({ who }) => {
            const person = people.find(({ name }) => name === who)
            if (!person) return 'Choose who made them.'
            await claim(
              without.map(({ id }) => id),
              person,
            )
            return null
          }}
        />
      )}
    </>
  )
}
