import 'server-only'
import { symptoms, type FindingLine, type SignView } from '@/core/inspection'
import { visitNumber } from '@/core/plan'
import {
  endReasonAfterCorrections,
  isTakenBack,
  recordLines,
  type RecordLine,
  type SheetState,
} from '@/core/sheets'
import { showAmount } from '@/core/stores'
import { showNumber } from '@/core/units'
import { type Actor, ourCompany, dayOf } from '../../house'
import { sheetRowsOf } from '../rows'
import { toldBySheets } from '../told'

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
  const [told, { timeZone }] = await Promise.all([
    toldBySheets(
      'findings',
      rows.map((row) => row.id),
      findingsOn,
    ),
    ourCompany(),
  ])
  const fromSheets = rows.flatMap((row): FindingLine[] =>
    (told.get(row.id) ?? [])
      .filter((line) => line.pump === pump || line.pump === '')
      .map(({ pump: _pump, at, ...line }) => ({
        ...line,
        day: dayOf(at ?? row.workedAt ?? row.startedAt, timeZone),
        sheet: { id: row.id, number: visitNumber(row.number) },
      })),
  )
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

/** A finding as one sheet tells it: of which pump, blank for all of its pumps, and when where that is known. */
type Told = Omit<FindingLine, 'day' | 'sheet'> & { pump: string; at: string | null }

function findingsOn(state: SheetState): Told[] {
  const { signed, content } = state
  const seen = recordLines(state)
    .filter((line) => !isRoutine(state, line))
    .filter((line) => ['found', 'finding', 'cause', 'measure', 'remark'].includes(line.kind))
    .map((line): Told => ({
      kind: line.kind === 'measure' ? 'measured' : line.kind === 'remark' ? 'remark' : 'found',
      pump: line.pump,
      at: line.at,
      what:
        line.kind === 'cause'
          ? `Points to: ${line.item}`
          : line.value === null
            ? line.item
            : `${line.item}: ${showAmountOf(line.value, line.unit)}`,
      detail: [line.where, line.detail].filter(Boolean).join(' · '),
      by: line.by,
    }))
  const note = signed?.payload.note
  return [
    ...content.assemblies.flatMap((each) => failedOn(state, each)),
    ...seen,
    ...(note
      ? [{ kind: 'remark' as const, pump: '', at: null, what: note, detail: '', by: signed!.byName }]
      : []),
  ]
}

/** The parts of one pump that had failed, in one line. */
function failedOn(state: SheetState, own: SheetState['content']['assemblies'][number]): Told[] {
  const failed = (state.signed?.payload.ended ?? []).filter(
    ({ assemblyId, position }) =>
      assemblyId === own.id &&
      !isTakenBack(state, assemblyId, position) &&
      endReasonAfterCorrections(state, assemblyId, position)?.endReason === 'failed',
  )
  if (failed.length === 0) return []
  const names = failed.map(
    (ended) => own.positions.find((each) => each.key === ended.position)?.name ?? ended.position,
  )
  const { reached } = failed[0]!
  return [
    {
      kind: 'failed',
      pump: own.number,
      at: null,
      what: `Failed: ${names.join('; ')}`,
      detail: [
        reached ? `after ${showNumber(Math.round(reached))} ${own.unit ?? 'h'}` : '',
        state.content.trouble,
      ]
        .filter(Boolean)
        .join(' · '),
      by: state.signed!.byName,
    },
  ]
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
