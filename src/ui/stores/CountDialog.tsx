'use client'

import { v7 as uuid } from 'uuid'
import { showAmount, type CountInput, type PartUnit, type PartPage } from '@/core/stores'
import type { Outcome } from '@/core/problem'
import { DialogForm } from '../forms/DialogForm'
import { TextEntry } from '../forms/entries'

type Props = { part: PartPage; count: (input: CountInput) => Promise<Outcome<{ changed: number }>> }

/** What is really in the bin, lot by lot; the book follows, and says why. */
export function CountDialog({ part, count }: Props) {
  const lots = part.lotList.filter((lot) => lot.onHand !== 0 || lot.taken !== 0)
  const shown = lots.length > 0 ? lots : part.lotList.slice(0, 1)
  return (
    <DialogForm
      label="Count this bin"
      title={`Count ${part.number} ${part.name}${part.bin ? `, bin ${part.bin}` : ''}`}
      schema="countSchema"
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
          hint={`${shouldBe(lot, part.unit)} Leave blank what you did not count.`}
        />
      ))}
      <TextEntry name="reason" label="What the count is for" />
    </DialogForm>
  )
}

/** What should lie in a bin, and why it is not what the book says. */
function shouldBe({ onHand, taken }: { onHand: number; taken: number }, unit: PartUnit): string {
  const amount = (quantity: number) => showAmount(quantity, unit)
  if (onHand < 0) return `The book had run out: ${amount(-onHand)} more were used.`
  if (taken === 0) return `The book says ${amount(onHand)}.`
  return `${amount(onHand)} should lie there: ${amount(onHand + taken)} by the book, ${amount(taken)} taken on open sheets.`
}
