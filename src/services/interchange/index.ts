export { type Download, type Format, exportParts, exportRecord } from './exports'
export { exportOrder } from './orderFiles'
