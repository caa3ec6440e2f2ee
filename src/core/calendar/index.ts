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
  showMonth,
  showSpan,
} from './calendar'
export { dateOrders, readDay, readTime, writeDay, type DateOrder } from './typed'
