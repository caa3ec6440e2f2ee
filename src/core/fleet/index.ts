export * from './schema'
export { nextNumber } from './numbers'
export { knownAhead, laidUpOn, overlap, spellKinds, spellSchema, spellWords, type SpellInput } from './spells'
