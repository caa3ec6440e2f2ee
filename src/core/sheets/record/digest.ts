import { damages as damageNames, type Damage } from '../../inspection'
import type { SheetState } from '../state'
import type { ExtraWork } from '../types'
import { recordLines } from './lines'

/** What a list tells of a sheet and finds it by, so that nobody has to read its composition for that. */
export type SheetDigest = {
  pumps: string[]
  services: { name: string; where: string; pump: string }[]
  steps: number
  extra: ExtraWork[]
  /** Everybody who wrote on it, by name. */
  people: string[]
  /** What was seen on its parts. */
  damages: Damage[]
  /** What that points to, in words. */
  causes: string[]
  /** Everything said on it that somebody may look for, in small letters. */
  words: string
}

const told = ['finding', 'cause', 'found', 'remark', 'part', 'extra', 'correction', 'substitute', 'kept']

/** What of a sheet's entries its digest follows from; steps and readings come and go without it. */
export function digestOf(state: SheetState): SheetDigest {
  const { assemblies, extra = [], steps, trouble } = state.content
  const lines = recordLines(state)
  const services = assemblies.flatMap((assembly) =>
    assembly.tasks.map(({ name, where }) => ({ name, where, pump: assembly.number })),
  )
  const damages = [...new Set(state.findings.flatMap(({ payload }) => payload.damages))]
  const causes = [...new Set(lines.flatMap((line) => (line.kind === 'cause' ? line.item : [])))]
  const people = [...new Set(lines.map((line) => line.by).filter(Boolean))].sort()
  return {
    pumps: assemblies.map((assembly) => assembly.number),
    services,
    steps: steps.length,
    extra,
    people,
    damages,
    causes,
    words: [
      trouble,
      ...services.flatMap(({ name, where, pump }) => [name, where, pump]),
      ...damages.map((damage) => damageNames[damage]),
      ...people,
      ...lines.flatMap((line) => (told.includes(line.kind) ? [line.item, line.detail] : [])),
    ]
      .filter(Boolean)
      .join(' ')
      .toLowerCase(),
  }
}
