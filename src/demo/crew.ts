import { addDays } from '@/core/calendar'
import { usualPlanTerms } from '@/core/plan'
import type { Actor } from '@/services/house'
import { getPlanTerms, saveCrew, savePlanTerms } from '@/services/plan'
import { instantOf, runAt } from '@/services/house'
import { idOf } from './random'

/** Two yards, one way between them, who starts where, a week of leave; of the third nobody has said anything yet. */
export async function tellCrew(
  coordinator: Actor,
  technicians: Actor[],
  today: string,
  timeZone: string,
): Promise<void> {
  const harbour = idOf('Harbour yard')
  const upland = idOf('Upland yard')
  const [first, second] = technicians as [Actor, Actor]
  await runAt(instantOf(addDays(today, -20), '09:30', timeZone), async () => {
    await saveCrew(coordinator, {
      ...{ personId: first.id, yardId: harbour, days: [1, 2, 3, 4, 5], minutes: 480 },
      ...{ skills: ['electrical', 'lifting', 'ultraHighPressure', 'fuel'], leave: [] },
    })
    await saveCrew(coordinator, {
      ...{
        personId: second.id,
        yardId: upland,
        days: [1, 2, 3, 4],
        minutes: 540,
        skills: ['lifting', 'fuel'],
      },
      leave: [{ from: addDays(today, 26), to: addDays(today, 32) }],
    })
    await savePlanTerms(coordinator, {
      ...(await getPlanTerms(coordinator)),
      freePercent: usualPlanTerms.freePercent,
      benches: [
        { yardId: harbour, places: 3 },
        { yardId: upland, places: 2 },
      ],
      travel: [{ from: harbour, to: upland, minutes: 35 }],
      closed: [{ from: addDays(today, 72), to: addDays(today, 79) }],
    })
  })
}
