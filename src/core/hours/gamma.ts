/** P(X >= x) for a gamma variable of this mean and variance, by Wilson and Hilferty's cube root. */
export function chanceOfAtLeast(x: number, mean: number, variance: number): number {
  if (mean <= 0) return x <= 0 ? 1 : 0
  if (variance <= 0) return mean >= x ? 1 : 0
  const c = variance / mean ** 2 / 9
  return 1 - normalBelow((Math.cbrt(x / mean) - (1 - c)) / Math.sqrt(c))
}

/** The value of a gamma variable of this mean and variance at a normal deviate, by the same cube root. */
export function quantile(mean: number, variance: number, z: number): number {
  if (mean <= 0 || variance <= 0) return Math.max(0, mean)
  const c = variance / mean ** 2 / 9
  return mean * Math.max(0, 1 - c + z * Math.sqrt(c)) ** 3
}

/** The normal distribution function; Abramowitz and Stegun 26.2.17, error below 7.5e-8. */
function normalBelow(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z))
  const tail =
    Math.exp((-z * z) / 2) *
    0.3989422804014327 *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))))
  return z >= 0 ? 1 - tail : tail
}
