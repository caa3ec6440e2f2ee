import 'server-only'
import { v7 as uuid } from 'uuid'
import { daysBetween, showDay } from '@/core/calendar'
import { usageSinceTakeOver } from '@/core/hours'
import { showAmount, tidy } from '@/core/parts'
import { visitNumber } from '@/core/planning'
import { conflict, invalid, notFound } from '@/core/problem'
import { check } from '@/core/problem/check'
import {
  foldSheet,
  inspected,
  notReady,
  presumedEndReason,
  signSchema,
  type SheetAssembly,
  type Signing,
  type SheetState,
  type SignInput,
} from '@/core/sheet'
import type { EndingLife, SigningView } from '@/core/sheet/views'
import { clockOf } from '@/core/wear'
import type { PumpModel } from '@/core/pump'
import { splitInstance } from '@/core/pump'
import { write } from '@/db'
import { lives, newLife, type LifeRow } from '@/db/lives'
import { pumpModelVersions } from '@/db/pumpModels'
import { sheets, taskRecords, type SheetRow } from '@/db/sheets'
import { parts, stockLots, stockMovements } from '@/db/stores'
import { visits } from '@/db/visits'
import { requirePermission, type Actor } from './actor'
import { loadCounting } from './assemblyLoading'
import { recordChange } from './audit'
import { now } from './clock'
import { ourCompany, present } from './company'
import { dayOf } from './days'
import { setEarlyChecks } from './earlyChecks'
import { editRow } from './edit'
import { appendOwn, entriesOf } from './sheets'
import { settleBySheet } from './signs'
import { movement } from './stores'

/** What signing a sheet will do: which lives end and begin, what leaves stock, what is still missing. */
export async function getSigning(_actor: Actor, sheetId: string): Promise<SigningView> {
  const sheet = await sheets.byId(sheetId)
  if (!sheet) throw notFound('This sheet')
  const state = foldSheet(await entriesOf(sheetId))!
  const workedAt = workedAtOf(state)
  const { ending, beginning } = await livesOf(sheet, state, workedAt ?? now())
  const nameOf = (assemblyId: string, position: string) => named(state, assemblyId, position)
  const uses = await stockOfUses(state)
  return {
    notReady: notReady(state),
    upTo: state.upTo,
    workedAt,
    ending: ending.map(({ life: _life, task: _task, ...view }) => view),
    beginning: beginning.map(({ assemblyId, position }) => ({
      assemblyId,
      position,
      ...nameOf(assemblyId, position),
    })),
    kept: state.positions
      .filter((each) => each.state === 'kept')
      .map((each) => ({ ...nameOf(each.assemblyId, each.position), reason: each.reason })),
    uses: uses.map(({ name, quantity, unit, lot, onHand, short }) => ({
      name,
      quantity,
      unit,
      lot,
      onHand,
      short,
    })),
    notUsed: notUsed(state),
  }
}

function named(state: SheetState, assemblyId: string, position: string) {
  const assembly = state.content.assemblies.find((each) => each.id === assemblyId)
  return {
    pump: assembly?.number ?? '',
    name: assembly?.positions.find((each) => each.key === position)?.name ?? position,
  }
}

/** Lives end and begin at the sheet's reading; where no meter could be read, when that was said. */
function workedAtOf(state: SheetState): string | null {
  return state.readings[0]?.at ?? state.madeSafe?.at ?? null
}

/** The lives that end, and every position where a new one begins. */
async function livesOf(sheet: SheetRow, state: SheetState, at: string) {
  const renewed = state.positions.filter((each) => each.state === 'renewed')
  const [lifeRows, counting, versionRows, company] = await Promise.all([
    lives.all({ assemblyId: sheet.assemblyIds, status: 'active', endedAt: null }),
    loadCounting(sheet.assemblyIds),
    pumpModelVersions.all({ id: state.content.assemblies.map((each) => each.modelVersionId) }),
    ourCompany(),
  ])
  type Ending = EndingLife & { life: LifeRow; task: string | null }
  const ending = renewed.flatMap(({ assemblyId, position, planned }): Ending[] => {
    const life = lifeRows.find((each) => each.assemblyId === assemblyId && each.position === position)
    if (!life) return []
    const assembly = state.content.assemblies.find((each) => each.id === assemblyId)!
    const model = versionRows.find((version) => version.id === assembly.modelVersionId)!.data
    const { stretches } = counting.of(assemblyId)
    const reached =
      usageSinceTakeOver(stretches, at) - usageSinceTakeOver(stretches, life.startedAt) + life.carriedUsage
    const days = daysBetween(
      dayOf(life.carriedFrom ?? life.startedAt, company.timeZone),
      dayOf(at, company.timeZone),
    )
    const { task, clock } = clockOfLife(
      model,
      position,
      { hours: Math.max(0, reached), days: Math.max(0, days) },
      life.first === 1,
    )
    return [
      {
        life,
        task: task?.key ?? null,
        assemblyId,
        position,
        ...named(state, assemblyId, position),
        reached,
        unit: assembly.unit,
        limit: clock?.hoursLimit ?? null,
        early: task?.tolerance.early ?? 0,
        state: clock?.state ?? 'healthy',
        days,
        planned,
        presumed: presumedEndReason(
          state.content.trigger,
          planned,
          clock?.state ?? 'healthy',
          assembly.tasks.some((each) => each.disturbed && each.positions.includes(position)),
        ),
      },
    ]
  })
  return { ending, beginning: renewed }
}

function clockOfLife(
  model: PumpModel,
  position: string,
  used: { hours: number; days: number },
  first: boolean,
) {
  const task = model.tasks.find(
    (each) =>
      (each.kind === 'renew' || each.kind === 'change') &&
      each.positions.includes(splitInstance(position).key),
  )
  return { task, clock: task && clockOf(used, task.limit, task.tolerance, first) }
}

/** Each part used with its lot, and what the lot holds by the book before and after. */
async function stockOfUses(state: SheetState) {
  const partIds = state.uses.flatMap((use) => use.payload.partId ?? [])
  const [partRows, lotRows, movementRows, company] = await Promise.all([
    parts.all({ id: partIds }),
    stockLots.all({ partId: partIds }),
    stockMovements.all({ partId: partIds }),
    ourCompany(),
  ])
  const left = new Map<string, number>()
  for (const row of movementRows) {
    const key = `${row.partId}/${row.lotId}`
    left.set(key, tidy((left.get(key) ?? 0) + row.quantity))
  }
  const { today } = present(company)
  return state.uses.map(({ id, payload }) => {
    const { partId, lotId, name, unit, quantity } = payload
    const lot = lotRows.find((each) => each.id === lotId)
    const expired = lot?.expiresOn && lot.expiresOn < today ? ', expired' : ''
    if (partId === null)
      return { id, payload, name, unit, quantity, lot: 'not from the stores', onHand: null, short: 0 }
    const key = `${partId}/${lotId}`
    const onHand = left.get(key) ?? 0
    left.set(key, tidy(onHand - quantity))
    const part = partRows.find((each) => each.id === partId)
    return {
      id,
      payload,
      name: part ? `${part.number} ${part.name}` : name,
      unit,
      quantity,
      lot: lot ? `lot ${lot.number}${expired}` : 'no lot named',
      onHand,
      short: tidy(Math.max(0, quantity - Math.max(0, onHand))),
    }
  })
}

/** What the sheet expected and the parts used do not show. */
function notUsed(state: SheetState): SigningView['notUsed'] {
  return state.content.parts.flatMap((need) => {
    const used = tidy(
      state.uses
        .filter(({ payload }) => payload.assemblyId === need.assemblyId && payload.part === need.part)
        .reduce((sum, { payload }) => sum + payload.quantity, 0),
    )
    return used < need.quantity ? [{ name: need.name, quantity: need.quantity, used, unit: need.unit }] : []
  })
}

/**
 * Signs a sheet: ends and begins lives at its reading, moves stock, closes the visit and writes the
 * audit trail, all of it or nothing. Sent twice, it signs once; a second signature from another tab is
 * refused with who signed when, and so is one that has not seen the newest entries.
 *
 * @throws `conflict`; `invalid` for an ended life without its reason
 */
export async function signSheet(actor: Actor, input: SignInput): Promise<void> {
  requirePermission(actor, 'sheets.work')
  const { id, sheetId, seenUpTo, ended, note } = check(signSchema, input)
  await write(async () => {
    const sheet = await sheets.byId(sheetId)
    if (!sheet) throw notFound('This sheet')
    const entries = await entriesOf(sheetId)
    if (entries.some((entry) => entry.id === id)) return
    const state = foldSheet(entries)!
    if (sheet.state !== 'open') {
      const company = await ourCompany()
      throw conflict(
        state.signed
          ? `${state.signed.byName} signed this sheet on ${showDay(dayOf(state.signed.at, company.timeZone))} already. What is wrong in it is corrected by a new entry.`
          : 'This sheet was given up; nothing of it counts.',
      )
    }
    if (state.upTo > seenUpTo)
      throw conflict('Something new has come in on this sheet since you looked. Look at it again, then sign.')
    const missing = notReady(state)
    if (missing.length > 0) throw conflict(`Not ready to be signed. ${missing.join(' ')}`)

    const at = workedAtOf(state)!
    const { ending, beginning } = await livesOf(sheet, state, at)
    const reasons = ending.map((life) => {
      const said = ended.find(
        (each) => each.assemblyId === life.assemblyId && each.position === life.position,
      )
      if (!said) throw invalid({ ended: `Say why the old part came out: ${life.name}.` })
      if (said.seenFailingOn && said.endReason !== 'failed') return { ...said, seenFailingOn: null, life }
      return { ...said, life }
    })
    const tooYoung = ending.find(({ life }) => life.startedAt >= at)
    if (tooYoung)
      throw conflict(
        `${tooYoung.pump}, ${tooYoung.name.toLowerCase()}, was renewed after this sheet’s reading already.`,
      )
    const lotOf = lotsByPosition(state)
    for (const { life, endReason, seenFailingOn } of reasons)
      await lives.update({ id: life.life.id }, { endedAt: at, endReason, seenFailingOn, endSheetId: sheetId })
    await lives.insertMany(
      beginning.map(({ assemblyId, position }) =>
        newLife({
          id: uuid(),
          assemblyId,
          position,
          startedAt: at,
          sheetId,
          lotId: lotOf(assemblyId, position),
          recordedAt: now(),
          recordedById: actor.id,
        }),
      ),
    )
    const looked = inspected(state)
    await taskRecords.insertMany(
      looked.map((each) => ({
        ...each,
        id: uuid(),
        sheetId,
        at,
        status: 'active',
        recordedAt: now(),
        recordedById: actor.id,
      })),
    )
    const toCount = await moveStock(actor, sheet, state)
    const signing: Signing = {
      ended: reasons.map(({ assemblyId, position, endReason, seenFailingOn, life }) => ({
        assemblyId,
        position,
        endReason,
        seenFailingOn,
        reached: life.reached,
      })),
      note,
      toCount,
    }
    await appendOwn(actor, sheetId, 'signed', signing, id)
    await closeSheet(actor, sheet, state, at, toCount)
    await setEarlyChecks(actor, sheetId, at, state)
    const done = [...ending, ...looked].flatMap(({ assemblyId, task, position }) =>
      task === null ? [] : [{ assemblyId, task, positions: [position] }],
    )
    await settleBySheet(actor, { id: sheetId, number: sheet.number, workedAt: at }, done)
  })
}

/** Which lot the part in a position came from, as far as the parts used say. */
function lotsByPosition(state: SheetState): (assemblyId: string, position: string) => string | null {
  const pools = new Map<string, string[]>()
  for (const { payload } of state.uses) {
    if (payload.lotId === null || payload.part === null) continue
    const key = `${payload.assemblyId}/${payload.part}`
    const pieces = payload.unit === 'piece' ? payload.quantity : 1
    pools.set(key, [...(pools.get(key) ?? []), ...Array.from({ length: pieces }, () => payload.lotId!)])
  }
  const find = (assembly: SheetAssembly | undefined, position: string) =>
    assembly?.positions.find((each) => each.key === position)
  return (assemblyId, position) => {
    const about = find(
      state.content.assemblies.find((each) => each.id === assemblyId),
      position,
    )
    const pool = about?.part ? pools.get(`${assemblyId}/${about.part}`) : undefined
    const [lot] = pool?.splice(0, about?.pieces === 1 ? 1 : pool.length) ?? []
    return lot ?? null
  }
}

/** Use already made at the bench is never refused; where it exceeds the book, that bin wants counting. */
async function moveStock(actor: Actor, sheet: SheetRow, state: SheetState): Promise<Signing['toCount']> {
  const uses = (await stockOfUses(state)).filter((use) => use.payload.partId !== null)
  await stockMovements.insertMany(
    uses.map(({ id, payload }) =>
      movement(actor, {
        partId: payload.partId!,
        lotId: payload.lotId,
        kind: 'use',
        quantity: -payload.quantity,
        at: now(),
        sheetId: sheet.id,
        entryId: id,
      }),
    ),
  )
  const short = uses.filter((use) => use.short > 0)
  for (const { payload, name, short: beyond, lot } of short)
    await recordChange(actor, {
      entity: 'part',
      entityId: payload.partId!,
      action: 'toCount',
      summary: `Count this bin: ${name}, ${showAmount(beyond, payload.unit)} more used on sheet ${visitNumber(sheet.number)} than the book had (${lot})`,
    })
  return short.map(({ payload, name, short: beyond }) => ({
    partId: payload.partId!,
    name,
    short: beyond,
    unit: payload.unit,
  }))
}

async function closeSheet(
  actor: Actor,
  sheet: SheetRow,
  state: SheetState,
  workedAt: string,
  toCount: Signing['toCount'],
): Promise<void> {
  const summary = state.content.assemblies
    .map((assembly) => {
      const count = state.positions.filter(
        (each) => each.assemblyId === assembly.id && each.state === 'renewed',
      ).length
      const tasks = assembly.tasks
        .map(({ name, where }) => [name, where].filter(Boolean).join(', '))
        .join('; ')
      return `${assembly.number}: ${tasks} (${count === 1 ? '1 position' : `${count} positions`} renewed)`
    })
    .join(' · ')
  const number = visitNumber(sheet.number)
  for (const [index, assemblyId] of sheet.assemblyIds.entries()) {
    const change = {
      entity: 'sheet',
      entityId: sheet.id,
      // The machine is told once, each of its pumps for itself.
      machineId: index === 0 ? sheet.machineId : null,
      assemblyId,
      action: 'signed',
      summary: `Sheet ${number} signed. ${summary}`,
      reason: toCount && toCount.length > 0 ? `Count: ${toCount.map((each) => each.name).join(', ')}` : '',
    }
    if (index === 0)
      await editRow(
        actor,
        sheets,
        { entity: 'sheet', name: `sheet ${number}` },
        sheet,
        { state: 'signed', workedAt, signedAt: now(), signedById: actor.id },
        change,
      )
    else await recordChange(actor, change)
  }
  const visit = sheet.visitId ? await visits.byId(sheet.visitId) : null
  if (visit)
    await editRow(
      actor,
      visits,
      { entity: 'visit', name: `visit ${visitNumber(visit.number)}` },
      visit,
      { state: 'done' },
      {
        machineId: sheet.machineId,
        assemblyId: sheet.assemblyIds[0] ?? null,
        action: 'done',
        summary: `Visit ${visitNumber(visit.number)} done on sheet ${number}`,
      },
    )
}
