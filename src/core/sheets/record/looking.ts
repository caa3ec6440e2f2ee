import type { Damage } from '../../inspection'
import type { SheetDigest } from './digest'

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

/** Any sheet at all. */
export const anySheet: SheetQuery = {
  words: '',
  person: '',
  month: '',
  damage: '',
  cause: '',
  breakdown: false,
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
