export { toCsv } from './csv'
