// The two distributions that weather of few winters needs.

/**
 * The standard normal distribution, by West (2005), good to about fifteen digits.
 * @example normalBelow(0) // 0.5
 */
export function normalBelow(z: number): number {
  const x = Math.abs(z)
  let above: number
  if (x > 37) above = 0
  else if (x < 7.07106781186547) {
    const up = [
      0.0352624965998911, 0.700383064443688, 6.37396220353165, 33.912866078383, 112.079291497871,
      221.213596169931, 220.206867912376,
    ].reduce((sum, factor) => sum * x + factor, 0)
    const down = [
      0.0883883476483184, 1.75566716318264, 16.064177579207, 86.7807322029461, 296.564248779674,
      637.333633378831, 793.826512519948, 440.413735824752,
    ].reduce((sum, factor) => sum * x + factor, 0)
    above = (Math.exp((-x * x) / 2) * up) / down
  } else {
    const fraction = x + 1 / (x + 2 / (x + 3 / (x + 4 / (x + 0.65))))
    above = Math.exp((-x * x) / 2) / fraction / 2.506628274631
  }
  return z > 0 ? 1 - above : above
}

/** ln Γ for x > 0, by Lanczos (g = 7, nine terms). */
function lnGamma(x: number): number {
  const terms = [
    676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059, 12.507343278686905,
    -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
  ]
  const sum = terms.reduce((total, term, at) => total + term / (x + at), 0.99999999999980993)
  const t = x + 6.5
  return 0.5 * Math.log(2 * Math.PI) + (x - 0.5) * Math.log(t) - t + Math.log(sum)
}

/** The regularised incomplete beta function, by Lentz's continued fraction. */
function incompleteBeta(a: number, b: number, x: number): number {
  if (x <= 0) return 0
  if (x >= 1) return 1
  if (x > (a + 1) / (a + b + 2)) return 1 - incompleteBeta(b, a, 1 - x)
  const front = Math.exp(lnGamma(a + b) - lnGamma(a) - lnGamma(b) + a * Math.log(x) + b * Math.log(1 - x)) / a
  const tiny = 1e-300
  const kept = (value: number) => (Math.abs(value) < tiny ? tiny : value)
  let c = 1
  let d = 1 / kept(1 - ((a + b) * x) / (a + 1))
  let result = d
  for (let m = 1; m <= 500; m++) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m))
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1))
    let step = 1
    for (const term of [even, odd]) {
      d = 1 / kept(1 + term * d)
      c = kept(1 + term / c)
      step = d * c
      result *= step
    }
    if (Math.abs(step - 1) < 1e-14) break
  }
  return front * result
}

/**
 * Student's t distribution: the chance of a value below `t` with so many degrees of freedom.
 * @example studentBelow(2.262, 9) // 0.975
 */
export function studentBelow(t: number, freedom: number): number {
  if (!Number.isFinite(t)) return t > 0 ? 1 : 0
  const tail = incompleteBeta(freedom / 2, 0.5, freedom / (freedom + t * t)) / 2
  return t > 0 ? 1 - tail : tail
}

/** The value below which Student's t lies with a chance; by halving, to a billionth. */
export function studentAt(chance: number, freedom: number): number {
  let low = -1e6
  let high = 1e6
  for (let step = 0; step < 100 && high - low > 1e-10 * Math.max(1, Math.abs(low)); step++) {
    const middle = (low + high) / 2
    if (studentBelow(middle, freedom) < chance) low = middle
    else high = middle
  }
  return (low + high) / 2
}
