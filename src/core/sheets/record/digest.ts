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

/** What somebody looks for among sheets; blank is anything. */
export type SheetQuery = {
  words: string
  /** A technician by name. */
  person: string
  /** YYYY-MM. */
  month: string
  damage: string
  cause: string
  /** Only those of a breakdown. */
  breakdown: boolean
}

/** What a sheet is found by, beside its digest. */
export type FoundBy = Pick<SheetDigest, 'people' | 'damages' | 'causes' | 'words'> & {
  /** Its number, machine and yard as they are called now, in small letters. */
  called: string
  day: string
  trigger: 'planned' | 'breakdown'
}

/** Whether a sheet is one of those looked for: every word is somewhere on it, and all that is chosen holds. */
export function isLookedFor(sheet: FoundBy, query: SheetQuery): boolean {
  const all = `${sheet.called} ${sheet.words} ${sheet.trigger}`
  return (
    (!query.breakdown || sheet.trigger === 'breakdown') &&
    (query.person === '' || sheet.people.includes(query.person)) &&
    (query.month === '' || sheet.day.startsWith(query.month)) &&
    (query.damage === '' || sheet.damages.includes(query.damage as Damage)) &&
    (query.cause === '' || sheet.causes.includes(query.cause)) &&
    query.words
      .toLowerCase()
      .split(/\s+/)
      .every((word) => all.includes(word))
  )
}
