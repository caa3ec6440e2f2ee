import 'server-only'
import { approveSchema, pinSchema, slipsOf, visitNumber, type ApproveInput, type PinInput } from '@/core/plan'
import { showDay } from '@/core/calendar'
import { check, conflict, notFound } from '@/core/problem'
import { suppliesOf } from '@/core/stores'
import { derived, write } from '@/db/house'
import { sheets } from '@/db/sheets'
import { visits } from '@/db/plan'
import { editRow, now, ourCompany, present, requirePermission, type Actor } from '../house'
import { loadBook } from '../stores'
import { notApproved } from './booking'
import { loadBooked } from './fleet'

/**
 * Approves visits, or takes the approval back: all of them or none. An approved visit stays where it is, whatever is
 * proposed; its parts stay reserved, and its special tools are spoken for.
 *
 * @throws `conflict` where one is not as it was read, is over, or is being worked on; nothing is changed then
 */
export async function approveVisits(actor: Actor, input: ApproveInput): Promise<{ approved: number }> {
  requirePermission(actor, 'visits.plan')
  const { visits: asked, approve } = check(approveSchema, input)
  const { today } = present(await ourCompany())
  return write(async () => {
    for (const { id, version } of asked) {
      const row = await visits.byId(id)
      if (!row) throw notFound('This visit')
      const name = `Visit ${visitNumber(row.number)}`
      if (row.state !== (approve ? 'booked' : 'approved'))
        throw conflict(
          approve
            ? `${name} is ${row.state === 'approved' ? 'approved already' : 'over, or being worked on'}. Nothing was approved.`
            : `${name} is not approved.`,
        )
      if (approve && row.day < today)
        throw conflict(`The day of visit ${visitNumber(row.number)} has passed: plan it anew first.`)
      const sheet = await sheets.find({ visitId: id, state: ['open', 'signed'] })
      if (sheet) throw conflict(`${name} has a sheet already. Nothing was approved.`)
      await editRow(
        actor,
        visits,
        { entity: 'visit', name: name.toLowerCase() },
        { id, version },
        approve
          ? { state: 'approved', approvedById: actor.id, approvedAt: now() }
          : { state: 'booked', ...notApproved },
        {
          machineId: row.machineId,
          assemblyId: row.items[0]?.assemblyId ?? null,
          action: approve ? 'approved' : 'changed',
          summary: approve
            ? `${name} approved for ${showDay(row.day, today)}`
            : `Approval of visit ${visitNumber(row.number)} taken back`,
        },
      )
    }
    return { approved: asked.length }
  })
}

/** Holds a visit where it is, or lets it go: no plan moves one that is held. */
export async function pinVisit(actor: Actor, input: PinInput): Promise<void> {
  requirePermission(actor, 'visits.plan')
  const { id, version, pinned } = check(pinSchema, input)
  await write(async () => {
    const row = await visits.byId(id)
    if (!row) throw notFound('This visit')
    await editRow(
      actor,
      visits,
      { entity: 'visit', name: `visit ${visitNumber(row.number)}` },
      { id, version },
      { pinned: pinned ? 1 : 0 },
      {
        machineId: row.machineId,
        assemblyId: row.items[0]?.assemblyId ?? null,
        action: 'changed',
        summary: `Visit ${visitNumber(row.number)} ${pinned ? 'held where it is' : 'may be moved by plans again'}`,
      },
    )
  })
}

/** Plans look so many weeks ahead for what no longer fits. */
const weeksAhead = 12

/** What speaks against approving some visits as they are: by visit, in words; nothing where all is well. */
export async function approvalDoubts(actor: Actor, ids: readonly string[]): Promise<Map<string, string[]>> {
  const [fleet, book] = await Promise.all([loadBooked(actor, weeksAhead), loadBook()])
  const slips = derived('slips', [fleet], () => slipsOf(fleet))
  const supplies = suppliesOf(book)
  const rows = await visits.all({ id: [...ids] })
  return new Map(
    rows.map((row) => {
      return [
        row.id,
        [
          ...(slips.find(({ visitId }) => visitId === row.id)?.says ?? []),
          ...supplies
            .filter(({ visitId, missing }) => visitId === row.id && missing > 0)
            .map(
              ({ partId, missing }) =>
                `${book.parts.get(partId)?.number ?? 'A part'}: ${missing} missing on that day.`,
            ),
        ],
      ]
    }),
  )
}
