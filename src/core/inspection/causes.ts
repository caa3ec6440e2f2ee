import { dutyFactors, type DutyKey } from '../wear'
import { checks, type FirstCheck } from './symptoms'
import { damages, type Damage, type Extent, type FindingSort } from './damage'

/** What one look saw. `index` is the cylinder, where there is one. */
export type SeenDamage = {
  sort: FindingSort
  /** The part in words, for telling the evidence: "Outlet valve, cylinder 2". */
  name: string
  index: number | null
  damages: Damage[]
  extent: Extent | ''
}

export const causes = {
  cavitation: 'Cavitation: starved or hot inlet, air drawn in',
  grit: 'Grit in the water',
  dryRunning: 'Run dry',
  heat: 'Heat: hot inlet or long by-pass',
  overPressure: 'Over-pressure, pulsation or a worn bush',
  chemical: 'A chemical that does not suit the elastomer',
  mechanical: 'Knock, twist or thermal shock on ceramic',
  assembly: 'Assembly: sharp pick, dry O-ring, dirt in the groove',
  waterInOil: 'Water past the oil seals',
  bearings: 'Bearings, oil level or grade',
  hardWater: 'Hard water: scale',
  frost: 'Frost',
} as const
export type CauseKey = keyof typeof causes

/** How strongly one damage on one sort of part speaks for a cause, 0 to 1. Ours, for ranking only. */
type Rule = { cause: CauseKey; sorts: FindingSort[]; damage: Damage; weight: number; why: string }

const rules: Rule[] = [
  {
    cause: 'cavitation',
    sorts: ['valve'],
    damage: 'pitting',
    weight: 0.5,
    why: 'bubbles collapse on plate and seat',
  },
  {
    cause: 'cavitation',
    sorts: ['manifold'],
    damage: 'pitting',
    weight: 0.6,
    why: 'it has gone on for long',
  },
  {
    cause: 'cavitation',
    sorts: ['valve'],
    damage: 'washout',
    weight: 0.25,
    why: 'the plate pounds its seat',
  },
  {
    cause: 'cavitation',
    sorts: ['valve'],
    damage: 'spring',
    weight: 0.2,
    why: 'a valve that hammers breaks its spring',
  },
  {
    cause: 'cavitation',
    sorts: ['seal'],
    damage: 'torn',
    weight: 0.2,
    why: 'the lip flutters where the inlet starves',
  },
  { cause: 'grit', sorts: ['plunger'], damage: 'scoring', weight: 0.5, why: 'grains are dragged along it' },
  { cause: 'grit', sorts: ['seal', 'bush'], damage: 'scoring', weight: 0.4, why: 'grains bed into the lip' },
  { cause: 'grit', sorts: ['valve'], damage: 'wornTaper', weight: 0.45, why: 'grit grinds the taper' },
  { cause: 'grit', sorts: ['valve'], damage: 'wornPost', weight: 0.3, why: 'grit grinds where it is guided' },
  {
    cause: 'grit',
    sorts: ['valve', 'seal', 'filter', 'other'],
    damage: 'dirt',
    weight: 0.3,
    why: 'it is still there',
  },
  { cause: 'grit', sorts: ['filter'], damage: 'torn', weight: 0.5, why: 'nothing was held back' },
  {
    cause: 'grit',
    sorts: ['valve'],
    damage: 'washout',
    weight: 0.25,
    why: 'a grain holds it open and water cuts',
  },
  { cause: 'dryRunning', sorts: ['plunger'], damage: 'scoring', weight: 0.2, why: 'no film under the lip' },
  { cause: 'dryRunning', sorts: ['plunger'], damage: 'blued', weight: 0.45, why: 'it ran hot' },
  { cause: 'dryRunning', sorts: ['seal'], damage: 'melted', weight: 0.45, why: 'water did not cool it' },
  { cause: 'dryRunning', sorts: ['seal'], damage: 'glazed', weight: 0.25, why: 'the lip rubbed dry' },
  {
    cause: 'heat',
    sorts: ['seal', 'oilSeal'],
    damage: 'flattened',
    weight: 0.35,
    why: 'heat hardens the rubber',
  },
  { cause: 'heat', sorts: ['seal'], damage: 'glazed', weight: 0.45, why: 'hot water glazes the lip' },
  { cause: 'heat', sorts: ['seal'], damage: 'melted', weight: 0.5, why: 'far too hot' },
  { cause: 'heat', sorts: ['oring'], damage: 'flattened', weight: 0.25, why: 'it took a set' },
  {
    cause: 'overPressure',
    sorts: ['seal'],
    damage: 'extrusion',
    weight: 0.55,
    why: 'pressed into the gap behind it',
  },
  {
    cause: 'overPressure',
    sorts: ['seal', 'bush'],
    damage: 'torn',
    weight: 0.35,
    why: 'nothing held it back',
  },
  { cause: 'overPressure', sorts: ['bush'], damage: 'washout', weight: 0.4, why: 'the gap has grown' },
  {
    cause: 'overPressure',
    sorts: ['oring'],
    damage: 'extrusion',
    weight: 0.35,
    why: 'pressed out of its groove',
  },
  {
    cause: 'chemical',
    sorts: ['seal', 'oilSeal', 'oring', 'valve'],
    damage: 'swollen',
    weight: 0.6,
    why: 'it has taken something up',
  },
  {
    cause: 'chemical',
    sorts: ['valve', 'manifold', 'other'],
    damage: 'corrosion',
    weight: 0.3,
    why: 'metal was attacked',
  },
  {
    cause: 'mechanical',
    sorts: ['plunger'],
    damage: 'crack',
    weight: 0.6,
    why: 'cold water on hot ceramic, a bolt too tight, a manifold pried on one side',
  },
  {
    cause: 'assembly',
    sorts: ['oring', 'oilSeal'],
    damage: 'cut',
    weight: 0.55,
    why: 'a sharp edge on the way in',
  },
  { cause: 'assembly', sorts: ['seal'], damage: 'cut', weight: 0.45, why: 'a sharp edge on the way in' },
  {
    cause: 'assembly',
    sorts: ['manifold'],
    damage: 'crack',
    weight: 0.3,
    why: 'bolts out of order or far too tight',
  },
  { cause: 'waterInOil', sorts: ['oil'], damage: 'milky', weight: 0.6, why: 'water stands in it' },
  {
    cause: 'waterInOil',
    sorts: ['oil'],
    damage: 'rising',
    weight: 0.55,
    why: 'more came in than was filled',
  },
  {
    cause: 'waterInOil',
    sorts: ['oilSeal'],
    damage: 'flattened',
    weight: 0.2,
    why: 'a hard lip lets water by',
  },
  { cause: 'waterInOil', sorts: ['oilSeal'], damage: 'torn', weight: 0.35, why: 'an open way into the case' },
  {
    cause: 'bearings',
    sorts: ['oil'],
    damage: 'metal',
    weight: 0.6,
    why: 'it comes from the bearings or the crank',
  },
  { cause: 'bearings', sorts: ['oil'], damage: 'dark', weight: 0.3, why: 'it was hot, or old' },
  { cause: 'bearings', sorts: ['bearing', 'other'], damage: 'play', weight: 0.5, why: 'the shaft has room' },
  { cause: 'bearings', sorts: ['bearing'], damage: 'blued', weight: 0.5, why: 'it ran hot' },
  {
    cause: 'hardWater',
    sorts: ['valve', 'plunger', 'filter', 'manifold'],
    damage: 'scale',
    weight: 0.5,
    why: 'lime settles where it is hot',
  },
  { cause: 'frost', sorts: ['manifold'], damage: 'crack', weight: 0.35, why: 'water left in it froze' },
]

/** Hard duty that makes a cause likelier; alone it is no evidence. */
const dutySpeaks: Record<DutyKey, CauseKey[]> = {
  hotInlet: ['cavitation', 'heat'],
  highPressure: ['overPressure'],
  starvedInlet: ['cavitation', 'dryRunning'],
  chemical: ['chemical'],
  hardWater: ['grit', 'hardWater'],
  longBypass: ['heat'],
  stopStart: ['mechanical', 'overPressure'],
}

const checksFor: Record<CauseKey, string[]> = {
  cavitation: ['tankLevel', 'strainer', 'suction', 'inletTemp'],
  grit: ['strainer', 'tankLevel'],
  dryRunning: ['tankLevel', 'strainer', 'askCrew'],
  heat: ['inletTemp', 'bypassLine', 'askCrew'],
  overPressure: ['gauge', 'unloaderFree', 'nozzle'],
  chemical: ['askCrew', 'tankLevel'],
  mechanical: ['askCrew', 'inletTemp'],
  assembly: ['askCrew'],
  waterInOil: ['washing', 'breather', 'dripCount', 'oilLook'],
  bearings: ['oilLook', 'drive', 'touchTemp'],
  hardWater: ['strainer', 'inletTemp'],
  frost: ['askCrew'],
}

export type Evidence = { words: string; weight: number }

export type ProbableCause = {
  cause: CauseKey
  name: string
  /** 0 to 1: how much of the evidence speaks for it. For ranking; no probability. */
  strength: number
  /** In a word, for a reader: never a certainty. */
  says: 'speaks strongly for' | 'speaks for' | 'may be'
  evidence: Evidence[]
  /** What to check on the machine because of it, what only looks first. */
  checks: FirstCheck[]
}

const extentFactor: Record<Extent | '', number> = { '': 1, slight: 0.6, clear: 1, severe: 1.3 }
const riskOrder: Record<FirstCheck['risk'], number> = { look: 0, running: 1, opening: 2 }

/**
 * What probably caused the damage that was seen, all findings of a pump together: a ranking with its
 * reasons, never a certainty.
 *
 * Each damage on each sort of part speaks for causes with a weight. The same on further cylinders speaks
 * half as much again each; extent raises or lowers it. Independent pieces of evidence w combine as
 * 1 - Π(1 - w). Hard duty known of the pump adds to a cause that a finding speaks for already, never to
 * one that none does. The table is in `domain.md` §6, the weights are ours.
 *
 * @param findings what was seen, each position once; those without damage are left out
 * @param duties hard duty known of the pump
 * @returns strongest first, by name where they are equal; empty where nothing was seen
 * @example probableCauses([{ sort: 'valve', name: 'Inlet valve', index: 1, damages: ['pitting'], extent: '' }], ['hotInlet'])[0].cause // 'cavitation'
 */
export function probableCauses(findings: SeenDamage[], duties: DutyKey[] = []): ProbableCause[] {
  const found = new Map<CauseKey, Evidence[]>()
  for (const rule of rules) {
    const seen = findings.filter(
      ({ sort, damages: all }) => rule.sorts.includes(sort) && all.includes(rule.damage),
    )
    if (seen.length === 0) continue
    const strongest = Math.max(...seen.map(({ extent }) => extentFactor[extent]))
    const weight = Math.min(0.9, rule.weight * strongest * (1 + 0.5 * Math.min(2, seen.length - 1)))
    const names = seen.map(({ name }) => name).sort((a, b) => a.localeCompare(b, 'en', { numeric: true }))
    found.set(rule.cause, [
      ...(found.get(rule.cause) ?? []),
      { words: `${damages[rule.damage]}: ${gathered(names)}; ${rule.why}`, weight },
    ])
  }
  for (const duty of [...new Set(duties)].sort())
    for (const cause of dutySpeaks[duty])
      found.get(cause)?.push({ words: `Its duty: ${dutyFactors[duty].name.toLowerCase()}`, weight: 0.3 })
  return [...found]
    .map(([cause, evidence]): ProbableCause => {
      const strength = 1 - evidence.reduce((left, { weight }) => left * (1 - weight), 1)
      return {
        cause,
        name: causes[cause],
        strength,
        says: strength >= 0.7 ? 'speaks strongly for' : strength >= 0.4 ? 'speaks for' : 'may be',
        evidence: [...evidence].sort((a, b) => b.weight - a.weight || (a.words < b.words ? -1 : 1)),
        checks: checksFor[cause]
          .map((key) => ({ key, ...checks[key]! }))
          .sort((a, b) => riskOrder[a.risk] - riskOrder[b.risk] || a.minutes - b.minutes),
      }
    })
    .sort((a, b) => b.strength - a.strength || (a.name < b.name ? -1 : 1))
}

/** "Inlet valve, cylinder 1; Inlet valve, cylinder 2" in fewer words: "Inlet valve, cylinder 1, cylinder 2". */
function gathered(names: string[]): string {
  const groups = new Map<string, string[]>()
  for (const name of names) {
    const [what = '', ...where] = name.split(', ')
    groups.set(what, [...(groups.get(what) ?? []), where.join(', ')])
  }
  return [...groups].map(([what, where]) => [what, ...where.filter(Boolean)].join(', ')).join('; ')
}
