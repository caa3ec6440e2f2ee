export { getToday, prepareToday } from './today'
