import 'server-only'
import { v5 as uuidFrom } from 'uuid'
import {
  bookable,
  campaignBookingSchema,
  minutesOn,
  whoHasTime,
  type CampaignBookingInput,
  type VisitLine,
} from '@/core/plan'
import { check, conflict, invalid, notFound } from '@/core/problem'
import { write } from '@/db/house'
import { machines } from '@/db/fleet'
import { ourCompany, present, requirePermission, type Actor } from '../house'
import { listWear } from '../wear'
import { getWinter } from '../winter'
import { visits } from '@/db/plan'
import { bookVisit } from './booking'
import { workDays } from './goingOn'
import { loadCrew, loadPlanTerms } from './terms'
import { listOpenVisits } from './visits'

/**
 * Books the order of work of one yard: a winter visit for every machine that waits, on the day that the order
 * has for it, all or none. What is due on a machine goes along where that is asked.
 *
 * @returns how many were booked, and which were left with why
 */
export async function bookCampaign(
  actor: Actor,
  input: CampaignBookingInput,
): Promise<{ booked: number; left: string[] }> {
  requirePermission(actor, 'visits.plan')
  const { id, yardId, leadId, withDue } = check(campaignBookingSchema, input)
  const [winter, wear, open, machineRows, company] = await Promise.all([
    getWinter(actor),
    listWear(actor),
    listOpenVisits(actor),
    machines.every(),
    ourCompany(),
  ])
  const yard = winter.yards.find((each) => each.id === yardId)
  if (!yard) throw notFound('This yard')
  const waiting = yard.rows.filter((row) => row.risk !== null && row.day !== null && row.booked === null)
  if (waiting.length === 0) throw conflict(`Nothing waits in ${yard.name}: every machine is booked or done.`)
  const ready = waiting.filter(({ troubles }) => troubles.length === 0)
  const { today } = present(company)
  const hand = await handingOut(open, yardId)
  await write(async () => {
    for (const row of ready) {
      const day = row.day! < today ? today : row.day!
      const visitId = uuidFrom(row.machineId, id)
      const lead = leadId === '' ? hand.to(day, row.minutes) : leadId
      const number = machineRows.find((machine) => machine.id === row.machineId)?.number
      const due = wear
        .filter((view) => view.machineNumber === number && view.started)
        .flatMap((view) => bookable(view, open))
        .filter((clock) => clock.booked === null && clock.state !== 'healthy')
      await bookVisit(actor, {
        // Sent once more after a cut connection, the same visits are the same.
        id: visitId,
        items: withDue ? due.map(({ assemblyId, task, positions }) => ({ assemblyId, task, positions })) : [],
        winter: 'lay',
        machineId: row.machineId,
        day,
        startTime: '',
        leadId: lead,
        note: '',
      })
      const booked = await visits.byId(visitId)
      if (booked) hand.count({ ...booked, leadId: lead })
    }
  })
  return {
    booked: ready.length,
    left: waiting
      .filter(({ troubles }) => troubles.length > 0)
      .map(({ number, troubles }) => `${number}: ${troubles[0]}`),
  }
}

/** Hands visits of a yard out to whoever has the time on their day, beside what is booked. */
async function handingOut(open: readonly VisitLine[], yardId: string) {
  const [crew, { closed }, daysOf] = await Promise.all([loadCrew(), loadPlanTerms(), workDays()])
  const taken = new Map<string, number>()
  const count = (visit: Pick<VisitLine, 'day' | 'leadId' | 'minutes'>) => {
    for (const { day, minutes } of daysOf(visit)) {
      const key = `${visit.leadId} ${day}`
      taken.set(key, (taken.get(key) ?? 0) + minutes)
    }
  }
  open.forEach(count)
  return {
    count,
    to: (day: string, minutes: number): string => {
      const left = (of: string) =>
        minutesOn(
          crew.find(({ id }) => id === of),
          closed,
          day,
        ) - (taken.get(`${of} ${day}`) ?? 0)
      const found = whoHasTime(crew, { yardId, minutes }, left)
      if (found === null) throw invalid({ leadId: 'There is no technician: add one in Settings, People.' })
      return found
    },
  }
}
