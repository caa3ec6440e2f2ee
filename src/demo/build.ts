import { addDays } from '@/core/calendar'
import { runAt, instantOf } from '@/services/house'
import { prepareDigests } from '@/services/sheets'
import { openTheBook, technicians, tellWear } from './wear'
import { machines } from './fleet'
import { tellLibrary } from './library'
import { tellSigns } from './signs'
import { tellOrders } from './orders'
import { tellWinter } from './winter'
import { tellCrew } from './crew'
import { tellRules, tellSpells } from './spells'
import { makeSpares, tellStories, swapPumps } from './stories'
import { timeZone, makeCompany, makeMachine, coordinator } from './machines'

/** The demo starts on this invented day unless told otherwise. */
export const demoToday = '2026-10-14'

/**
 * Makes the demo company in an empty database, through the services, as if its people had worked with
 * Atelier for two years. The same every time.
 *
 * @param today the day the demo starts on
 * @param say told what is being made, in plain words
 */
export async function buildDemo(today: string, say: (line: string) => void): Promise<void> {
  const begin = addDays(today, -730)
  say('company, people and yards')
  await runAt(instantOf(begin, '07:00', timeZone), () => makeCompany())
  say(`${machines.length} machines with their pumps and two years of readings`)
  for (const machine of machines) await makeMachine(machine, begin, today)
  say('spare pumps, accessories and the stories')
  await makeSpares(begin)
  await tellStories(today)
  await tellSpells(coordinator, today)
  say('two years of sheets, lives and stock')
  // Each use case writes for itself: inside one great write nothing that is worked out could be kept.
  await tellWear(coordinator, today, timeZone, (daysAgo) =>
    // It happens in the middle of the story: what was serviced before was serviced on the other machine.
    daysAgo === 128 ? swapPumps(today) : undefined,
  )
  await tellLibrary(coordinator, today, timeZone)
  await tellRules(coordinator)
  await tellSigns(technicians, today, timeZone)
  await openTheBook(coordinator, today, timeZone)
  say('suppliers, orders, kits and what lies where')
  await tellOrders(coordinator, today, timeZone)
  say('ten winters of minima, and a campaign half done')
  await tellWinter(coordinator, technicians, today, timeZone)
  await tellCrew(coordinator, technicians, today, timeZone)
  await prepareDigests()
}
