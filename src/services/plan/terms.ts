import 'server-only'
import {
  crewSchema,
  planTermsSchema,
  usualCrew,
  usualPlanTerms,
  type CrewInput,
  type PlanTerms,
  type PlanTermsInput,
} from '@/core/plan'
import { check, invalid, notFound } from '@/core/problem'
import { readMoney } from '@/core/units'
import { write } from '@/db/house'
import { people } from '@/db/access'
import { crewTerms, planTerms } from '@/db/plan'
import { editRow, now, recordChange, requirePermission, type Actor } from '../house'

const only = 'terms'

export type CrewLine = {
  id: string
  name: string
  /** Whether somebody has said when they work; else it is as usual. */
  isKnown: boolean
  version?: number
  yardId: string | null
  days: number[]
  minutes: number
  /** Null where nobody has said: any. */
  skills: string[] | null
  leave: { from: string; to: string }[]
}

/** Who can be planned: every technician in service. */
export async function loadCrew(): Promise<CrewLine[]> {
  const [persons, rows] = await Promise.all([people.every(), crewTerms.every()])
  const rowOf = new Map(rows.map((row) => [row.id, row]))
  return persons
    .filter(({ role, retiredOn }) => role === 'technician' && !retiredOn)
    .sort((a, b) => a.name.localeCompare(b.name))
    .map(({ id, name }) => {
      const row = rowOf.get(id)
      return row
        ? { id, name, isKnown: true, version: row.version, ...row.values }
        : { id, name, isKnown: false, ...usualCrew, skills: null }
    })
}

export async function loadPlanTerms(): Promise<PlanTerms & { version: number | null }> {
  const [row] = await planTerms.every()
  return { ...usualPlanTerms, ...row?.values, version: row?.version ?? null }
}

export async function saveCrew(actor: Actor, input: CrewInput): Promise<void> {
  requirePermission(actor, 'visits.plan')
  const { personId, version, ...values } = check(crewSchema, input)
  await write(async () => {
    const person = await people.byId(personId)
    if (!person) throw notFound('This technician')
    const what = { entity: 'crew', name: `the days of ${person.name}` }
    if (await crewTerms.byId(personId)) {
      await editRow(
        actor,
        crewTerms,
        what,
        { id: personId, version: version ?? 0 },
        { values, recordedAt: now() },
        { action: 'changed', summary: `Working days of ${person.name} changed` },
      )
      return
    }
    await crewTerms.insert({ id: personId, values, recordedAt: now(), version: 1 })
    await recordChange(actor, {
      entity: what.entity,
      entityId: personId,
      entityVersion: 1,
      action: 'changed',
      summary: `Working days of ${person.name} set`,
      after: values,
    })
  })
}

/** The terms as a form holds them. */
export async function getPlanTerms(_actor: Actor): Promise<PlanTermsInput> {
  const { version, hourCents, visitCents, downtimeCents, moveCents, ...rest } = await loadPlanTerms()
  const money = (cents: number) => (cents / 100).toFixed(2)
  return {
    ...rest,
    ...(version !== null && { version }),
    hourCost: money(hourCents),
    visitCost: money(visitCents),
    downtimeCost: money(downtimeCents),
    moveCost: money(moveCents),
  }
}

export async function savePlanTerms(actor: Actor, input: PlanTermsInput): Promise<void> {
  requirePermission(actor, 'visits.plan')
  const { version, hourCost, visitCost, downtimeCost, moveCost, ...rest } = check(planTermsSchema, input)
  const money = (field: string, typed: unknown) => {
    const read = readMoney(String(typed ?? ''))
    if (!read.ok) throw invalid({ [field]: read.reason })
    return read.cents
  }
  const values: PlanTerms = {
    ...rest,
    hourCents: money('hourCost', hourCost),
    visitCents: money('visitCost', visitCost),
    downtimeCents: money('downtimeCost', downtimeCost),
    moveCents: money('moveCost', moveCost),
  }
  await write(async () => {
    const what = { entity: 'planTerms', name: 'what planning goes by' }
    if (await planTerms.byId(only)) {
      await editRow(
        actor,
        planTerms,
        what,
        { id: only, version: version ?? 0 },
        { values, recordedAt: now() },
        { action: 'changed', summary: 'What planning goes by changed' },
      )
      return
    }
    await planTerms.insert({ id: only, values, recordedAt: now(), version: 1 })
    await recordChange(actor, {
      entity: what.entity,
      entityId: only,
      entityVersion: 1,
      action: 'changed',
      summary: 'What planning goes by set',
      after: values,
    })
  })
}
