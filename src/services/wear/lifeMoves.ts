import 'server-only'
import { v7 as uuid } from 'uuid'
import { showDay } from '@/core/calendar'
import { usageSinceTakeOver } from '@/core/hours'
import { conflict, invalid, check } from '@/core/problem'
import { positionName, splitInstance, type PumpModel } from '@/core/models'
import {
  endReasons,
  movePartSchema,
  takeOverSchema,
  type MovePartInput,
  type TakeOverInput,
  type StartingLife,
} from '@/core/wear'
import { inSentence } from '@/core/units'
import { write } from '@/db/house'
import { lives, newLife, type LifeRow } from '@/db/wear'
import { pumpModelVersions } from '@/db/models'
import { assemblies } from '@/db/fleet'
import {
  requirePermission,
  type Actor,
  recordChange,
  now,
  ourCompany,
  present,
  dayOf,
  instantOf,
} from '../house'
import { loadCounting } from './assemblyLoading'
import { pumpAndModel } from './renewals'

/**
 * Notes that a part went to another bore of the same kind on the same pump. Its life goes on there with
 * its hours and its days; the part that sat there goes to the free bore, or its life ends and a new part
 * begins in the free bore.
 */
export async function movePart(actor: Actor, input: MovePartInput): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const move = check(movePartSchema, input)
  await write(async () => {
    if (await lives.byId(move.id)) return
    const { row, model } = await pumpAndModel(move.assemblyId)
    requireSameKind(model, move.from, move.to)
    const company = await ourCompany()
    if (move.day > present(company).today) throw invalid({ day: 'This day is still to come.' })
    const noon = instantOf(move.day, '12:00', company.timeZone)
    const at = noon > now() ? now() : noon
    const open = await lives.all({
      assemblyId: row.id,
      status: 'active',
      endedAt: null,
      position: [move.from, move.to],
    })
    const [from, to] = [move.from, move.to].map((position) => open.find((life) => life.position === position))
    if (!from || !to) throw conflict('The clocks of one of these positions have not been started.')
    for (const life of [from, to])
      if (life.startedAt >= at)
        throw invalid({
          day: `${positionName(model, life.position)} has had its part only since ${showDay(dayOf(life.startedAt, company.timeZone))}.`,
        })
    const { stretches } = (await loadCounting([row.id])).of(row.id)
    const reached = (life: LifeRow) =>
      usageSinceTakeOver(stretches, at) - usageSinceTakeOver(stretches, life.startedAt) + life.carriedUsage
    const goesOn = (id: string, life: LifeRow, position: string) =>
      newLife({
        id,
        assemblyId: row.id,
        position,
        startedAt: at,
        carriedUsage: reached(life),
        carriedFrom: life.carriedFrom ?? life.startedAt,
        assumed: life.assumed,
        first: life.first,
        continuesLifeId: life.id,
        lotId: life.lotId,
        note: move.note,
        recordedAt: now(),
        recordedById: actor.id,
      })
    const swap = move.other === 'swap'
    await lives.update({ id: from.id }, { endedAt: at, endReason: 'moved' })
    await lives.update(
      { id: to.id },
      { endedAt: at, endReason: swap ? 'moved' : move.endReason || 'unknown' },
    )
    await lives.insertMany([
      goesOn(move.id, from, move.to),
      swap
        ? goesOn(uuid(), to, move.from)
        : newLife({
            id: uuid(),
            assemblyId: row.id,
            position: move.from,
            startedAt: at,
            note: move.note,
            recordedAt: now(),
            recordedById: actor.id,
          }),
    ])
    const names = [move.from, move.to].map((position) => inSentence(positionName(model, position)))
    await recordChange(actor, {
      entity: 'assembly',
      entityId: row.id,
      assemblyId: row.id,
      action: 'partMoved',
      summary: swap
        ? `${row.number}: ${names.join(' and ')} changed places on ${showDay(move.day)}`
        : `${row.number}: the part of ${names[0]} went to ${names[1]} on ${showDay(move.day)}; what was there came out (${endReasons[move.endReason || 'unknown'].toLowerCase()}), a new one went in`,
      reason: move.note,
    })
  })
}

function requireSameKind(model: PumpModel, from: string, to: string): void {
  if (from === to) throw invalid({ to: 'Choose another bore than the one it is in.' })
  const [a, b] = [from, to].map((position) =>
    model.positions.find((each) => each.key === splitInstance(position).key),
  )
  if (!a || !b) throw invalid({ to: 'This pump has no such position.' })
  const same = a.key === b.key || (a.part !== null && a.part === b.part)
  if (!same) throw invalid({ to: `The part of ${inSentence(a.name)} does not fit ${inSentence(b.name)}.` })
}

/** The lives that run since the pump was taken over, as the form that sets them right shows them. */
export async function startingLives(_actor: Actor, assemblyId: string): Promise<StartingLife[]> {
  const row = await assemblies.byId(assemblyId)
  const version = row?.modelVersionId ? await pumpModelVersions.byId(row.modelVersionId) : null
  if (!row || !version) return []
  const { timeZone } = await ourCompany()
  const own = await lives.all({ assemblyId, status: 'active', endedAt: null, startedAt: row.takenOverAt })
  const order = version.data.positions.map((position) => position.key)
  const place = (life: LifeRow) => {
    const { key, index } = splitInstance(life.position)
    return order.indexOf(key) * 1000 + (index ?? 0)
  }
  return own
    .sort((a, b) => place(a) - place(b))
    .map((life) => ({
      lifeId: life.id,
      name: positionName(version.data, life.position),
      hours: Math.round(life.carriedUsage * 10) / 10,
      day: life.carriedFrom ? dayOf(life.carriedFrom, timeZone) : null,
      assumed: life.assumed === 1,
    }))
}

/**
 * Sets what is known of the parts a pump was taken over with: hours on each, when it was fitted, known
 * or assumed. Lines that say what is held already change nothing; what stood before stays on record.
 */
export async function takeOverLives(actor: Actor, input: TakeOverInput): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const { assemblyId, lines } = check(takeOverSchema, input)
  await write(async () => {
    const { row, model } = await pumpAndModel(assemblyId)
    const { timeZone } = await ourCompany()
    const takenOverOn = dayOf(row.takenOverAt, timeZone)
    const own = await lives.all({ assemblyId, id: lines.map((line) => line.lifeId) })
    const fields: Record<string, string> = {}
    const changed: string[] = []
    for (const [index, line] of lines.entries()) {
      const life = own.find((each) => each.id === line.lifeId)
      if (!life || life.status !== 'active' || life.endedAt !== null || life.startedAt !== row.takenOverAt)
        throw conflict(
          `${life ? positionName(model, life.position) : 'One of these parts'} was renewed or changed by somebody else meanwhile. Nothing of yours is saved yet; open the form again.`,
        )
      if (line.day !== null && line.day > takenOverOn)
        fields[`lines.${index}.day`] =
          `It was taken over on ${showDay(takenOverOn)}: later renewals are recorded as such.`
      if (row.openingKind === 'known' && line.hours > row.openingUsage)
        fields[`lines.${index}.hours`] = `The pump itself had ${row.openingUsage} h when it was taken over.`
      const day = life.carriedFrom ? dayOf(life.carriedFrom, timeZone) : null
      const same =
        Math.abs(life.carriedUsage - line.hours) < 0.06 &&
        day === line.day &&
        (life.assumed === 1) === line.assumed
      if (same || Object.keys(fields).length > 0) continue
      await lives.update({ id: life.id }, { status: 'superseded' })
      await lives.insert({
        ...life,
        id: uuid(),
        carriedUsage: line.hours,
        carriedFrom: line.day === null ? null : instantOf(line.day, '12:00', timeZone),
        assumed: line.assumed ? 1 : 0,
        recordedAt: now(),
        recordedById: actor.id,
      })
      changed.push(`${positionName(model, life.position)} ${line.hours} h${line.assumed ? ' assumed' : ''}`)
    }
    if (Object.keys(fields).length > 0) throw invalid(fields)
    if (changed.length === 0) return
    await recordChange(actor, {
      entity: 'assembly',
      entityId: row.id,
      assemblyId: row.id,
      action: 'takenOver',
      summary: `${row.number} was taken over with: ${changed.join('; ')}`,
    })
  })
}
