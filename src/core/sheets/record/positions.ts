import { dispositions, findingWords } from '../../inspection'
import { endReasons } from '../../wear'
import { endReasonAfterCorrections, isTakenBack } from './corrections'
import { positionPlace } from '../places'
import { partName } from '../signing/sign'
import type { PositionState, SheetState } from '../state'
import type { SheetEntry } from '../types'

/** One position of the record: what was seen on it, what was decided, and what was done. */
export type PositionLine = {
  pump: string
  name: string
  done: 'renewed' | 'put back' | 'kept' | 'looked at'
  /** Hours or strokes the old part had reached; null where nothing is known of it. */
  reached: number | null
  unit: string
  /** Why the old part came out, in words; blank where none did. */
  why: string
  seen: string
  decided: string
  words: string
}

/**
 * Every position that a sheet touched, in body order: renewed, put back, kept against the plan, or looked
 * at; then what was seen on what is no position, such as the manifold.
 */
export function positionLines(state: SheetState): PositionLine[] {
  return state.content.assemblies.flatMap((assembly) => [
    ...assembly.positions.flatMap(({ key, name }): PositionLine[] => {
      const position = state.positions.find(
        (each) => each.assemblyId === assembly.id && each.position === key,
      )
      const finding = state.findings.find(
        ({ payload }) => payload.assemblyId === assembly.id && payload.position === key,
      )?.payload
      const back = isTakenBack(state, assembly.id, key)
      const is = position?.state ?? 'open'
      if (is === 'open' && !finding) return []
      const ended = is === 'renewed' ? endReasonAfterCorrections(state, assembly.id, key) : null
      return [
        {
          pump: assembly.number,
          name,
          done: back ? 'kept' : doneAt(state, position),
          reached: ended?.reached == null ? null : Math.round(ended.reached * 10) / 10,
          unit: assembly.unit,
          why: ended ? endReasons[ended.endReason as keyof typeof endReasons] : '',
          seen: finding ? findingWords(finding.damages, finding.extent) : '',
          decided: finding ? dispositions[finding.disposition] : '',
          words: [
            is === 'renewed' && position && !position.planned ? 'besides what was planned' : '',
            finding?.words,
            position?.reason,
            back ? 'corrected: it was not renewed' : '',
          ]
            .filter(Boolean)
            .join('; '),
        },
      ]
    }),
    ...state.findings
      .filter(({ payload }) => payload.assemblyId === assembly.id && payload.position === null)
      .map(({ payload }): PositionLine => ({
        pump: assembly.number,
        name: partName(state, payload),
        done: 'looked at',
        reached: null,
        unit: assembly.unit,
        why: '',
        seen: findingWords(payload.damages, payload.extent),
        decided: dispositions[payload.disposition],
        words: payload.words,
      })),
  ])
}

function doneAt(state: SheetState, position: PositionState | undefined): PositionLine['done'] {
  if (!position || position.state === 'open') return 'looked at'
  if (position.state === 'renewed') return 'renewed'
  return positionPlace(state, position) === 'reused' ? 'put back' : 'kept'
}

/** Everybody who wrote on a sheet, in the order in which they came to it. */
export function workersOf(entries: SheetEntry[]): string[] {
  return [
    ...new Set(
      entries
        .filter(({ kind, late }) => !late && kind !== 'composed' && kind !== 'correction')
        .map(({ byName }) => byName),
    ),
  ]
}
