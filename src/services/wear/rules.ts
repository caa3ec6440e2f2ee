import 'server-only'
import { v7 as uuid } from 'uuid'
import { conflict, invalid, notFound, check } from '@/core/problem'
import {
  clearLimitSchema,
  dutiesSchema,
  dutyFactors,
  limitSchema,
  type DutiesInput,
  type LimitInput,
  type WearRules,
  type RuleMove,
  type RulesView,
  type WearView,
} from '@/core/wear'
import { inSentence } from '@/core/units'
import { write } from '@/db/house'
import { assemblies, type AssemblyRow } from '@/db/fleet'
import { people } from '@/db/access'
import { pumpModelVersions } from '@/db/models'
import { duties, limitOverrides, type DutyRow, type LimitOverrideRow } from '@/db/wear'
import { requirePermission, type Actor, recordChange, now, ourCompany, dayOf } from '../house'
import { listWearBy } from './wear'
import { loadRules } from './rulesLoading'

/** What one pump goes by beside its model, with who said so when. */
export async function rulesOf(_actor: Actor, assemblyId: string): Promise<RulesView> {
  const which = { assemblyId, status: 'active' as const }
  const [overrideRows, dutyRows, names, company] = await Promise.all([
    limitOverrides.all(which),
    duties.all(which, [['recordedAt', 'ASC']]),
    people.every(),
    ourCompany(),
  ])
  const said = (row: { recordedAt: string; recordedById: string }) => ({
    by: names.find((person) => person.id === row.recordedById)?.name ?? '',
    day: dayOf(row.recordedAt, company.timeZone),
  })
  return {
    overrides: overrideRows.map((row) => ({
      id: row.id,
      task: row.task,
      hours: row.hours,
      days: row.days,
      firstHours: row.firstHours,
      firstDays: row.firstDays,
      early: row.early,
      late: row.late,
      reason: row.reason,
      ...said(row),
    })),
    duties: dutyRows.map((row) => ({
      id: row.id,
      key: row.key,
      factor: row.factor,
      reason: row.reason,
      ...said(row),
    })),
  }
}

/** What a limit would move if it were saved: the due items whose limit or day changes. Nothing is kept. */
export async function previewLimit(actor: Actor, input: LimitInput): Promise<RuleMove[]> {
  requirePermission(actor, 'fleet.edit')
  const { id: _id, assemblyId, seen: _seen, ...limit } = check(limitSchema, input)
  await taskOf(assemblyId, limit.task)
  return movesUnder(assemblyId, (rules) => ({
    ...rules,
    overrides: [...rules.overrides.filter((each) => each.task !== limit.task), limit],
  }))
}

/** What a set of hard duties would move if it were saved. Nothing is kept. */
export async function previewDuties(actor: Actor, input: DutiesInput): Promise<RuleMove[]> {
  requirePermission(actor, 'fleet.edit')
  const wanted = check(dutiesSchema, input)
  return movesUnder(wanted.assemblyId, (rules) => ({ ...rules, duties: wanted.duties }))
}

async function movesUnder(assemblyId: string, change: (rules: WearRules) => WearRules): Promise<RuleMove[]> {
  const rules = (await loadRules([assemblyId]))(assemblyId)
  const [before, after] = await Promise.all([
    listWearBy([assemblyId], () => rules),
    listWearBy([assemblyId], () => change(rules)),
  ])
  return movesBetween(before[0], after[0])
}

function movesBetween(before: WearView | undefined, after: WearView | undefined): RuleMove[] {
  return (after?.clocks ?? []).flatMap((clock): RuleMove[] => {
    const was = before?.clocks.find(
      (each) => each.task === clock.task && each.positions[0] === clock.positions[0],
    )
    const same =
      was &&
      was.hoursLimit === clock.hoursLimit &&
      was.daysLimit === clock.daysLimit &&
      was.aboutDay === clock.aboutDay &&
      was.state === clock.state
    if (!was || same) return []
    const line = ({ hoursLimit, daysLimit, aboutDay, state }: typeof clock) => ({
      hoursLimit,
      daysLimit,
      aboutDay,
      state,
    })
    return [{ service: clock.name, where: clock.where, before: line(was), after: line(clock) }]
  })
}

/** A pump goes by a limit of its own for one service from now on; the model's stands for all others. */
export async function saveLimit(actor: Actor, input: LimitInput): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const { id, assemblyId, seen, ...limit } = check(limitSchema, input)
  await write(async () => {
    if (await limitOverrides.byId(id)) return
    const { row, name } = await taskOf(assemblyId, limit.task)
    const before = await unchangedLimit(assemblyId, limit.task, seen)
    if (before) await limitOverrides.update({ id: before.id }, { status: 'superseded' })
    const after: LimitOverrideRow = {
      id,
      assemblyId,
      ...limit,
      supersedesId: before?.id ?? null,
      ...recordedBy(actor),
    }
    await limitOverrides.insert(after)
    await recordChange(actor, {
      entity: 'assembly',
      entityId: assemblyId,
      assemblyId,
      action: 'limitChanged',
      summary: `${row.number}: ${inSentence(name)} every ${limitWords(limit, row.usageScale)}`,
      reason: limit.reason,
      before: before ? figures(before) : null,
      after: figures(after),
    })
  })
}

/** The pump goes by its model again for one service. */
export async function clearLimit(
  actor: Actor,
  asked: { assemblyId: string; task: string; seen: string },
): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const input = check(clearLimitSchema, asked)
  await write(async () => {
    const { row, name } = await taskOf(input.assemblyId, input.task)
    const before = await unchangedLimit(input.assemblyId, input.task, input.seen)
    if (!before) return
    await limitOverrides.update({ id: before.id }, { status: 'superseded' })
    await recordChange(actor, {
      entity: 'assembly',
      entityId: input.assemblyId,
      assemblyId: input.assemblyId,
      action: 'limitCleared',
      summary: `${row.number}: ${inSentence(name)} goes by its model again`,
      before: figures(before),
    })
  })
}

/** Writes down what is hard about a pump's work: the whole set at once. */
export async function saveDuties(actor: Actor, input: DutiesInput): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const wanted = check(dutiesSchema, input)
  await write(async () => {
    const row = await assemblies.byId(wanted.assemblyId)
    if (!row) throw notFound('This pump')
    const before = await duties.all({ assemblyId: row.id, status: 'active' })
    const unchanged =
      before.length === wanted.seen.length && before.every(({ id }) => wanted.seen.includes(id))
    if (!unchanged)
      throw conflict(
        `Somebody changed the hard duty of ${row.number} while you were editing. Nothing of yours is saved; open it again.`,
      )
    const kept = before.filter((each) =>
      wanted.duties.some(
        ({ key, factor, reason }) => key === each.key && factor === each.factor && reason === each.reason,
      ),
    )
    const gone = before.filter((each) => !kept.includes(each))
    const fresh = wanted.duties.filter(({ key }) => !kept.some((each) => each.key === key))
    if (gone.length === 0 && fresh.length === 0) return
    if (gone.length > 0) await duties.update({ id: gone.map(({ id }) => id) }, { status: 'superseded' })
    await duties.insertMany(
      fresh.map(({ key, factor, reason }): DutyRow => ({
        id: uuid(),
        assemblyId: row.id,
        key,
        factor,
        reason,
        ...recordedBy(actor),
      })),
    )
    const words = wanted.duties.map(({ key, factor }) => `${dutyFactors[key].name.toLowerCase()} ${factor}`)
    await recordChange(actor, {
      entity: 'assembly',
      entityId: row.id,
      assemblyId: row.id,
      action: 'dutiesChanged',
      summary: `${row.number}: ${words.length === 0 ? 'no hard duty any more' : `hard duty: ${words.join(', ')}`}`,
      reason: fresh.map(({ reason }) => reason).join('; '),
    })
  })
}

const recordedBy = (actor: Actor) => ({
  status: 'active' as const,
  recordedAt: now(),
  recordedById: actor.id,
})

const figures = ({ hours, days, firstHours, firstDays, early, late }: LimitOverrideRow) => ({
  hours,
  days,
  firstHours,
  firstDays,
  early,
  late,
})

function limitWords({ hours, days }: { hours: number | null; days: number | null }, scale: 'h' | 'strokes') {
  return [hours !== null && `${hours} ${scale}`, days !== null && `${days} days`].filter(Boolean).join(' or ')
}

async function taskOf(assemblyId: string, task: string): Promise<{ row: AssemblyRow; name: string }> {
  const row = await assemblies.byId(assemblyId)
  if (!row) throw notFound('This pump')
  const version = row.modelVersionId ? await pumpModelVersions.byId(row.modelVersionId) : null
  const found = version?.data.tasks.find((each) => each.key === task)
  if (!found) throw invalid({ task: 'Choose a service of this pump model.' })
  return { row, name: found.name }
}

/** The override as the form had read it. @throws `conflict` where somebody else has changed it since */
async function unchangedLimit(
  assemblyId: string,
  task: string,
  seen: string,
): Promise<LimitOverrideRow | null> {
  const [present] = await limitOverrides.all({ assemblyId, task, status: 'active' })
  if ((present?.id ?? '') === seen) return present ?? null
  const by = present ? ((await people.byId(present.recordedById))?.name ?? 'Somebody') : 'Somebody'
  const scale = present ? `: it is ${limitWords(present, 'h')} now` : ''
  throw conflict(
    `${by} changed this limit while you were editing${scale}. Nothing of yours is saved; open it again.`,
  )
}
