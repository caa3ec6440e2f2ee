import type { PositionSort } from '../models'

/** What an inspection can see on a part or in the oil. */
export const damages = {
  pitting: 'Pitted',
  scoring: 'Scored',
  crack: 'Cracked',
  washout: 'Stepped or washed out',
  cut: 'Cut or nicked',
  extrusion: 'Extruded',
  torn: 'Torn',
  flattened: 'Flattened or hard',
  glazed: 'Glazed',
  melted: 'Blistered or melted',
  swollen: 'Swollen or sticky',
  wornPost: 'Worn post',
  wornTaper: 'Worn taper',
  spring: 'Weak or broken spring',
  scale: 'Scale',
  corrosion: 'Corroded',
  dirt: 'Dirt or grit',
  blued: 'Blued by heat',
  milky: 'Milky',
  metal: 'Metal in it',
  dark: 'Dark, burnt smell',
  rising: 'Level has risen',
  play: 'Play out of limits',
} as const
export type Damage = keyof typeof damages
export const damageKeys = Object.keys(damages) as Damage[]

/** What a finding is about: a sort of wearing position, or a thing beside them that a strip-down shows. */
export const findingSorts = {
  valve: 'Valve',
  seal: 'Seal',
  plunger: 'Plunger',
  oilSeal: 'Oil seal',
  oil: 'Oil',
  filter: 'Filter',
  other: 'Other part',
  manifold: 'Manifold or head',
  bush: 'Bush or support ring',
  oring: 'O-ring',
  bearing: 'Bearing',
} as const
export type FindingSort = PositionSort | 'manifold' | 'bush' | 'oring' | 'bearing'
export const findingSortKeys = Object.keys(findingSorts) as FindingSort[]

/** What each sort of part is looked at for, the likeliest first: what the bench offers by one tap each. */
export const damagesOf: Record<FindingSort, Damage[]> = {
  valve: ['pitting', 'washout', 'wornTaper', 'wornPost', 'spring', 'crack', 'dirt', 'scale', 'corrosion'],
  seal: ['extrusion', 'glazed', 'flattened', 'cut', 'torn', 'scoring', 'swollen', 'melted', 'dirt'],
  plunger: ['scoring', 'crack', 'scale', 'blued', 'corrosion'],
  oilSeal: ['flattened', 'cut', 'torn', 'swollen', 'dirt'],
  oil: ['milky', 'metal', 'dark', 'rising'],
  filter: ['dirt', 'torn', 'scale', 'corrosion'],
  other: ['scoring', 'crack', 'pitting', 'corrosion', 'blued', 'torn', 'play', 'dirt'],
  manifold: ['pitting', 'crack', 'scoring', 'corrosion', 'scale'],
  bush: ['scoring', 'washout', 'torn', 'crack'],
  oring: ['cut', 'flattened', 'extrusion', 'swollen'],
  bearing: ['play', 'blued', 'corrosion', 'scoring'],
}

export const extents = { slight: 'slight', clear: 'clear', severe: 'severe' } as const
export type Extent = keyof typeof extents

/** What is decided about a part that was looked at. */
export const dispositions = {
  reuse: 'Goes back',
  clean: 'Cleaned, goes back',
  renew: 'Renew',
  renewMate: 'Renew, look at its mate',
  stop: 'Stop and ask',
} as const
export type Disposition = keyof typeof dispositions
export const dispositionKeys = Object.keys(dispositions) as Disposition[]

/** Damage that cleaning takes away. */
const cleanable: Damage[] = ['dirt', 'scale']

/** Damage of one part that usually shows on the part it runs against too. */
const onMate: Damage[] = ['scoring', 'extrusion', 'torn', 'glazed', 'melted', 'blued', 'washout']

/**
 * What is usually decided for what was seen; the bench begins with it and the technician decides.
 * Nothing seen: what is to be renewed anyway is renewed, the rest goes back. Elastomers with any damage
 * are renewed; what cleaning takes away is cleaned; a cracked manifold or metal in the oil stops the job.
 *
 * @param alwaysRenew the sheet renews this part whatever is seen
 * @example usualDisposition('seal', ['extrusion'], true) // 'renewMate'
 */
export function usualDisposition(sort: FindingSort, seen: Damage[], alwaysRenew: boolean): Disposition {
  if (sort === 'manifold' && seen.includes('crack')) return 'stop'
  if (sort === 'oil' && seen.includes('metal')) return 'stop'
  if (sort === 'bearing' && seen.length > 0) return 'stop'
  if (seen.length === 0) return alwaysRenew ? 'renew' : 'reuse'
  const runsAgainst = matesOf(sort).length > 0 && seen.some((each) => onMate.includes(each))
  if (sort === 'seal' || sort === 'oilSeal' || sort === 'oring') return runsAgainst ? 'renewMate' : 'renew'
  if (!alwaysRenew && sort !== 'oil' && seen.every((each) => cleanable.includes(each))) return 'clean'
  return runsAgainst ? 'renewMate' : 'renew'
}

/**
 * Why a disposition does not hold, in one sentence; null when it does. A crack never goes back. A part
 * that is always renewed, and an elastomer with any damage, goes back only with a reason.
 *
 * @param reason as the technician gave it; blank for none
 */
export function dispositionRefusal(
  sort: FindingSort,
  seen: Damage[],
  disposition: Disposition,
  alwaysRenew: boolean,
  reason: string,
): string | null {
  const goesBack = disposition === 'reuse' || disposition === 'clean'
  if (!goesBack) return null
  if (seen.includes('crack')) return 'A cracked part never goes back.'
  if (reason !== '') return null
  if (alwaysRenew) return 'This part is always renewed here: say why it goes back.'
  const elastomer = sort === 'seal' || sort === 'oilSeal' || sort === 'oring'
  if (elastomer && seen.length > 0) return 'A damaged seal is renewed: say why it goes back.'
  if (disposition === 'reuse' && seen.length > 0) return 'Say why it goes back as it is.'
  return null
}

/** The sorts that a part runs against, on the same cylinder: its mating parts, to be looked at with it. */
export function matesOf(sort: FindingSort): FindingSort[] {
  switch (sort) {
    case 'seal':
      return ['plunger']
    case 'plunger':
      return ['seal', 'oilSeal']
    case 'oilSeal':
      return ['plunger']
    case 'bush':
      return ['seal', 'plunger']
    default:
      return []
  }
}

/** @example findingWords(['pitting', 'spring'], 'clear') // 'Pitted, weak or broken spring (clear)' */
export function findingWords(seen: Damage[], extent: Extent | ''): string {
  if (seen.length === 0) return 'Nothing seen'
  const words = seen.map((each, index) => (index === 0 ? damages[each] : damages[each].toLowerCase()))
  return `${words.join(', ')}${extent ? ` (${extent})` : ''}`
}
