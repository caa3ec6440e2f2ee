export { PrintButton } from './PrintButton'
export { StockMark } from './StockMark'
