import 'server-only'
import { visitNumber } from '@/core/plan'
import { conflict, invalid, notAllowed, notFound, check } from '@/core/problem'
import {
  correctionSchema,
  sheetState,
  isTakenBack,
  usedAfterCorrections,
  type Correction,
  type CorrectionInput,
  type SheetState,
} from '@/core/sheets'
import { endReasons } from '@/core/wear'
import { tidy } from '@/core/stores'
import { write } from '@/db/house'
import { lives } from '@/db/wear'
import { sheets, type SheetRow } from '@/db/sheets'
import { stockMovements } from '@/db/stores'
import { requirePermission, type Actor, recordChange, now } from '../../house'
import { linkFailures, reviseEarlyChecks } from '../../wear'
import { appendOwn, entriesOf } from '../sheets'
import { reopenBySheet } from '../../inspection'
import { countsIn, movement, loadPlaces, yardsOfWork } from '../../stores'

/**
 * Corrects a signed sheet by a new entry that names the one it corrects. What the wrong entry had done
 * is put right with it: stock moves back, a life that ended by mistake runs on.
 */
export async function correctSheet(actor: Actor, input: CorrectionInput): Promise<void> {
  requirePermission(actor, 'sheets.work')
  const { id, sheetId, ...correction } = check(correctionSchema, input)
  await write(async () => {
    const sheet = await sheets.byId(sheetId)
    if (!sheet) throw notFound('This sheet')
    const entries = await entriesOf(sheetId)
    if (entries.some((entry) => entry.id === id)) return
    const state = sheetState(entries)!
    if (!state.signed) throw conflict('This sheet is not signed: change it on the sheet itself.')
    if (actor.role !== 'coordinator' && state.signed.byId !== actor.id)
      throw notAllowed('Only a coordinator, or whoever signed this sheet, can correct it.')
    if (!entries.some((entry) => entry.id === correction.of))
      throw invalid({ of: 'Name the entry that this corrects.' })
    const words = await effectOf(actor, sheet, state, correction)
    await appendOwn(actor, sheetId, 'correction', correction, id)
    await recordChange(actor, {
      entity: 'sheet',
      entityId: sheetId,
      machineId: sheet.machineId,
      assemblyId: sheet.assemblyIds[0] ?? null,
      action: 'corrected',
      summary: `Sheet ${visitNumber(sheet.number)} corrected: ${words}`,
      reason: correction.reason,
    })
  })
}

/** Does what a correction says, and says it in words for the audit trail. */
async function effectOf(
  actor: Actor,
  sheet: SheetRow,
  state: SheetState,
  correction: Correction,
): Promise<string> {
  switch (correction.about) {
    case 'words':
      return correction.text
    case 'part':
      return correctUse(actor, sheet, state, correction)
    case 'endReason':
      return correctEndReason(actor, sheet, state, correction)
    case 'notRenewed':
      return takeRenewalBack(actor, sheet, state, correction)
  }
}

async function correctUse(
  actor: Actor,
  sheet: SheetRow,
  state: SheetState,
  { of, quantity, reason }: Extract<Correction, { about: 'part' }>,
): Promise<string> {
  const use = state.uses.find((each) => each.id === of)
  if (!use) throw invalid({ of: 'This is not a part that was used.' })
  const { partId, lotId, name, unit } = use.payload
  if (unit === 'piece' && !Number.isInteger(quantity)) throw invalid({ quantity: 'Pieces are used whole.' })
  const before = usedAfterCorrections(state, use)
  if (before === quantity) throw invalid({ quantity: 'This is what the sheet says already.' })
  const counted =
    partId !== null &&
    countsIn(await stockMovements.all({ partId, kind: 'count' })).some(
      (count) => count.lotId === lotId && count.at >= use.at,
    )
  // What was found when the bin was counted since is true whatever was used before.
  if (counted)
    return `${name}: ${quantity} used instead of ${before}; its bin was counted since, so stock stays`
  if (partId !== null)
    await stockMovements.insert(
      movement(actor, {
        partId,
        lotId,
        // What comes back lies on the shelf of the yard that it was taken in.
        placeId: await shelfOfUse(sheet, of),
        kind: 'correction',
        quantity: tidy(before - quantity),
        at: now(),
        sheetId: sheet.id,
        reason,
      }),
    )
  return `${name}: ${quantity} used instead of ${before}`
}

async function shelfOfUse(sheet: SheetRow, entryId: string): Promise<string> {
  const [taken] = await stockMovements.all({ sheetId: sheet.id, entryId, kind: 'use' })
  const places = await loadPlaces()
  return taken ? places.yardOf(taken.placeId) : (await yardsOfWork())(sheet)
}

async function correctEndReason(
  actor: Actor,
  sheet: SheetRow,
  state: SheetState,
  { assemblyId, position, endReason }: Extract<Correction, { about: 'endReason' }>,
): Promise<string> {
  const life = await lives.find({ assemblyId, position, endSheetId: sheet.id, status: 'active' })
  if (!life) throw invalid({ position: 'No life ended there on this sheet.' })
  if (endReason === life.endReason) throw invalid({ endReason: 'This is what the sheet says already.' })
  // When it was first seen failing is only true of a part that failed.
  await lives.update(
    { id: life.id },
    { endReason, seenFailingOn: endReason === 'failed' ? life.seenFailingOn : null },
  )
  const reached = state.signed?.payload.ended.find(
    (each) => each.assemblyId === assemblyId && each.position === position,
  )?.reached
  if (endReason === 'failed') await linkFailures(actor, sheet, [{ assemblyId, position, endReason, reached }])
  else await reviseEarlyChecks(actor, sheet, assemblyId)
  return `${nameOf(state, assemblyId, position)}: ${endReasons[endReason].toLowerCase()}`
}

async function takeRenewalBack(
  actor: Actor,
  sheet: SheetRow,
  state: SheetState,
  { assemblyId, position }: Extract<Correction, { about: 'notRenewed' }>,
): Promise<string> {
  const begun = await lives.find({ assemblyId, position, sheetId: sheet.id, status: 'active' })
  if (!begun || isTakenBack(state, assemblyId, position))
    throw invalid({ position: 'Nothing was renewed there on this sheet.' })
  if (begun.endedAt !== null) throw conflict('It was renewed again since: correct that sheet first.')
  await lives.update({ id: begun.id }, { status: 'superseded' })
  await lives.update(
    { assemblyId, position, endSheetId: sheet.id, status: 'active' },
    { endedAt: null, endReason: '', endSheetId: null, seenFailingOn: null },
  )
  await reopenBySheet(actor, sheet.id, { assemblyId, position })
  await reviseEarlyChecks(actor, sheet, assemblyId)
  return `${nameOf(state, assemblyId, position)}: not renewed after all`
}

function nameOf(state: SheetState, assemblyId: string, position: string): string {
  const assembly = state.content.assemblies.find((each) => each.id === assemblyId)
  return assembly?.positions.find((each) => each.key === position)?.name ?? position
}
