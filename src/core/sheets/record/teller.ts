import type { SheetState } from '../state'
import type { SheetEntry } from '../types'

/** What a line of the service record is about, in the order they are told. */
export const recordKinds = {
  reading: 'Meter reading',
  madeSafe: 'Made safe',
  renewed: 'Renewed',
  kept: 'Kept',
  part: 'Part used',
  finding: 'Seen on the part',
  cause: 'Points to',
  measure: 'Measured',
  torque: 'Torque pulled',
  torqueSet: 'Torque looked up',
  found: 'Found',
  counted: 'Counted back',
  setting: 'Setting',
  photo: 'Photo',
  notUsed: 'Part not used',
  substitute: 'Tool used instead',
  skipped: 'Step skipped',
  against: 'Signed against',
  extra: 'Work added',
  remark: 'Remark',
  lock: 'Lock',
  handOver: 'Handed over',
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

/** Makes lines of one sheet's record, and knows the names of what stands on it. */
export type Teller = ReturnType<typeof tellerOf>

export function tellerOf(state: SheetState) {
  const { assemblies } = state.content
  const assemblyOf = (id: string | null) => assemblies.find((each) => each.id === id)
  return {
    line: (
      kind: RecordKind,
      entry: Pick<SheetEntry, 'id' | 'at' | 'byName' | 'takenInByName' | 'takenInWhy'>,
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
      // The record names both: its author, and whoever took it in.
      ...(entry.takenInByName && { detail: told(rest.detail, takenInWords(entry)) }),
    }),
    assemblyOf,
    pumpOf: (id: string | null) => assemblyOf(id)?.number ?? '',
    nameOf: (assemblyId: string, position: string) =>
      assemblyOf(assemblyId)?.positions.find((each) => each.key === position)?.name ?? position,
    partIn: (assemblyId: string, part: string) =>
      assemblyOf(assemblyId)?.parts.find((each) => each.key === part)?.name ?? part,
    /** The step an entry was written at, and where that is in words. */
    stepAt: (key: string | null) => {
      const step = state.steps.find((each) => each.step.key === key)?.step ?? null
      return { step, where: step ? [step.heading, step.where].filter(Boolean).join(', ') : '' }
    },
  }
}

/** Who an entry is by, and who took it in where its author could not send it: the record names both. */
export function authorWords({
  byName,
  takenInByName,
  takenInWhy,
}: Pick<SheetEntry, 'byName' | 'takenInByName' | 'takenInWhy'>): string {
  const words = takenInWords({ takenInByName, takenInWhy })
  return words === '' ? byName : `${byName} (${words})`
}

function takenInWords({
  takenInByName,
  takenInWhy,
}: Pick<SheetEntry, 'takenInByName' | 'takenInWhy'>): string {
  return takenInByName ? `taken in by ${takenInByName}: ${takenInWhy}` : ''
}

/** What there is of some words, one after the other. */
export const told = (...words: (string | undefined | false)[]): string => words.filter(Boolean).join('; ')
