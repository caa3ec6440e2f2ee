export * from './schema'
export { nextNumber } from './numbers'
export { knownAhead, laidUpOn, overlap, spellKinds, spellSchema, spellWords, type SpellInput } from './spells'
export {
  documentSchema,
  kindOfFile,
  largestDocument,
  type DocumentInput,
  type DocumentView,
} from './documents'
