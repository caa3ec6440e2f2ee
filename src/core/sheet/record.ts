import { showAmount } from '../parts'
import { showNumber } from '../units'
import { endReasons } from '../wear'
import type { SheetState } from './fold'
import type { Correction, SheetEntry } from './types'

/** What a line of the service record is about, in the order they are told. */
export const recordKinds = {
  reading: 'Meter reading',
  madeSafe: 'Made safe',
  renewed: 'Renewed',
  kept: 'Kept',
  inspected: 'Looked at',
  part: 'Part used',
  measure: 'Measured',
  torque: 'Torque pulled',
  found: 'Found',
  substitute: 'Tool used instead',
  skipped: 'Step skipped',
  remark: 'Remark',
  step: 'Step done',
  correction: 'Correction',
  late: 'Came in after signing',
} as const
export type RecordKind = keyof typeof recordKinds

/** One line of the service record: a page, a CSV row and a JSON object all show the same. */
export type RecordLine = {
  kind: RecordKind
  /** The entry it comes from, so that a correction can name it. */
  entryId: string
  /** The pump it is about, by number; blank where it is about the whole machine. */
  pump: string
  item: string
  where: string
  value: number | null
  unit: string
  detail: string
  at: string
  by: string
}

/** How much of a part counts as used, after corrections; the newest correction holds. */
export function usedAfterCorrections(state: SheetState, use: SheetEntry<'part'>): number {
  const corrected = state.corrections.findLast(
    ({ payload }) => payload.about === 'part' && payload.of === use.id,
  )
  return corrected?.payload.about === 'part' ? corrected.payload.quantity : use.payload.quantity
}

/** Why a life ended on this sheet, after corrections. */
export function endReasonAfterCorrections(
  state: SheetState,
  assemblyId: string,
  position: string,
): { endReason: string; reached: number | null } | null {
  const ended = state.signed?.payload.ended.find(
    (each) => each.assemblyId === assemblyId && each.position === position,
  )
  if (!ended) return null
  const corrected = state.corrections.findLast(
    ({ payload }) =>
      payload.about === 'endReason' && payload.assemblyId === assemblyId && payload.position === position,
  )
  const endReason = corrected?.payload.about === 'endReason' ? corrected.payload.endReason : ended.endReason
  return { endReason, reached: ended.reached ?? null }
}

/** Whether a correction says that this position was not renewed after all. */
export function isTakenBack(state: SheetState, assemblyId: string, position: string): boolean {
  return state.corrections.some(
    ({ payload }) =>
      payload.about === 'notRenewed' && payload.assemblyId === assemblyId && payload.position === position,
  )
}

/**
 * Everything a sheet says, one line each: read, made safe, renewed, used, measured, torqued, found,
 * skipped, remarked, and every step with who did it when. What was corrected shows as corrected, and
 * the correction itself as a line of its own.
 */
export function recordLines(state: SheetState): RecordLine[] {
  const { content } = state
  const pumpOf = (id: string | null) => content.assemblies.find((each) => each.id === id)?.number ?? ''
  const nameOf = (assemblyId: string, position: string) =>
    content.assemblies.find((each) => each.id === assemblyId)?.positions.find((each) => each.key === position)
      ?.name ?? position
  const line = (
    kind: RecordKind,
    entry: Pick<SheetEntry, 'id' | 'at' | 'byName'>,
    rest: Partial<RecordLine> & { item: string },
  ): RecordLine => ({
    kind,
    entryId: entry.id,
    pump: '',
    where: '',
    value: null,
    unit: '',
    detail: '',
    at: entry.at,
    by: entry.byName,
    ...rest,
  })
  const lines: RecordLine[] = []

  for (const entry of state.readings) {
    const meter = content.meters.find((each) => each.id === entry.payload.meterId)
    lines.push(
      line('reading', entry, {
        item: meter?.name ?? 'Meter',
        detail: entry.payload.unreadable
          ? `could not be read: ${entry.payload.unreadable}`
          : `${entry.payload.shown ?? entry.payload.typed}${entry.payload.status === 'doubted' ? `, in doubt: ${entry.payload.reason}` : ''}`,
      }),
    )
  }
  if (state.madeSafe)
    lines.push(line('madeSafe', state.madeSafe, { item: 'Confirmed', detail: state.madeSafe.payload.name }))

  for (const position of state.positions) {
    if (position.state === 'open') continue
    const { assemblyId } = position
    const entry = state.signed ?? state.steps.findLast((each) => each.step.position === position.position)?.by
    if (!entry) continue
    const back = isTakenBack(state, assemblyId, position.position)
    const ended = endReasonAfterCorrections(state, assemblyId, position.position)
    const unit = content.assemblies.find((each) => each.id === assemblyId)?.unit ?? 'h'
    const renewed = position.state === 'renewed' && !back
    lines.push(
      line(renewed ? 'renewed' : 'kept', entry, {
        pump: pumpOf(assemblyId),
        item: nameOf(assemblyId, position.position),
        value: renewed && ended?.reached != null ? Math.round(ended.reached * 10) / 10 : null,
        unit: renewed && ended?.reached != null ? unit : '',
        detail: [
          renewed && ended ? endReasons[ended.endReason as keyof typeof endReasons] : '',
          position.planned ? '' : 'besides what was planned',
          position.reason,
          back ? 'corrected: it was not renewed' : '',
        ]
          .filter(Boolean)
          .join('; '),
      }),
    )
  }

  for (const entry of state.uses) {
    const quantity = usedAfterCorrections(state, entry)
    lines.push(
      line('part', entry, {
        pump: pumpOf(entry.payload.assemblyId),
        item: entry.payload.name,
        value: quantity,
        unit: entry.payload.unit,
        detail: [
          entry.payload.partId === null
            ? 'not from the stores'
            : entry.payload.lot
              ? `lot ${entry.payload.lot}`
              : 'lot not known',
          quantity === entry.payload.quantity
            ? ''
            : `corrected from ${showAmount(entry.payload.quantity, entry.payload.unit)}`,
        ]
          .filter(Boolean)
          .join('; '),
      }),
    )
  }

  for (const { step, by, state: is } of state.steps) {
    if (!by || (is !== 'done' && is !== 'skipped')) continue
    const place = {
      pump: pumpOf(step.assemblyId),
      where: [step.heading, step.where].filter(Boolean).join(', '),
    }
    if (by.kind === 'skipped') {
      lines.push(line('skipped', by, { ...place, item: step.step.text, detail: by.payload.reason }))
      continue
    }
    const { measure, torque, answer, reason } = by.payload
    if (measure)
      lines.push(
        line('measure', by, {
          ...place,
          item: step.step.measure?.what ?? '',
          value: measure.value,
          unit: measure.unit,
          detail: reason,
        }),
      )
    if (torque)
      lines.push(
        line('torque', by, {
          ...place,
          item: step.step.text,
          value: torque.value,
          unit: torque.unit,
          detail: reason,
        }),
      )
    if (answer) lines.push(line('found', by, { ...place, item: answer, detail: reason }))
    lines.push(
      line('step', by, { ...place, item: step.step.text, detail: measure || torque || answer ? '' : reason }),
    )
  }
  for (const entry of state.substitutes) {
    const step = state.steps.find((each) => each.step.key === entry.stepKey)?.step
    lines.push(
      line('substitute', entry, {
        pump: pumpOf(step?.assemblyId ?? null),
        item: entry.payload.used,
        where: step ? [step.heading, step.where].filter(Boolean).join(', ') : '',
        detail: `instead of ${entry.payload.tool}: ${entry.payload.reason}`,
      }),
    )
  }
  for (const entry of state.remarks) {
    const step = state.steps.find((each) => each.step.key === entry.stepKey)?.step
    lines.push(
      line('remark', entry, {
        pump: step && step.phase !== 'makeSafe' && step.phase !== 'prove' ? pumpOf(step.assemblyId) : '',
        item: entry.payload.text,
        where: step ? [step.heading, step.where].filter(Boolean).join(', ') : '',
      }),
    )
  }
  for (const entry of state.corrections)
    lines.push(
      line('correction', entry, {
        item: correctionWords(entry.payload, lines, nameOf),
        detail: entry.payload.reason,
      }),
    )
  for (const entry of state.late)
    lines.push(line('late', entry, { item: lateWords(entry), detail: 'without effect on this record' }))
  const order = Object.keys(recordKinds)
  return lines
    .map((each, index) => ({ each, index }))
    .sort((a, b) => order.indexOf(a.each.kind) - order.indexOf(b.each.kind) || a.index - b.index)
    .map(({ each }) => each)
}

function correctionWords(
  correction: Correction,
  lines: RecordLine[],
  nameOf: (assemblyId: string, position: string) => string,
): string {
  const corrected =
    lines.find((each) => each.entryId === correction.of && each.kind !== 'step') ??
    lines.find((each) => each.entryId === correction.of)
  const what = corrected ? `“${corrected.item}”` : 'an entry'
  switch (correction.about) {
    case 'words':
      return `${what}: ${correction.text}`
    case 'part':
      return `${what}: used ${showNumber(correction.quantity)}`
    case 'endReason':
      return `${nameOf(correction.assemblyId, correction.position)}: ${endReasons[correction.endReason].toLowerCase()}`
    case 'notRenewed':
      return `${nameOf(correction.assemblyId, correction.position)}: not renewed after all`
  }
}

function lateWords(entry: SheetEntry): string {
  switch (entry.kind) {
    case 'remark':
      return `Remark: ${entry.payload.text}`
    case 'part':
      return `Part used: ${entry.payload.name}, ${showAmount(entry.payload.quantity, entry.payload.unit)}`
    case 'skipped':
      return `A step skipped: ${entry.payload.reason}`
    default:
      return (
        { reading: 'A reading', done: 'A step done', takeBack: 'An entry taken back' }[
          entry.kind as string
        ] ?? entry.kind
      )
  }
}
