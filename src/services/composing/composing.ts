import 'server-only'
import type { CompanyPractices } from '@/core/practices'
import { composeSheet, type ComposedSheet, type Job, type UnitFacts } from '@/core/composing'
import type { PumpModel } from '@/core/models'
import { invalid, notFound, problemOf } from '@/core/problem'
import type { VisitItem } from '@/core/plan'
import { assemblies, fittings, type AssemblyRow } from '@/db/fleet'
import { pumpModelVersions } from '@/db/models'
import { unitFacts } from './unitFacts'

/** The model versions that some services name, each once. */
export async function modelsOf(items: VisitItem[]): Promise<Map<string, PumpModel>> {
  const rows = await pumpModelVersions.all({ id: [...new Set(items.map((item) => item.modelVersionId))] })
  return new Map(rows.map((row) => [row.id, row.data]))
}

/** What services are composed from: the exact models, and what is known of each unit. */
export type Units = { models: Map<string, PumpModel>; facts: Map<string, UnitFacts> }

export async function unitsOf(items: VisitItem[]): Promise<Units> {
  const [models, facts] = await Promise.all([modelsOf(items), unitFacts()])
  return { models, facts }
}

/** The services of each assembly, gathered: positions of one task that were chosen apart belong together. */
export function jobsOf(items: VisitItem[], { models, facts }: Units): Job[] {
  const jobs = new Map<string, Job>()
  for (const { assemblyId, modelVersionId, task, path, positions } of items) {
    const model = models.get(modelVersionId)
    if (!model) throw notFound('The model version of this visit')
    const job: Job = jobs.get(assemblyId) ?? {
      id: assemblyId,
      model,
      tasks: [],
      facts: facts.get(assemblyId) ?? {},
    }
    const known = job.tasks.find((each) => each.task === task && (each.path ?? null) === (path ?? null))
    if (known) known.positions = [...new Set([...known.positions, ...positions])]
    else job.tasks.push({ task, positions, path })
    jobs.set(assemblyId, job)
  }
  return [...jobs.values()]
}

export function composeItems(items: VisitItem[], units: Units, practices: CompanyPractices): ComposedSheet {
  return composeSheet({ assemblies: jobsOf(items, units) }, practices)
}

/** A task the model does not have is told beside the list of services. */
export function composeOrRefuse(
  items: VisitItem[],
  units: Units,
  practices: CompanyPractices,
): ComposedSheet {
  try {
    return composeItems(items, units, practices)
  } catch (error) {
    const problem = problemOf(error)
    throw problem?.kind === 'invalid' ? invalid({ items: problem.message }) : error
  }
}

/**
 * Services as they were chosen, each with the exact model version its pump goes by, and the place they
 * are done at: one machine, or one shelved pump.
 */
export async function placeAndItems(
  asked: { assemblyId: string; task: string; path?: string | null; positions: string[] }[],
): Promise<{ items: VisitItem[]; place: { machineId: string | null; assemblyId: string | null } }> {
  const pumps = await assemblies.all({ id: [...new Set(asked.map((item) => item.assemblyId))] })
  const place = await sharedPlace(pumps)
  const items = asked.map((item): VisitItem => {
    const pump = pumps.find((each) => each.id === item.assemblyId)
    if (!pump?.modelVersionId) throw invalid({ items: 'One of these pumps has no published model.' })
    return { ...item, modelVersionId: pump.modelVersionId }
  })
  return { items, place }
}

/** A visit is on one machine, or on one shelved pump. */
async function sharedPlace(
  pumps: AssemblyRow[],
): Promise<{ machineId: string | null; assemblyId: string | null }> {
  const moves = await fittings.all({ assemblyId: pumps.map((pump) => pump.id), status: 'active' }, [
    ['at', 'ASC'],
  ])
  const places = pumps.map(
    (pump) => moves.filter((move) => move.assemblyId === pump.id).at(-1)?.machineId ?? null,
  )
  const [machineId = null] = places
  if (places.some((place) => place !== machineId))
    throw invalid({ items: 'A visit is on one machine. Book a visit for each.' })
  if (machineId !== null) return { machineId, assemblyId: null }
  if (pumps.length !== 1) throw invalid({ items: 'Pumps on the shelf are serviced one visit each.' })
  return { machineId: null, assemblyId: pumps[0]!.id }
}
