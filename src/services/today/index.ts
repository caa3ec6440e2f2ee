export { getToday } from './today'
