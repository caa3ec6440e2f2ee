'use client'

import { v7 as uuid } from 'uuid'
import { visitNumber } from '@/core/plan'
import {
  actsFrom,
  showAmount,
  stockActs,
  stockStates,
  type ExtendInput,
  type HeldLine,
  type MoveInput,
  type OpenBottleInput,
  type OpenKitInput,
  type ShelfGroup,
  type StockAct,
} from '@/core/stores'
import { problemWords, type Outcome } from '@/core/problem'
import { useToast } from '../feedback/Toasts'
import { useConfirm } from '../forms/Confirm'
import { DialogForm } from '../forms/DialogForm'
import { ChoiceEntry, FieldRow, TextEntry } from '../forms/entries'
import type { Option } from '../forms/FieldFrame'

type Props = {
  part: {
    id: string
    number: string
    unit: string
    isKit: boolean
    openedMonths: number
    shelfGroup: ShelfGroup
  }
  lots: { id: string; number: number; expired: boolean; openedOn: string | null; held: HeldLine[] }[]
  places: Option[]
  mayMove: boolean
  mayExtend: boolean
  actions: {
    move: (input: MoveInput) => Promise<Outcome>
    openKit: (input: OpenKitInput) => Promise<Outcome<{ lots: number[] }>>
    openBottle: (input: OpenBottleInput) => Promise<Outcome>
    extend: (input: ExtendInput) => Promise<Outcome<{ until: string }>>
  }
}

/** Where each lot lies and in what state, with what can be done with it there. */
export function HeldList({ part, lots, places, mayMove, mayExtend, actions }: Props) {
  const confirm = useConfirm()
  const toast = useToast()
  const isRubber = part.shelfGroup === 'A' || part.shelfGroup === 'B' || part.shelfGroup === 'C'
  const said = (outcome: Outcome<unknown>) => (outcome.ok ? undefined : problemWords(outcome.problem))
  return (
    <ul className="line-list">
      {lots.flatMap((lot) =>
        lot.held.map((held) => (
          <li key={`${held.lotId} ${held.placeId} ${held.state} ${held.visitId}`}>
            <span className="grow">
              <span className="strong nowrap">{showAmount(held.quantity, part.unit)}</span> of lot{' '}
              {lot.number}{' '}
              <span className={held.state === 'quarantine' ? 'brass' : 'second'}>
                {stockStates[held.state]}, {held.place}
                {held.visit !== null && `, for visit ${visitNumber(held.visit)}`}
              </span>
            </span>
            {mayMove && part.isKit && held.state === 'shelf' && (
              <button
                type="button"
                className="plain-button"
                aria-label={`Open one kit of lot ${lot.number}`}
                onClick={() =>
                  confirm({
                    title: `Open one ${part.number} of lot ${lot.number}`,
                    consequence:
                      'It is no kit any more: its pieces are loose stock from now on, good as long as the first of them.',
                    action: 'Open it',
                    run: async () => {
                      const outcome = await actions.openKit({
                        id: uuid(),
                        lotId: lot.id,
                        placeId: held.placeId,
                      })
                      if (outcome.ok) toast(`Opened: lots ${outcome.data.lots.join(', ')}.`)
                      return said(outcome)
                    },
                  })
                }
              >
                Open one
              </button>
            )}
            {mayMove && part.openedMonths > 0 && lot.openedOn === null && held.state === 'shelf' && (
              <button
                type="button"
                className="plain-button"
                onClick={() =>
                  confirm({
                    title: `Open lot ${lot.number}`,
                    consequence: `Once it is open it keeps ${part.openedMonths} months at most.`,
                    action: 'Open it',
                    run: async () => said(await actions.openBottle({ id: uuid(), lotId: lot.id })),
                  })
                }
              >
                Open it
              </button>
            )}
            {mayExtend && lot.expired && isRubber && held.state !== 'picked' && (
              <DialogForm
                label="Looked at"
                look="text"
                title={`Lot ${lot.number} may lie longer`}
                schema="extendSchema"
                start={(): ExtendInput => ({ id: uuid(), lotId: lot.id, reason: '' })}
                action={actions.extend}
                submit="Lengthen it once"
                done="It is good for longer, by its group."
              >
                <p>
                  By its group rubber may lie longer once, where somebody qualified has looked at it: no
                  cracks, no sticking, no hardening. The maker’s word goes before this one.
                </p>
                <TextEntry name="reason" label="Who looked at it, and what was found" autoFocus />
              </DialogForm>
            )}
            {mayMove && (
              <DialogForm
                label="Move"
                look="text"
                title={`Lot ${lot.number}, ${stockStates[held.state]}, ${held.place}`}
                schema="moveStockSchema"
                start={(): MoveInput => ({
                  id: uuid(),
                  partId: part.id,
                  lotId: held.lotId,
                  placeId: held.placeId,
                  state: held.state,
                  visitId: held.visitId,
                  act: startAct(held),
                  quantity: held.quantity,
                  toPlaceId: '',
                  reason: '',
                })}
                action={actions.move}
                submit="Move it"
                done="It stands on record."
              >
                <FieldRow>
                  <ChoiceEntry
                    name="act"
                    label="What is done"
                    options={actsFrom(held.state)
                      .filter((act) => act !== 'pick')
                      .map((act) => ({ value: act, label: stockActs[act].name }))}
                  />
                  <TextEntry name="quantity" label="How much" inputMode="decimal" />
                </FieldRow>
                <ChoiceEntry
                  name="toPlaceId"
                  label="Where to"
                  placeholder="it stays where it is"
                  options={places.filter((place) => place.value !== held.placeId)}
                />
                <TextEntry
                  name="reason"
                  label="Why"
                  hint="Wanted where something is set aside, returned or thrown away"
                  optional
                />
              </DialogForm>
            )}
          </li>
        )),
      )}
    </ul>
  )
}

const startAct = ({ state }: HeldLine): StockAct =>
  state === 'shelf'
    ? 'transfer'
    : state === 'quarantine'
      ? 'sendBack'
      : state === 'back'
        ? 'shelve'
        : 'bringBack'
