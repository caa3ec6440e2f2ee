import 'server-only'
import { symptoms, type FindingLine, type SignView } from '@/core/inspection'
import { visitNumber } from '@/core/plan'
import {
  endReasonAfterCorrections,
  sheetState,
  isTakenBack,
  recordLines,
  type RecordLine,
  type SheetState,
} from '@/core/sheets'
import { showAmount } from '@/core/stores'
import { showNumber } from '@/core/units'
import { sheetEntries } from '@/db/sheets'
import { type Actor, ourCompany, dayOf, groupBy } from '../../house'
import { asEntry, sheetRowsOf } from '../rows'

/**
 * What was found on one pump over time, newest first: parts that had failed, what inspections saw and
 * measured, remarks, and the signs with what they point at.
 */
export async function findingsOf(
  _actor: Actor,
  { id, number: pump }: { id: string; number: string },
  signs: SignView[],
): Promise<FindingLine[]> {
  const rows = (await sheetRowsOf({ assemblyId: id })).filter((row) => row.state === 'signed')
  const [entryRows, { timeZone }] = await Promise.all([
    sheetEntries.all({ sheetId: rows.map((row) => row.id) }, [['sequence', 'ASC']]),
    ourCompany(),
  ])
  const entriesOf = groupBy(entryRows, (row) => row.sheetId)
  const fromSheets = rows.flatMap((row): FindingLine[] => {
    const state = sheetState((entriesOf.get(row.id) ?? []).map(asEntry))
    if (!state) return []
    const sheet = { id: row.id, number: visitNumber(row.number) }
    const day = dayOf(row.workedAt ?? row.startedAt, timeZone)
    const own = state.content.assemblies.find((each) => each.number === pump)
    const failed = (state.signed?.payload.ended ?? [])
      .filter(
        (ended) => ended.assemblyId === own?.id && !isTakenBack(state, ended.assemblyId, ended.position),
      )
      .filter(
        (ended) => endReasonAfterCorrections(state, ended.assemblyId, ended.position)?.endReason === 'failed',
      )
    const names = failed.map(
      (ended) => own?.positions.find((each) => each.key === ended.position)?.name ?? ended.position,
    )
    const reached = failed[0]?.reached
    const seen = recordLines(state)
      .filter((line) => !isRoutine(state, line))
      .filter(
        (line) =>
          ['found', 'finding', 'cause', 'measure', 'remark'].includes(line.kind) &&
          (line.pump === pump || line.pump === ''),
      )
      .map((line): FindingLine => ({
        kind: line.kind === 'measure' ? 'measured' : line.kind === 'remark' ? 'remark' : 'found',
        day: dayOf(line.at, timeZone),
        what:
          line.kind === 'cause'
            ? `Points to: ${line.item}`
            : line.value === null
              ? line.item
              : `${line.item}: ${showAmountOf(line.value, line.unit)}`,
        detail: [line.where, line.detail].filter(Boolean).join(' · '),
        by: line.by,
        sheet,
      }))
    const note = state.signed?.payload.note
    return [
      ...(names.length > 0
        ? [
            {
              kind: 'failed' as const,
              day,
              what: `Failed: ${names.join('; ')}`,
              detail: [
                reached ? `after ${showNumber(Math.round(reached))} ${own?.unit ?? 'h'}` : '',
                state.content.trouble,
              ]
                .filter(Boolean)
                .join(' · '),
              by: state.signed!.byName,
              sheet,
            },
          ]
        : []),
      ...seen,
      ...(note
        ? [{ kind: 'remark' as const, day, what: note, detail: '', by: state.signed!.byName, sheet }]
        : []),
    ]
  })
  const fromSigns = signs.map((sign): FindingLine => {
    const suspects = sign.triage.likely.slice(0, 2).map((each) => each.name.toLowerCase())
    return {
      kind: 'sign',
      day: sign.seenOn,
      what: `${symptoms[sign.symptom].name}: ${sign.words}`,
      detail: [
        sign.figures,
        suspects.length > 0 ? `points at ${suspects.join(', then ')}` : '',
        sign.settled ? `settled: ${sign.settled.words}` : 'open',
      ]
        .filter(Boolean)
        .join(' · '),
      by: sign.reportedBy,
      sheet: sign.sheet,
    }
  })
  return [...fromSheets, ...fromSigns].sort((a, b) => (a.day < b.day ? 1 : a.day > b.day ? -1 : 0))
}

function showAmountOf(value: number, unit: string): string {
  return unit === 'piece' ? showAmount(value, 'piece') : `${showNumber(value)}\u00a0${unit}`
}

/** The answer a step expects, or a figure inside its limits, is no finding. */
function isRoutine(state: SheetState, line: RecordLine): boolean {
  // A part that was looked at and showed nothing is as it should be.
  if (line.kind === 'finding') {
    const finding = state.findings.find((each) => each.id === line.entryId)
    return finding?.payload.damages.length === 0
  }
  const step = state.steps.find((each) => each.by?.id === line.entryId)?.step.step
  if (line.kind === 'found') return step?.asks?.answers[0] === line.item
  if (line.kind !== 'measure' || line.value === null) return false
  const { min = null, max = null } = step?.measure ?? {}
  return (min === null || line.value >= min) && (max === null || line.value <= max)
}
