export { type PartRow, type StockMovementRow, parts, stockLots, stockMovements } from './stores'
