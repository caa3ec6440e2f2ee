export * from './circuit'
export { judgeBore, type BoreQuestion, type BoreUnit } from './bores'
export * from './mixing'
export * from './recipe'
export { normalBelow, studentAt, studentBelow } from './chances'
export * from './climate'
export * from './campaign'
export * from './state'
export * from './methods'
export * from './templates'
export * from './sheet'
export * from './minima'
export * from './outlook'
export * from './watch'
export * from './schema'
export {
  type PlacesInput,
  usualPlaces,
  eveningNames,
  eveningMinutes,
  fluidNames,
  soldNames,
  winterNoteNames,
} from './choices'
export * from './views'
