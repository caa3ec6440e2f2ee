/** A stream of numbers from 0 to 1, the same for the same seed (mulberry32). */
export function randomFrom(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state)
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296
  }
}

/** A UUID from a name: the demo has the same ids every time it is made. */
export function idOf(name: string): string {
  let hash = 0xcbf29ce484222325n
  let text = ''
  for (let round = 0; text.length < 32; round += 1) {
    for (const letter of `${round}:${name}`) {
      hash = BigInt.asUintN(64, (hash ^ BigInt(letter.codePointAt(0)!)) * 0x100000001b3n)
    }
    text += hash.toString(16).padStart(16, '0')
  }
  return `${text.slice(0, 8)}-${text.slice(8, 12)}-4${text.slice(13, 16)}-a${text.slice(17, 20)}-${text.slice(20, 32)}`
}
