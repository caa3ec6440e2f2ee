'use client'

import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { SheetPage } from '@/core/sheets'
import { Button } from '../../frame/Button'
import { Note } from '../../feedback/States'
import { AskDialog } from '../bench/AskDialog'
import type { SheetHandle } from '../bench/useSheet'
import { clockTime } from '../words'

type Props = { sheet: SheetPage; bench: SheetHandle }

const later = 'Nobody: I come back myself'

/** Leaves the sheet, for a while or into a colleague's hands. Nothing that was ticked is lost. */
export function LeaveSheet({ sheet, bench }: Props) {
  const [asking, setAsking] = useState(false)
  const router = useRouter()
  const others = sheet.colleagues.filter(({ id }) => id !== bench.author.id)
  return (
    <>
      <Button variant="outlined" onClick={() => setAsking(true)}>
        Pause
      </Button>
      {asking && (
        <AskDialog
          title="Leave this sheet"
          intro={
            <p className="second">Everything is kept. Locks stay on until whoever set them takes them off.</p>
          }
          fields={[
            { name: 'to', label: 'Hand it to', options: [later, ...others.map(({ name }) => name)] },
            { name: 'words', label: 'What the next one must know', lines: 3, optional: true },
          ]}
          submit="Leave it"
          onClose={() => setAsking(false)}
          send={async ({ to, words }) => {
            const person = others.find(({ name }) => name === to)
            const refused = await bench.write('left', {
              toId: person?.id ?? null,
              toName: person?.name ?? '',
              words: words ?? '',
            })
            if (refused) return refused
            await bench.look()
            router.push('/sheets')
            return null
          }}
        />
      )}
    </>
  )
}

/** Whoever takes the sheet up again first reads what was left behind. */
export function TakeUp({ bench, timeZone }: { bench: SheetHandle; timeZone: string }) {
  const { left } = bench.state
  if (!left) return null
  const own = left.byId === bench.author.id
  return (
    <Note
      tone="brass"
      title={
        left.payload.toName
          ? `${left.byName} handed this sheet to ${left.payload.toName}, ${clockTime(left.at, timeZone)}.`
          : `${own ? 'You' : left.byName} left this sheet at ${clockTime(left.at, timeZone)}.`
      }
    >
      {left.payload.words || 'Nothing was said to it.'}
      <div className="actions">
        <Button variant="contained" onClick={() => void bench.write('joined', { words: '' })}>
          I take it up
        </Button>
      </div>
    </Note>
  )
}
