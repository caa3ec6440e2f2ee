export { StockMark } from './StockMark'
