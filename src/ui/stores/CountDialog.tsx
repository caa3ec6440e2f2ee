'use client'

import { v7 as uuid } from 'uuid'
import { countSchema, showAmount, type CountInput } from '@/core/parts'
import type { PartPage } from '@/core/parts/views'
import type { Outcome } from '@/core/problem/outcome'
import { DialogForm } from '../forms/DialogForm'
import { TextEntry } from '../forms/entries'

type Props = { part: PartPage; count: (input: CountInput) => Promise<Outcome<{ changed: number }>> }

/** What is really in the bin, lot by lot; the book follows, and says why. */
export function CountDialog({ part, count }: Props) {
  const lots = part.lotList.filter((lot) => lot.onHand !== 0)
  const shown = lots.length > 0 ? lots : part.lotList.slice(0, 1)
  return (
    <DialogForm
      label="Count this bin"
      title={`Count ${part.number} ${part.name}${part.bin ? `, bin ${part.bin}` : ''}`}
      schema={countSchema}
      start={(): CountInput => ({
        id: uuid(),
        partId: part.id,
        lots: shown.map((lot) => ({ lotId: lot.id, counted: '' as never })),
        reason: part.short > 0 ? 'More was used than the book had' : 'Stock-taking',
      })}
      action={count}
      submit="Set the book right"
      done="The book says what is there."
    >
      {shown.length === 0 && (
        <p className="second">It was never received. Receive what is there as a lot instead.</p>
      )}
      {shown.map((lot, index) => (
        <TextEntry
          key={lot.id}
          name={`lots.${index}.counted`}
          label={`Lot ${lot.number}${lot.code ? `, ${lot.code}` : ''}: there are`}
          unit={part.unit === 'piece' ? 'pieces' : part.unit}
          inputMode="decimal"
          hint={
            lot.onHand < 0
              ? `The book had run out: ${showAmount(-lot.onHand, part.unit)} more were used`
              : `The book says ${showAmount(lot.onHand, part.unit)}; leave blank what you did not count`
          }
        />
      ))}
      <TextEntry name="reason" label="What the count is for" />
    </DialogForm>
  )
}
