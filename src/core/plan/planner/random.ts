// A global is looked up each time, and nothing is asked as often as this.
const { imul } = Math

/** Numbers from 0 up to 1 that follow from a seed alone (mulberry32). */
export function randomFrom(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let mixed = imul(state ^ (state >>> 15), state | 1)
    mixed ^= mixed + imul(mixed ^ (mixed >>> 7), mixed | 61)
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296
  }
}
