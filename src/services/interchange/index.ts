export { type Download, type Format, exportParts, exportRecord, exportWinter } from './exports'
export { exportOrder } from './orderFiles'
