import 'server-only'
import { slipsOf } from '@/core/plan'
import { suppliesOf } from '@/core/stores'
import { morningList, type TodayView } from '@/core/today'
import { derived, kept } from '@/db/house'
import { type Actor, ourCompany, present } from '../house'
import { comingNeeds, loadBook, listStock } from '../stores'
import { listOpenChecks, listWear } from '../wear'
import { listMachines } from '../fleet'
import { listMarks, listOpenVisits, loadBooked, loadPlanTerms, readServices } from '../plan'
import { listOpenSigns } from '../inspection'

/** One morning's work as one list, for everybody alike; made anew where something it tells of is another. */
export async function getToday(actor: Actor): Promise<TodayView> {
  const { today } = present(await ourCompany())
  // The morning is the same for everybody; who may do what is decided where it is shown and done.
  return kept(`today ${today}`, () => loadToday(actor, today))
}

/** Works the morning out before anybody asks for it; says how many pumps that were. */
export async function prepareToday(): Promise<number> {
  const actor: Actor = { id: '', name: '', role: 'viewer' }
  await getToday(actor)
  return (await listWear(actor)).length
}

/** Visits that slip are looked for so far ahead. */
const weeksAhead = 12

async function loadToday(actor: Actor, today: string): Promise<TodayView> {
  const [book, wear, machines, visits, stock, marks, signs, checks, fleet, terms, reads] = await Promise.all([
    loadBook(),
    listWear(actor),
    listMachines(actor),
    listOpenVisits(actor),
    listStock(actor),
    listMarks(actor),
    listOpenSigns(actor),
    listOpenChecks(actor),
    loadBooked(actor, weeksAhead),
    loadPlanTerms(),
    readServices(),
  ])
  const coming = await comingNeeds(wear, visits, stock, book, today)
  const slips = derived('slips', [fleet], () => slipsOf(fleet))
  const machineOf = new Map(machines.map(({ number, id }) => [number, id]))
  const from = [
    today,
    book,
    wear,
    machines,
    visits,
    stock,
    marks,
    signs,
    checks,
    coming,
    fleet,
    ...reads.basis,
  ]
  return derived('today', from, () =>
    morningList({
      today,
      wear,
      machines,
      visits,
      marks,
      planOf: (view, clock) =>
        reads.left(view, clock, machineOf.get(view.machineNumber ?? '') ?? '', visits, today),
      terms,
      slips,
      signs,
      checks,
      stock,
      supplies: suppliesOf(book),
      coming,
    }),
  )
}
