/** So many columns of the position grid stand beside each other at the bench, each by itself. */
export const mostColumns = 5

/**
 * How the columns of a position grid stand at the bench. Up to five stand each by itself; of more, those
 * that are alike in every row are folded into one, so that what differs can still be seen and touched.
 *
 * @param keys what each column shows, in words that are equal where it shows the same
 * @returns columns by number from 0, in the order of the first of each group
 * @example foldColumns(['a', 'a', 'b', 'a', 'a', 'a']) // [[0, 1, 3, 4, 5], [2]]
 */
export function foldColumns(keys: string[]): number[][] {
  if (keys.length <= mostColumns) return keys.map((_, column) => [column])
  const groups = new Map<string, number[]>()
  keys.forEach((key, column) => groups.set(key, [...(groups.get(key) ?? []), column]))
  return [...groups.values()]
}

/**
 * Numbers in a row as people say them.
 * @example numberSpans([1, 2, 4, 5, 6]) // '1, 2, 4–6'
 */
export function numberSpans(numbers: number[]): string {
  const runs: number[][] = []
  for (const number of [...numbers].sort((a, b) => a - b)) {
    const last = runs.at(-1)
    if (last && last.at(-1) === number - 1) last.push(number)
    else runs.push([number])
  }
  return runs.flatMap((run) => (run.length > 2 ? [`${run[0]}–${run.at(-1)}`] : run.map(String))).join(', ')
}
