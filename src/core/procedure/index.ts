export {
  composeSheet,
  type ComposedSheet,
  type Job,
  type PartNeed,
  type SheetStep,
  type StripOrder,
} from './compose'
