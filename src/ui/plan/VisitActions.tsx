'use client'

import { fieldName } from '@/core/fleet'
import { visitNumber, type CancelInput, type VisitChangeInput, type VisitPage } from '@/core/plan'
import type { Outcome } from '@/core/problem'
import { Button } from '../frame/Button'
import { useConfirm } from '../forms/Confirm'
import { useToast } from '../feedback/Toasts'
import { DialogForm } from '../forms/DialogForm'
import { ChoiceEntry, FieldRow, TextEntry } from '../forms/entries'
import type { Option } from '../forms/FieldFrame'

type Props = {
  visit: Pick<VisitPage, 'id' | 'number' | 'day' | 'startTime' | 'leadId' | 'note' | 'version'>
  technicians: Option[]
  change: (input: VisitChangeInput) => Promise<Outcome>
  cancel: (input: CancelInput) => Promise<Outcome>
  restore: (input: { id: string; version: number }) => Promise<Outcome>
}

/** Moves a booked visit to another day or technician, or cancels it. */
export function VisitActions({ visit, technicians, change, cancel, restore }: Props) {
  const confirm = useConfirm()
  const toast = useToast()
  const { id, version } = visit
  const name = `visit ${visitNumber(visit.number)}`
  const takeBack = async () => {
    const outcome = await restore({ id, version: version + 1 })
    toast(outcome.ok ? `The ${name} stands again.` : outcome.problem.message)
  }
  return (
    <>
      <DialogForm
        label="Change"
        title={`Change ${name}`}
        schema="visitChangeSchema"
        start={(): VisitChangeInput => ({
          id,
          version,
          day: visit.day,
          startTime: visit.startTime ?? '',
          leadId: visit.leadId,
          note: visit.note,
        })}
        action={change}
        submit="Save"
        done={`The ${name} is changed.`}
        fieldName={fieldName}
      >
        <FieldRow>
          <TextEntry name="day" label="Day" type="date" />
          <TextEntry name="startTime" label="Start" type="time" optional />
          <ChoiceEntry
            name="leadId"
            label="Technician"
            options={technicians}
            placeholder="Choose a technician"
          />
        </FieldRow>
        <TextEntry name="note" label="Note" optional />
      </DialogForm>
      <Button
        variant="outlined"
        onClick={() =>
          confirm({
            title: `Cancel ${name}?`,
            consequence:
              'Its services fall back to Today as they come due. The visit stays on the record as cancelled.',
            action: `Cancel ${name}`,
            reason: 'Why is it cancelled?',
            run: async (reason) => {
              const outcome = await cancel({ id, version, reason })
              if (!outcome.ok) return outcome.problem.message
              toast(`The ${name} is cancelled.`, takeBack)
              return undefined
            },
          })
        }
      >
        Cancel visit
      </Button>
    </>
  )
}
