import 'server-only'
import { v7 as uuid } from 'uuid'
import { addDays, showDay } from '@/core/calendar'
import { findingWords, symptoms } from '@/core/inspection'
import { visitNumber } from '@/core/plan'
import { conflict, invalid, notFound, check } from '@/core/problem'
import {
  foundFacts,
  sheetState,
  inspected,
  notReady,
  partName,
  signatureSchema,
  toSeeTo,
  type Signing,
  type SheetState,
  type SignatureInput,
  type SigningView,
} from '@/core/sheets'
import { inSentence, showNumber } from '@/core/units'
import { write } from '@/db/house'
import { lives, newLife } from '@/db/wear'
import { sheets, taskRecords, type SheetRow } from '@/db/sheets'
import { visits } from '@/db/plan'
import {
  requirePermission,
  type Actor,
  recordChange,
  now,
  ourCompany,
  present,
  dayOf,
  editRow,
} from '../../house'
import { learnFact } from '../../composing'
import { linkFailures, setEarlyChecks, getWear } from '../../wear'
import { livesOf, named, workedAtOf } from './lives'
import { appendOwn, entriesOf } from '../sheets'
import { tellWinter } from './winter'
import { lotsByPosition, moveStock, notUsed, stockOfUses } from './stock'
import { reportSign, settleBySheet } from '../../inspection'

/** What signing a sheet will do: which lives end and begin, what leaves stock, what is still missing. */
export async function getSigning(_actor: Actor, sheetId: string): Promise<SigningView> {
  const sheet = await sheets.byId(sheetId)
  if (!sheet) throw notFound('This sheet')
  const state = sheetState(await entriesOf(sheetId))!
  const workedAt = workedAtOf(state)
  const { ending, beginning } = await livesOf(sheet, state, workedAt ?? now())
  const nameOf = (assemblyId: string, position: string) => named(state, assemblyId, position)
  const uses = await stockOfUses(sheet, state)
  return {
    notReady: notReady(state),
    upTo: state.upTo,
    earlyCheckHours: (await ourCompany()).earlyCheckHours,
    minutes: { worked: state.workedMinutes, estimated: state.content.minutes },
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

/**
 * Signs a sheet: ends and begins lives at its reading, moves stock, closes the visit and writes the
 * audit trail, all of it or nothing. Sent twice, it signs once; a second signature from another tab is
 * refused with who signed when, and so is one that has not seen the newest entries.
 *
 * @throws `conflict`; `invalid` for an ended life without its reason
 */
export async function signSheet(actor: Actor, input: SignatureInput): Promise<void> {
  requirePermission(actor, 'sheets.work')
  const { id, sheetId, seenUpTo, ended, note, earlyCheckHours } = check(signatureSchema, input)
  await write(async () => {
    const sheet = await sheets.byId(sheetId)
    if (!sheet) throw notFound('This sheet')
    const entries = await entriesOf(sheetId)
    if (entries.some((entry) => entry.id === id)) return
    const state = sheetState(entries)!
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
        `${tooYoung.pump}, ${inSentence(tooYoung.name)}, was renewed after this sheet’s reading already.`,
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
    await linkFailures(actor, sheet, signing.ended)
    const afterHours = Number(earlyCheckHours ?? (await ourCompany()).earlyCheckHours)
    const checked = await setEarlyChecks(actor, sheetId, at, state, afterHours)
    signing.earlyCheckHours = checked > 0 ? afterHours : null
    signing.next = await nextDue(actor, sheet.assemblyIds)
    await appendOwn(actor, sheetId, 'signed', signing, id)
    await closeSheet(actor, sheet, state, at, toCount)
    const done = [...ending, ...looked].flatMap(({ assemblyId, task, position }) =>
      task === null ? [] : [{ assemblyId, task, positions: [position] }],
    )
    for (const found of foundFacts(state)) await learnFact(actor, found)
    await settleBySheet(actor, { id: sheetId, number: sheet.number, workedAt: at }, done)
    await leaveSigns(actor, sheetId, state, at)
    await tellWinter(actor, sheet, state)
  })
}

/** What was found bad and is no position stands open as a sign of its pump until somebody has seen to it. */
async function leaveSigns(actor: Actor, sheetId: string, state: SheetState, at: string): Promise<void> {
  const company = await ourCompany()
  for (const { payload } of toSeeTo(state)) {
    const { assemblyId, damages, extent, words } = payload
    const seen = `${partName(state, payload)}: ${findingWords(damages, extent).toLowerCase()}`
    await reportSign(actor, {
      id: uuid(),
      machineId: null,
      assemblyId,
      symptom: 'other',
      seenOn: dayOf(at, company.timeZone),
      words: [seen, words].filter(Boolean).join('; ').slice(0, 300),
      dripsPerMinute: null,
      flow: null,
      task: '',
      positions: [],
      by: addDays(present(company).today, symptoms.other.withinDays),
      sheetId,
    })
  }
}

/** How many coming services a record tells for each pump. */
const mostNext = 4

/** What is due next on the pumps of a sheet, once its lives have begun: the nearest first. */
async function nextDue(actor: Actor, assemblyIds: string[]): Promise<Signing['next']> {
  const views = await Promise.all(assemblyIds.map((id) => getWear(actor, id)))
  return views.flatMap((view) =>
    (view?.clocks ?? [])
      .filter((clock) => clock.hoursLimit !== null || clock.daysLimit !== null)
      .sort((a, b) => ((a.aboutDay ?? '9999') < (b.aboutDay ?? '9999') ? -1 : 1))
      .slice(0, mostNext)
      .map((clock) => ({
        pump: view!.number,
        service: [clock.name, clock.where].filter(Boolean).join(', '),
        limit: [
          clock.hoursLimit === null
            ? ''
            : `${showNumber(Math.max(0, Math.round(clock.hoursLimit - clock.hoursUsed)))}\u00a0${view!.unit}`,
          clock.daysLimit === null
            ? ''
            : `${showNumber(Math.max(0, clock.daysLimit - clock.daysUsed))}\u00a0days`,
        ]
          .filter(Boolean)
          .join(' or '),
        about: clock.aboutDay,
      })),
  )
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
    .concat(
      state.content.winter
        ? [state.content.winter.kind === 'lay' ? 'Made safe for winter' : 'Back from winter']
        : [],
    )
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
