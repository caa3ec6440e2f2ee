import 'server-only'
import { v7 as uuid } from 'uuid'
import { showDay } from '@/core/calendar'
import { conflict, invalid, notFound, check } from '@/core/problem'
import { allPositions, mayRenew, positionName, type PumpModel } from '@/core/models'
import {
  clockStartSchema,
  positionsOf,
  renewalSchema,
  type ClockStartInput,
  type RenewalInput,
} from '@/core/wear'
import { inSentence } from '@/core/units'
import { write } from '@/db/house'
import { assemblies, type AssemblyRow } from '@/db/fleet'
import { lives, newLife } from '@/db/wear'
import { pumpModelVersions } from '@/db/models'
import { stockLots } from '@/db/stores'
import { requirePermission, type Actor, recordChange, now, ourCompany, present, instantOf } from '../house'

/**
 * Starts the clocks of a pump that has none: every part as old as the pump itself, or counted from the
 * take-over. What is known better is then entered as renewals.
 */
export async function startClocks(actor: Actor, input: ClockStartInput): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const { assemblyId, basis } = check(clockStartSchema, input)
  await write(async () => {
    const { row, model } = await pumpAndModel(assemblyId)
    if ((await lives.count({ assemblyId, status: 'active' })) > 0)
      throw conflict(`The clocks of ${row.number} run already.`)
    const isNew = row.openingKind === 'new'
    const recorded = { recordedAt: now(), recordedById: actor.id }
    await lives.insertMany(
      allPositions(model).map((position) =>
        newLife({
          id: uuid(),
          assemblyId,
          position,
          startedAt: row.takenOverAt,
          carriedUsage: basis === 'pump' ? row.openingUsage : 0,
          assumed: isNew ? 0 : 1,
          first: isNew ? 1 : 0,
          ...recorded,
        }),
      ),
    )
    await recordChange(actor, {
      entity: 'assembly',
      entityId: assemblyId,
      assemblyId,
      action: 'clocksStarted',
      summary: `Clocks of ${row.number} started: ${basis === 'pump' ? 'every part as old as the pump' : 'counted from the take-over'}`,
    })
  })
}

/**
 * Records a renewal that happened without a sheet: ends the lives of those positions on that day and
 * begins new ones. Positions that are not named keep theirs, so one pump may carry two ages.
 */
export async function recordRenewal(actor: Actor, input: RenewalInput): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const renewal = check(renewalSchema, input)
  await write(async () => {
    const { row, model } = await pumpAndModel(renewal.assemblyId)
    if ((await lives.byId(lifeId(renewal.id, 0))) !== null) return
    const task = model.tasks.find((each) => each.key === renewal.task && mayRenew(each))
    if (!task) throw invalid({ task: 'Choose a service of this pump model that renews something.' })
    const unknown = renewal.positions.filter((position) => !positionsOf(model, task).includes(position))
    if (unknown.length > 0) throw invalid({ positions: `“${task.name}” has no position “${unknown[0]}”.` })
    const company = await ourCompany()
    if (renewal.day > present(company).today) throw invalid({ day: 'This day is still to come.' })
    const at = instantOf(renewal.day, '12:00', company.timeZone)
    const instant = at > now() ? now() : at
    const before = instant < row.takenOverAt
    const own = await lives.all({
      assemblyId: row.id,
      status: 'active',
      endedAt: null,
      position: renewal.positions,
    })
    // Before the take-over only what was there then can turn out to be younger.
    const later = own.find((life) => life.startedAt > (before ? row.takenOverAt : instant))
    if (later)
      throw invalid({ day: `${positionName(model, later.position)} was renewed after this day already.` })
    const lot = renewal.lotId ? await stockLots.byId(renewal.lotId) : null
    if (renewal.lotId && !lot) throw invalid({ lotId: 'Choose a lot of the stores.' })
    if (lot && lot.receivedOn > renewal.day)
      throw invalid({
        lotId: `Lot ${lot.number} came in on ${showDay(lot.receivedOn)}: its parts cannot have been fitted before. Choose another lot or another day.`,
      })
    const startedAt = before ? row.takenOverAt : instant
    for (const life of own) {
      // What was there at the take-over and turns out to be younger never was: the record keeps both.
      if (before) await lives.update({ id: life.id }, { status: 'superseded' })
      else await lives.update({ id: life.id }, { endedAt: instant, endReason: renewal.endReason })
    }
    await lives.insertMany(
      renewal.positions.map((position, index) =>
        newLife({
          id: lifeId(renewal.id, index),
          assemblyId: row.id,
          position,
          startedAt,
          carriedUsage: before ? renewal.runSince : 0,
          carriedFrom: before ? instant : null,
          lotId: lot?.id ?? null,
          note: renewal.note,
          recordedAt: now(),
          recordedById: actor.id,
        }),
      ),
    )
    await recordChange(actor, {
      entity: 'assembly',
      entityId: row.id,
      assemblyId: row.id,
      action: 'renewed',
      summary: `${row.number}: ${inSentence(task.name)} on ${showDay(renewal.day)}, ${renewal.positions.map((position) => positionName(model, position)).join('; ')}`,
      reason: renewal.note,
    })
  })
}

/** The life ids of one renewal follow from its own id, so that sending it twice records it once. */
function lifeId(renewalId: string, index: number): string {
  return `${renewalId.slice(0, 32)}-${String(index).padStart(3, '0')}`
}

export async function pumpAndModel(assemblyId: string): Promise<{ row: AssemblyRow; model: PumpModel }> {
  const row = await assemblies.byId(assemblyId)
  if (!row) throw notFound('This pump')
  const version = row.modelVersionId ? await pumpModelVersions.byId(row.modelVersionId) : null
  if (!version)
    throw conflict(`The model of ${row.number} has no published data yet: publish it under Models first.`)
  return { row, model: version.data }
}
