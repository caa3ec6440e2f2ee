/** Three to five round values that span from low to high. */
export function niceTicks(low: number, high: number): number[] {
  const rough = Math.max(high - low, 1) / 3
  const power = 10 ** Math.floor(Math.log10(rough))
  const step = [1, 2, 5, 10].map((factor) => factor * power).find((candidate) => candidate >= rough) ?? power
  const start = Math.floor(low / step) * step
  return Array.from({ length: Math.ceil((high - start) / step) + 1 }, (_, index) => start + index * step)
}
