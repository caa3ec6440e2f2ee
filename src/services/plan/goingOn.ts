import 'server-only'
import { minutesOn, runsOver, type GoesOn, type Running, type VisitLine } from '@/core/plan'
import { loadCrew, loadPlanTerms } from './terms'

/** The days over which a visit is worked on, by the hours of its technician. */
export async function workDays(): Promise<
  (visit: Pick<VisitLine, 'day' | 'leadId' | 'minutes'>) => Running['days']
> {
  const [crew, { closed }] = await Promise.all([loadCrew(), loadPlanTerms()])
  return ({ day, leadId, minutes }) => {
    const lead = crew.find(({ id }) => id === leadId)
    return runsOver({ day, minutes, cureMinutes: 0 }, (on) => minutesOn(lead, closed, on)).days
  }
}

/**
 * What goes on, on some days, of visits that began before: work longer than its technician's day. A visit whose day
 * has passed without a sheet did not begin.
 */
export async function goingOn(visits: readonly VisitLine[], from: string, to: string): Promise<GoesOn[]> {
  const daysOf = await workDays()
  return visits
    .filter(({ late, sheet }) => !late || sheet !== null)
    .flatMap((visit) => {
      const days = daysOf(visit)
      return days.slice(1).map(({ day, minutes }) => ({ visit, day, minutes, last: days.at(-1)!.day }))
    })
    .filter(({ day }) => from <= day && day <= to)
}
