/**
 * A name within a sentence: its first letter small, unless it is an abbreviation.
 * @example inSentence('O-ring of the cap') // 'O-ring of the cap'
 * @example inSentence('Seal kit') // 'seal kit'
 */
export function inSentence(name: string): string {
  return /^[A-Z][a-z ]/.test(name) ? name[0]!.toLowerCase() + name.slice(1) : name
}
