import type { SheetState } from '../state'
import type { EndedLife } from '../types'
import { recordKinds, type RecordLine } from './teller'

/** One thing a signed sheet says that can be corrected. */
export type Correctable = { of: string; label: string } & (
  | { about: 'words' }
  | { about: 'part'; quantity: number }
  | { about: 'endReason'; assemblyId: string; position: string; endReason: EndedLife['endReason'] }
  | { about: 'notRenewed'; assemblyId: string; position: string }
)

/** What of a signed sheet can be corrected, each with what a correction of it would change. */
export function correctableIn(state: SheetState, lines: RecordLine[]): Correctable[] {
  const signedId = state.signed!.id
  const nameOf = (assemblyId: string, position: string) =>
    state.content.assemblies
      .find((each) => each.id === assemblyId)
      ?.positions.find((each) => each.key === position)?.name ?? position
  return [
    ...state.uses.map((use): Correctable => ({
      about: 'part',
      of: use.id,
      label: `Part used: ${use.payload.name}`,
      quantity:
        lines.find((line) => line.entryId === use.id && line.kind === 'part')?.value ?? use.payload.quantity,
    })),
    ...state.signed!.payload.ended.map((life): Correctable => ({
      about: 'endReason',
      of: signedId,
      label: `Why it came out: ${nameOf(life.assemblyId, life.position)}`,
      assemblyId: life.assemblyId,
      position: life.position,
      endReason: life.endReason,
    })),
    ...state.positions
      .filter((each) => each.state === 'renewed')
      .map((each): Correctable => ({
        about: 'notRenewed',
        of: signedId,
        label: `Not renewed after all: ${nameOf(each.assemblyId, each.position)}`,
        assemblyId: each.assemblyId,
        position: each.position,
      })),
    ...lines
      .filter((line) =>
        [
          'reading',
          'madeSafe',
          'measure',
          'torque',
          'found',
          'substitute',
          'skipped',
          'remark',
          'finding',
          'torqueSet',
          'counted',
          'setting',
          'photo',
          'notUsed',
          'step',
        ].includes(line.kind),
      )
      .map((line): Correctable => ({
        about: 'words',
        of: line.entryId,
        label: `${recordKinds[line.kind]}: ${line.item}${line.where ? ` (${line.where})` : ''}`,
      })),
    { about: 'words', of: signedId, label: 'The signature or its note' },
  ]
}
