import 'server-only'
import { dayListOf, isOpen, type DayList, type DayVisit, type GoesOn } from '@/core/plan'
import { visits } from '@/db/plan'
import type { Actor } from '../house'
import { approvalDoubts } from './approving'
import { pickListsOfDay } from './pickLists'
import { goingOn } from './goingOn'
import { getVisit, listOpenVisits } from './visits'

/** One technician's day: the visits in order, what the van takes along, and what speaks against it. */
export type DayOf = {
  leadId: string
  lead: string
  visits: DayVisit[]
  /** What began before and is worked on for another day. */
  goesOn: GoesOn[]
  list: DayList
  /** By visit, in words. */
  doubts: Record<string, string[]>
}

/** The day's list of each technician who has a visit on a day, or is still on one. */
export async function dayLists(actor: Actor, day: string): Promise<DayOf[]> {
  const rows = (await visits.all({ day })).filter((row) => isOpen(row.state))
  const [picks, pages, doubts, going] = await Promise.all([
    pickListsOfDay(actor, day),
    Promise.all(rows.map((row) => getVisit(actor, row.id))),
    approvalDoubts(
      actor,
      rows.map(({ id }) => id),
    ),
    listOpenVisits(actor).then((open) => goingOn(open, day, day)),
  ])
  const own = pages
    .map((visit): DayVisit => ({ visit, pick: picks.find(({ visitId }) => visitId === visit.id)! }))
    .sort(
      (a, b) =>
        (a.visit.startTime ?? '99').localeCompare(b.visit.startTime ?? '99') ||
        a.visit.number - b.visit.number,
    )
  const leads = [
    ...new Map([...own, ...going].map(({ visit }) => [visit.leadId, visit.lead])).entries(),
  ].sort((a, b) => a[1].localeCompare(b[1]))
  return leads.map(([leadId, lead]) => {
    const theirs = own.filter(({ visit }) => visit.leadId === leadId)
    return {
      ...{ leadId, lead, visits: theirs, list: dayListOf(theirs) },
      goesOn: going.filter(({ visit }) => visit.leadId === leadId),
      doubts: Object.fromEntries(theirs.map(({ visit }) => [visit.id, doubts.get(visit.id) ?? []])),
    }
  })
}
