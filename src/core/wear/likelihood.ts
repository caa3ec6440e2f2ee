/** How often what was looked at on condition had to be renewed. */
export type Renewals = { looked: number; renewed: number }

/** Before any findings of one's own: one in four, worth four looks. Ours. */
const guess = { chance: 0.25, looks: 4 } as const

/**
 * The chance that a piece which is looked at must be renewed: from one's own findings, which outweigh the
 * first guess as they gather.
 *
 * @example renewalChance({ looked: 0, renewed: 0 }) // 0.25
 * @example renewalChance({ looked: 36, renewed: 2 }) // 0.075
 */
export function renewalChance({ looked, renewed }: Renewals): number {
  return (renewed + guess.chance * guess.looks) / (looked + guess.looks)
}

/**
 * How many to take along for pieces that are looked at, so that one too few is no likelier than a set risk.
 *
 * @param chance of each piece, taken as independent of the others
 * @param pieces how many are looked at; whole
 * @param risk that they do not suffice. Ours: 5 %
 * @returns 0 to `pieces`
 * @example takeAlong(0.25, 3) // 2: three bad of three come once in 64
 */
export function takeAlong(chance: number, pieces: number, risk = 0.05): number {
  let enough = 0
  let exactly = (1 - chance) ** pieces
  for (let bad = 0; bad < pieces; bad += 1) {
    enough += exactly
    if (1 - enough <= risk) return bad
    exactly *= ((pieces - bad) / (bad + 1)) * (chance / (1 - chance))
  }
  return pieces
}

/** @example likelyWords({ looked: 18, renewed: 4 }, 3) // 'take 2: renewed 4 of 18 times' */
export function likelyWords(renewals: Renewals, pieces: number): string {
  const take = takeAlong(renewalChance(renewals), pieces)
  const from =
    renewals.looked === 0
      ? 'a guess until there are findings of our own'
      : `renewed ${renewals.renewed} of ${renewals.looked} times`
  return `take ${take}: ${from}`
}
