import { showAmount } from '../../stores'
import { showNumber } from '../../units'
import { endReasons } from '../../wear'
import { stepLines } from './steps'
import { recordKinds, tellerOf, type RecordLine, type Teller } from './teller'
import { aroundLines, lifeLines, lookLines, partLines, startLines } from './work'
import type { SheetState } from '../state'
import type { Correction, SheetEntry } from '../types'

/**
 * Everything a sheet says, one line each: read, made safe, renewed, seen, used, measured, torqued, found,
 * counted, skipped, remarked, and every step with who did it when. What was corrected shows as corrected,
 * and the correction itself as a line of its own.
 *
 * @returns in the order of `recordKinds`
 */
export function recordLines(state: SheetState): RecordLine[] {
  const teller = tellerOf(state)
  const said = [startLines, lifeLines, partLines, lookLines, stepLines, aroundLines].flatMap((lines) =>
    lines(state, teller),
  )
  const after = [
    ...state.corrections.map((entry) =>
      teller.line('correction', entry, {
        item: correctionWords(entry.payload, said, teller.nameOf),
        detail: entry.payload.reason,
      }),
    ),
    ...state.late.map((entry) =>
      teller.line('late', entry, { item: lateWords(entry), detail: 'without effect on this record' }),
    ),
  ]
  const order = Object.keys(recordKinds)
  return [...said, ...after].sort((a, b) => order.indexOf(a.kind) - order.indexOf(b.kind))
}

function correctionWords(correction: Correction, lines: RecordLine[], nameOf: Teller['nameOf']): string {
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
