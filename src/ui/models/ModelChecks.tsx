'use client'

import { v7 as uuid } from 'uuid'
import { showDay } from '@/core/calendar'
import type { SettleDoubtInput } from '@/core/fleet'
import type { CheckView } from '@/core/models'
import type { Outcome } from '@/core/problem'
import { DialogForm } from '../forms/DialogForm'
import { TextEntry } from '../forms/entries'
import { PostMark } from '../graphics/PostMark'

type Props = {
  modelId: string
  checks: CheckView[]
  today: string
  /** Null for who may only read. */
  settle: ((input: SettleDoubtInput) => Promise<Outcome>) | null
}

/** What a person should look at in a model, each with its place; a doubt stays until somebody settles it. */
export function ModelChecks({ modelId, checks, today, settle }: Props) {
  return (
    <ul className="line-list" aria-label="To look at">
      {checks.map(({ path, kind, words, settled }) => (
        <li key={`${path} ${words}`}>
          <PostMark state={settled ? 'done' : kind === 'doubt' ? 'waiting' : 'atRisk'} />
          <span className="grow">
            <span className={settled ? 'second' : undefined}>{words}</span>
            <span className="second">
              {' '}
              <code>{path}</code>
            </span>
            {settled && (
              <div>
                {settled.answer}{' '}
                <span className="second">
                  {settled.by}, {showDay(settled.day, today)}
                </span>
              </div>
            )}
          </span>
          {kind === 'doubt' && !settled && settle && (
            <DialogForm
              label="Settle"
              title="Settle a doubt"
              schema="settleDoubtSchema"
              start={(): SettleDoubtInput => ({ id: uuid(), modelId, words, answer: '' })}
              action={settle}
              submit="Settle it"
              done="The doubt is settled."
            >
              <p>{words}</p>
              <TextEntry
                name="answer"
                label="What was found out, and where"
                hint="Measured on a new one; the maker’s answer of 3 Oct; page 12 of edition 3"
                autoFocus
              />
            </DialogForm>
          )}
        </li>
      ))}
    </ul>
  )
}
