import 'server-only'
import { nextVisit, notOnVisit, type VisitLine } from '@/core/plan'
import type { NextVisitView } from '@/core/today'
import { composeSheet } from '@/core/composing'
import type { WearView } from '@/core/wear'
import { pumpModelVersions } from '@/db/models'
import { type Actor, ourCompany, present } from '../house'
import { unitFacts } from '../composing'
import { companyPractices } from '../practices'
import { loadBook, missingFor } from '../stores'

/** What the next visit to a pump would do beyond those booked: when, what, how long, with which parts. */
export async function nextVisitTo(
  _actor: Actor,
  view: WearView,
  open: VisitLine[],
): Promise<NextVisitView | null> {
  const [company, version, book, facts] = await Promise.all([
    ourCompany(),
    pumpModelVersions.byId(view.modelVersionId),
    loadBook(),
    unitFacts(),
  ])
  const free = view.clocks.filter((clock) => notOnVisit(view.assemblyId, clock, open).length > 0)
  const visit = nextVisit(free, present(company).today)
  if (!visit || !version) return null
  const tasks = visit.items.map(({ task, positions }) => ({ task, positions }))
  const sheet = composeSheet(
    {
      assemblies: [
        {
          id: view.assemblyId,
          model: version.data,
          tasks: merged(tasks),
          facts: facts.get(view.assemblyId) ?? {},
        },
      ],
    },
    await companyPractices(),
  )
  return {
    day: visit.day,
    because: [visit.leading.name, visit.leading.where].filter(Boolean).join(', '),
    services: visit.items.map(({ name, where, task }) => ({ name, where, task })),
    minutes: sheet.minutes,
    minutesOneByOne: sheet.minutesOneByOne,
    parts: sheet.parts.map(({ name, quantity, unit, part }) => {
      const found = missingFor(book, { modelId: version.modelId, part, quantity }, visit.day)
      return { name, quantity, unit, missing: found !== null && found.missing > 0 }
    }),
  }
}

/** Positions of one task that stand apart on the list are done together. */
function merged(tasks: { task: string; positions: string[] }[]) {
  const keys = [...new Set(tasks.map(({ task }) => task))]
  return keys.map((task) => ({
    task,
    positions: tasks.filter((each) => each.task === task).flatMap((each) => each.positions),
  }))
}
