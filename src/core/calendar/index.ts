export {
  type Day,
  addDays,
  dayFromNumber,
  dayNumber,
  daysBetween,
  daysBetweenInstants,
  isDay,
  showAge,
  showAhead,
  showDay,
  showFarDay,
  showLongDay,
} from './calendar'
