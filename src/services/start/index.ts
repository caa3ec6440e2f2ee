export { start } from './start'
