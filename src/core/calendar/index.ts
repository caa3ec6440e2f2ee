export {
  type Day,
  addDays,
  dayFromNumber,
  dayNumber,
  daysBetween,
  daysBetweenInstants,
  isDay,
  showAge,
  showDay,
  showLongDay,
} from './calendar'
