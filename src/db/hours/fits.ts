import { runs, select, write } from '../house'

/** What was learned from a meter's readings, by a fingerprint of them. It can be thrown away. */
export type FitRow = { meterId: string; from: string; fit: unknown }

export async function loadFits(): Promise<FitRow[]> {
  const rows = await select<{ meterId: string; from: string; fit: string }>(
    [],
    'SELECT "meterId", "from", fit FROM usage_fits',
  )
  return rows.map((row) => ({ ...row, fit: JSON.parse(row.fit) as unknown }))
}

/** Writes some; nothing that is kept rests on them, so nothing is touched. */
export async function saveFits(rows: FitRow[]): Promise<void> {
  if (rows.length === 0) return
  await write(async () => {
    for (let at = 0; at < rows.length; at += 100) {
      const some = rows.slice(at, at + 100)
      await runs(
        `INSERT INTO usage_fits ("meterId", "from", fit) VALUES ${some.map(() => '(?, ?, ?)').join(', ')}
         ON CONFLICT ("meterId") DO UPDATE SET "from" = excluded."from", fit = excluded.fit`,
        some.flatMap(({ meterId, from, fit }) => [meterId, from, JSON.stringify(fit)]),
      )
    }
  })
}
